import { z } from "zod";
import { localDateSchema } from "../core/dates/index.ts";
import { recordIdSchema } from "../core/walk/index.ts";

/** Everything the store holds of one buyer, counted, before it is taken along or forgotten. */
export const buyerSheetSchema = z.strictObject({
  name: z.string(),
  /** Every handover to somebody of this name, the first first. */
  handovers: z.array(
    z.strictObject({
      delivery: recordIdSchema,
      boat: recordIdSchema,
      boatName: z.string(),
      date: localDateSchema,
      /** Who else bought it with them. */
      others: z.array(z.string()),
      /** How it is sealed: "first" over the names themselves, "salted" over hashes of them; null while it is open. */
      seal: z.enum(["first", "salted"]).nullable(),
      /** Signatures, days out and notes that are theirs or name them. */
      entries: z.int(),
      photos: z.int(),
    }),
  ),
  boats: z.array(
    z.strictObject({
      boat: recordIdSchema,
      boatName: z.string(),
      /** Nobody else has had it since. */
      isTheirs: z.boolean(),
      phone: z.string(),
      email: z.string(),
      hasCar: z.boolean(),
      launches: z.int(),
      /** Rows by table: readings, services, fills, runs, bookings. */
      rows: z.record(z.string(), z.int()),
      /** Papers kept with services, which may name them. */
      files: z.int(),
    }),
  ),
  messages: z.int(),
  logLines: z.int(),
});
export type BuyerSheet = z.infer<typeof buyerSheetSchema>;

export const forgottenSheetSchema = z.strictObject({
  handovers: z.int(),
  messages: z.int(),
  logLines: z.int(),
  /** Words of marks, snags and promises that still name them. */
  stillNamed: z.array(z.strictObject({ delivery: recordIdSchema, boatName: z.string(), text: z.string() })),
});
export type ForgottenSheet = z.infer<typeof forgottenSheetSchema>;

/** How long what is kept; null for good. */
export const retentionRulesSchema = z.strictObject({
  /** The words of messages, in months. */
  messagesMonths: z.int().min(1).max(240).nullable(),
  /** Lines of the log, in months. */
  logMonths: z.int().min(12).max(240).nullable(),
  /** After so many years without a word a buyer is put before the owner, to be forgotten. */
  buyersYears: z.int().min(1).max(50).nullable(),
});
export type RetentionRules = z.infer<typeof retentionRulesSchema>;

export const retentionSheetSchema = z.strictObject({
  rules: retentionRulesSchema,
  /** Buyers of whom nothing was heard for longer than the rule says, the longest first; and how many there are, up to 500. */
  quiet: z.array(
    z.strictObject({
      delivery: recordIdSchema,
      person: recordIdSchema,
      name: z.string(),
      boatName: z.string(),
      date: localDateSchema,
    }),
  ),
});
export type RetentionSheet = z.infer<typeof retentionSheetSchema>;
