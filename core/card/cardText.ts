import { z } from "zod";
import { conditionSchema, plainText } from "../rig/index.ts";

const idSchema = z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, "must be small letters, digits and hyphens");

/** A line of a card and the boats it is for; left out: all. Words in braces are filled from the rig, as in topics. */
const lineSchema = z.strictObject({ say: plainText(300), when: conditionSchema.optional() });
const pairSchema = z.strictObject({ if: plainText(120), do: plainText(360), when: conditionSchema.optional() });

/** Tables that are made from the boat itself. */
export const cardTables = [
  "switch-positions",
  "keeps-afloat",
  "stays-live",
  "left-on",
  "looks-off",
  "breakers",
  "panel",
  "places",
  "through-hulls",
  "tanks",
  "trailer-plate",
  "break-in",
  "service",
  "gear",
  "contacts",
] as const;

const sectionSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("cautions"), items: z.array(lineSchema).min(1) }),
  z.strictObject({ kind: z.literal("steps"), title: plainText(60).optional(), items: z.array(lineSchema).min(1) }),
  z.strictObject({ kind: z.literal("lines"), title: plainText(60).optional(), items: z.array(lineSchema).min(1) }),
  z.strictObject({ kind: z.literal("pairs"), title: plainText(60).optional(), items: z.array(pairSchema).min(1) }),
  z.strictObject({ kind: z.literal("table"), title: plainText(60).optional(), table: z.enum(cardTables) }),
]);

/** A card of the owner pack as content writes it, for every boat. */
export const cardTextSchema = z.strictObject({
  id: idSchema,
  title: plainText(60),
  lead: plainText(200).optional(),
  when: conditionSchema.optional(),
  sections: z.array(sectionSchema).min(1),
});
export type CardText = z.infer<typeof cardTextSchema>;
