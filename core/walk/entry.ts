import { z } from "zod";
import { plainText } from "../rig/index.ts";
import { topicIdSchema } from "../topic/index.ts";

export const ulidSchema = z.string().regex(/^[0-7][0-9A-HJKMNP-TV-Z]{25}$/, "must be a ULID");
export const recordIdSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");
const instantSchema = z.iso.datetime({ error: "must be an instant such as 2026-01-31T09:30:00.000Z" });

export const marks = ["told", "shown", "did", "later", "not-aboard"] as const;
export type Mark = (typeof marks)[number];

const base = {
  id: ulidSchema,
  delivery: recordIdSchema,
  at: instantSchema,
  by: recordIdSchema,
  device: z.string().regex(/^[A-Za-z0-9-]{1,40}$/),
};

const noteSchema = plainText(1000);

/** A stroke of a pen: x, y pairs in pixels of a pad `width` wide. */
const strokeSchema = z.array(z.number().min(-10).max(4000)).min(2).max(4000);

/**
 * What happens in a handover, as small immutable entries. Each is written down on the device first and stored once however
 * often it is sent. Corrections are entries too (`undo`, `settle`, `amend`).
 */
export const entrySchema = z.discriminatedUnion("kind", [
  z.strictObject({ ...base, kind: z.literal("start") }),
  z.strictObject({
    ...base,
    kind: z.literal("ready"),
    check: recordIdSchema,
    ok: z.boolean(),
    note: noteSchema.optional(),
  }),
  z.strictObject({
    ...base,
    kind: z.literal("mark"),
    topic: topicIdSchema,
    mark: z.enum(marks),
    /** Who it is for; null for all present. */
    person: recordIdSchema.nullable(),
    /** Seconds the topic was open before this mark. */
    spentS: z.number().min(0).max(86_400),
    note: noteSchema.optional(),
  }),
  z.strictObject({
    ...base,
    kind: z.literal("snag"),
    topic: topicIdSchema.nullable(),
    note: noteSchema,
    stops: z.boolean(),
  }),
  z.strictObject({ ...base, kind: z.literal("undo"), ref: ulidSchema }),
  z.strictObject({ ...base, kind: z.literal("gear"), item: recordIdSchema, count: z.int().min(0).max(999) }),
  z.strictObject({ ...base, kind: z.literal("hours"), engine: recordIdSchema, hours: z.number().min(0).max(100_000) }),
  z.strictObject({ ...base, kind: z.literal("reason"), topic: topicIdSchema, reason: plainText(500) }),
  z.strictObject({
    ...base,
    kind: z.literal("sign"),
    role: z.enum(["buyer", "staff"]),
    name: plainText(80),
    width: z.number().min(50).max(4000),
    height: z.number().min(50).max(4000),
    strokes: z.array(strokeSchema).min(1).max(200),
  }),
  z.strictObject({ ...base, kind: z.literal("settle"), ref: ulidSchema, note: noteSchema }),
  z.strictObject({ ...base, kind: z.literal("amend"), note: noteSchema }),
]);

export type Entry = z.infer<typeof entrySchema>;
export type EntryKind = Entry["kind"];
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;

/** Kinds that may still be added once the handover is sealed. */
export function isAfterSeal(kind: EntryKind): boolean {
  return kind === "settle" || kind === "amend";
}
