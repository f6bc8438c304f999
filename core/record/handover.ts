import { z } from "zod";
import { breakInPackSchema } from "../breakin/index.ts";
import { instantSchema, localDateSchema } from "../dates/index.ts";
import { sha256Schema, writeJson } from "../hash/index.ts";
import { readyCheckSchema } from "../ready/index.ts";
import { plainText, rigSchema } from "../rig/index.ts";
import { planSchema } from "../route/index.ts";
import { servicePackSchema } from "../service/index.ts";
import { toldTopicSchema } from "../topic/index.ts";
import { entrySchema, recordIdSchema, struckName, ulidSchema } from "../walk/index.ts";
import { type Strike, strikeEntry, struckSchema } from "./strike.ts";

export const personSchema = z.strictObject({ id: recordIdSchema, name: plainText(80) });

/** A photo as it was kept when the record was sealed: its bytes are beside the record, held by their hash. */
export const photoFactSchema = z.strictObject({
  id: recordIdSchema,
  sha256: sha256Schema,
  width: z.int(),
  height: z.int(),
});
export type PhotoFact = z.infer<typeof photoFactSchema>;

/**
 * The record of one handover as it was sealed (`ravik.handover/1`): the boat, the people, the plan and wording used, and
 * every entry made until then. What is added later stands beside it, never in it. The parts that may be missing were not
 * kept by the first version.
 */
export const handoverSchema = z.strictObject({
  format: z.literal("ravik.handover/1"),
  delivery: recordIdSchema,
  store: plainText(80),
  date: localDateSchema,
  hull: z.string(),
  boatName: plainText(80).optional(),
  rig: rigSchema,
  buyers: z.array(personSchema),
  staff: z.array(personSchema),
  plan: planSchema,
  topics: z.array(toldTopicSchema),
  makeReady: z.array(readyCheckSchema).optional(),
  /** The break-in and service packs of its engines, as they were. */
  packs: z.strictObject({ breakIn: z.array(breakInPackSchema), service: z.array(servicePackSchema) }).optional(),
  photos: z.array(photoFactSchema).optional(),
  entries: z.array(entrySchema),
  /** SHA-256 of each entry's canonical text, so that a changed record says which entry was changed. */
  digests: z.record(ulidSchema, sha256Schema).optional(),
  sealedBy: recordIdSchema,
  sealedAt: instantSchema,
});
export type Handover = z.infer<typeof handoverSchema>;

/** What came after the seal (`ravik.amendment/1`), chained to the seal before it. */
export const amendmentSchema = z
  .strictObject({
    format: z.literal("ravik.amendment/1"),
    delivery: recordIdSchema,
    /** SHA-256 of the handover or amendment it follows. */
    previous: sha256Schema,
    at: instantSchema,
    entries: z.array(entrySchema),
    /** Photos that arrived: with their entries, or later than these, by themselves. */
    photos: z.array(photoFactSchema).min(1).optional(),
    /** Whose data is no longer kept: from here on what was sealed before cannot be recomputed. */
    struck: struckSchema.optional(),
  })
  .refine(({ entries, photos, struck }) => entries.length > 0 || photos !== undefined || struck !== undefined, {
    path: ["entries"],
    message: "must hold an entry, where no photo is added and nothing is struck",
  });
export type Amendment = z.infer<typeof amendmentSchema>;

const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);

/** Canonical texts of parts of a record, written ahead of its sealing. */
export type WrittenAhead = Partial<Record<keyof Handover, string>>;

/**
 * The text whose SHA-256 is the seal: JSON in the one form of RFC 8785. Entries are put in order of id first. What was
 * written ahead is taken as it is; it must be the text of that very part.
 */
export function writeCanonical(record: Handover | Amendment, ahead: WrittenAhead = {}): string {
  const whole: Record<string, unknown> = { ...record, entries: [...record.entries].sort(byId) };
  const texts: Record<string, string | undefined> = ahead;
  // Names of parts are plain letters, so that their order as UTF-16, which RFC 8785 asks for, is that of `sort`.
  const parts = Object.keys(whole)
    .filter((name) => whole[name] !== undefined)
    .sort()
    .map((name) => `${writeJson(name)}:${texts[name] ?? writeJson(whole[name])}`);
  return `{${parts.join(",")}}`;
}

/** The link of a store's seal chain: each holds all that came before it. `previous` is 64 zeros for the first. */
export const writeLink = (previous: string, sha256: string): string => `${previous}${sha256}`;
export const firstLink = "0".repeat(64);

/**
 * A record of the first format, or an addition to one, without what is struck. Its seal is over the names themselves, so that
 * it cannot be recomputed from then on; the digests of the entries that stay still hold them.
 */
export function strikeFirst<R extends Handover | Amendment>(record: R, parts: readonly Strike[]): R {
  const isStruck = (part: Strike["part"], id: string) => parts.some((each) => each.part === part && each.id === id);
  const entries = record.entries.map((entry) => (isStruck("entry", entry.id) ? strikeEntry(entry) : entry));
  if (!("buyers" in record)) return { ...record, entries };
  const buyers = record.buyers.map((buyer) => (isStruck("person", buyer.id) ? { ...buyer, name: struckName } : buyer));
  return { ...record, buyers, entries };
}
