import canonicalize from "canonicalize";
import { z } from "zod";
import { isoDateSchema } from "../dates/index.ts";
import { plainText, rigSchema } from "../rig/index.ts";
import { planSchema } from "../route/index.ts";
import { topicSchema } from "../topic/index.ts";
import { entrySchema, recordIdSchema } from "../walk/index.ts";

export const personSchema = z.strictObject({ id: recordIdSchema, name: plainText(80) });

/**
 * The record of one handover as it was sealed (`ravik.handover/1`): the boat, the people, the plan and wording used, and
 * every entry made until then. What is added later stands beside it, never in it.
 */
export const handoverSchema = z.strictObject({
  format: z.literal("ravik.handover/1"),
  delivery: recordIdSchema,
  store: plainText(80),
  date: isoDateSchema,
  hull: z.string(),
  rig: rigSchema,
  buyers: z.array(personSchema),
  staff: z.array(personSchema),
  plan: planSchema,
  topics: z.array(topicSchema),
  entries: z.array(entrySchema),
  sealedBy: recordIdSchema,
  sealedAt: z.iso.datetime(),
});
export type Handover = z.infer<typeof handoverSchema>;

/** The text whose SHA-256 is the seal: JSON in the one form of RFC 8785. Entries are put in order of id first. */
export function writeCanonical(handover: Handover): string {
  const entries = [...handover.entries].sort((a, b) => (a.id < b.id ? -1 : 1));
  const text = canonicalize({ ...handover, entries });
  if (text === undefined) throw new Error("writeCanonical: expected a JSON value, got undefined");
  return text;
}
