import { z } from "zod";
import { localDateSchema } from "../dates/index.ts";
import { plainText } from "../rig/index.ts";

const share = z.number().min(0).max(0.5);

/** What a region asks of whoever tows; data, with the day on which somebody last held it against the law. */
export const towRulesSchema = z
  .strictObject({
    id: z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/),
    name: plainText(60),
    /** Made to show how one looks: nobody's law. */
    isExample: z.boolean(),
    tongueShareMin: share,
    tongueShareMax: share,
    brakesAboveKg: z.number().positive().max(10_000),
    checkedOn: localDateSchema,
    notes: z.array(plainText(200)).max(8),
  })
  .refine((rules) => rules.tongueShareMin < rules.tongueShareMax, {
    path: ["tongueShareMax"],
    message: "must be above the least",
  });
export type TowRules = z.infer<typeof towRulesSchema>;
