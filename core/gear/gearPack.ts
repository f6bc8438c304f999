import { z } from "zod";
import { localDateSchema } from "../dates/index.ts";
import { partKinds, plainText } from "../rig/index.ts";
import { gearRuleSchema } from "./gear.ts";

/** A rule of the contract `gear` with its words, and what aboard counts for it. */
export const packRuleSchema = gearRuleSchema.extend({
  label: plainText(60),
  says: plainText(200),
  /** Ids of a rig's gear that count. */
  gear: z.array(z.string().max(60)).max(8),
  /** Things built into the boat that count as one. */
  fitted: z.array(z.enum(partKinds)).max(4).optional(),
  /** Where it is looked for on the plan, when nobody has said: parts of these kinds. */
  parts: z.array(z.enum(partKinds)).max(8),
});
export type PackRule = z.infer<typeof packRuleSchema>;

/** What must be aboard on a kind of water, as data: to be checked against the law of the place. */
export const gearPackSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/),
  name: plainText(60),
  /** Shows how a pack may look; nobody's law. */
  isExample: z.boolean(),
  water: z.enum(["any", "inland", "coastal"]),
  checkedOn: localDateSchema,
  notes: z.array(plainText(240)).max(12),
  rules: z.array(packRuleSchema).min(1).max(60),
});
export type GearPack = z.infer<typeof gearPackSchema>;
