import { z } from "zod";
import { plainText } from "../rig/index.ts";
import { type Entry, recordIdSchema, struckName, ulidSchema } from "../walk/index.ts";

/** What may be struck, and why it was. */
export const strikeSchema = z.strictObject({
  part: z.enum(["entry", "person", "photo"]),
  id: z.union([ulidSchema, recordIdSchema]),
});
export type Strike = z.infer<typeof strikeSchema>;

/** Whose data is no longer kept, who said so and why. */
export const struckSchema = z.strictObject({
  parts: z.array(strikeSchema).min(1).max(2000),
  by: recordIdSchema,
  reason: plainText(500),
});

/** Of a struck entry only that it was made stays: when, by whom, on which device. */
export const strikeEntry = ({ id, delivery, at, by, device }: Entry): Entry => ({
  id,
  delivery,
  at,
  by,
  device,
  kind: "amend",
  note: struckName,
});
