import { z } from "zod";
import { languageSchema } from "../../core/language/index.ts";
import { recordIdSchema } from "../../core/walk/index.ts";

export const none = z.strictObject({});
export const oneBoat = z.strictObject({ boat: recordIdSchema });
/** The highest number of an entry that a store acknowledged to a device, in which epoch, under the store's signature (Ed25519, hex). */
export const acknowledgedSchema = z.strictObject({
  epoch: z.string().max(60),
  number: z.int().min(1),
  proof: z.string().regex(/^[0-9a-f]{128}$/),
});
export type Acknowledged = z.infer<typeof acknowledgedSchema>;
/** What the clock of a device says as it sends: Unix milliseconds. */
export const deviceMsSchema = z.int().min(-1e14).max(1e14);
export const oneDelivery = z.strictObject({ delivery: recordIdSchema });
export const tokenSchema = z.string().regex(/^[A-Za-z0-9_-]{22}$/, "must be an owner's token");
export const photoTypes = ["image/jpeg", "image/png", "image/webp"] as const;
export const photoAnswer = z.strictObject({ photo: recordIdSchema, width: z.int(), height: z.int() });
/** A paper of a size, in the language it is for. */
export const paperQuery = z.strictObject({
  paper: z.enum(["a4", "letter"]).default("letter"),
  language: languageSchema.default("en"),
});
export const packQuery = z.strictObject({
  paper: z.enum(["a4", "letter"]).default("letter"),
  /** One card a page of half the paper, or two side by side on a whole one. */
  layout: z.enum(["single", "two-up"]).default("single"),
});
export const oneToken = z.strictObject({ token: tokenSchema });
export const done = z.strictObject({ done: z.literal(true) });
