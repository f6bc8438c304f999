import { z } from "zod";
import { isoDateSchema } from "../dates/index.ts";
import { placeSchema, plainText } from "../rig/index.ts";
import { topicIdSchema } from "../topic/index.ts";
import { laterHows, marks, signRoles } from "./kinds.ts";

export const ulidSchema = z.string().regex(/^[0-7][0-9A-HJKMNP-TV-Z]{25}$/, "must be a ULID");
export const recordIdSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");
const instantSchema = z.iso.datetime({ error: "must be an instant such as 2026-01-31T09:30:00.000Z" });

const base = {
  id: ulidSchema,
  delivery: recordIdSchema,
  at: instantSchema,
  by: recordIdSchema,
  device: z.string().regex(/^[A-Za-z0-9-]{1,40}$/),
  /** By how many milliseconds the device's clock was found behind the server's; `at` has it put right already. */
  clockMs: z.int().min(-1e12).max(1e12).optional(),
};
const noteSchema = plainText(1000);
const nameSchema = plainText(80);
/** A stroke of a pen: x, y pairs in pixels of a pad `width` wide. */
const strokeSchema = z.array(z.number().min(-10).max(4000)).min(2).max(4000);

/**
 * What happens in a handover, as small immutable entries. Each is written down on the device first and stored once however
 * often it is sent. Corrections are entries too (`undo`, `settle`, `amend`).
 */
export const entrySchema = z.discriminatedUnion("kind", [
  z.strictObject({ ...base, kind: z.literal("start") }),
  /** Somebody answers for starting although make-ready is open or a snag stops the handover. */
  z.strictObject({ ...base, kind: z.literal("allow"), reason: plainText(500) }),
  /** A make-ready check; `minutes` where an engine was run for it. */
  z.strictObject({
    ...base,
    kind: z.literal("ready"),
    check: recordIdSchema,
    ok: z.boolean(),
    minutes: z.number().min(0).max(600).optional(),
    note: noteSchema.optional(),
  }),
  z.strictObject({ ...base, kind: z.literal("present"), person: recordIdSchema, name: nameSchema, here: z.boolean() }),
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
    /** Of a topic put off: how it is made up for, and by when. */
    how: z.enum(laterHows).optional(),
    when: isoDateSchema.optional(),
  }),
  /** What is wrong. `stops` is the worst; otherwise `how` says how bad, "before leaving" when left out. */
  z.strictObject({
    ...base,
    kind: z.literal("snag"),
    topic: topicIdSchema.nullable(),
    note: noteSchema,
    stops: z.boolean(),
    how: z.enum(["before-leaving", "by-date", "cosmetic", "note"]).optional(),
    place: placeSchema.optional(),
    owner: nameSchema.optional(),
    due: isoDateSchema.optional(),
  }),
  /** What was promised, or sold and not fitted yet (`isExtra`). */
  z.strictObject({
    ...base,
    kind: z.literal("promise"),
    note: noteSchema,
    isExtra: z.boolean(),
    place: placeSchema.optional(),
    owner: nameSchema.optional(),
    due: isoDateSchema.optional(),
  }),
  /** Who takes care of something owed, and by when; null for nobody, no day. */
  z.strictObject({
    ...base,
    kind: z.literal("assign"),
    ref: ulidSchema,
    owner: nameSchema.nullable(),
    due: isoDateSchema.nullable(),
  }),
  z.strictObject({ ...base, kind: z.literal("undo"), ref: ulidSchema }),
  /** Things counted; `dated` is the day printed on what goes out of date. */
  z.strictObject({
    ...base,
    kind: z.literal("gear"),
    item: recordIdSchema,
    count: z.int().min(0).max(999),
    dated: isoDateSchema.optional(),
  }),
  z.strictObject({ ...base, kind: z.literal("hours"), engine: recordIdSchema, hours: z.number().min(0).max(100_000) }),
  /** A reading taken with gauge, meter or eye (`listMeasures`); in the unit of the measure. */
  z.strictObject({
    ...base,
    kind: z.literal("measure"),
    item: recordIdSchema,
    value: z.number().min(-100).max(100_000),
    /** Of battery volts: charged or run within the last hours, so that it reads high. */
    isJustCharged: z.boolean().optional(),
  }),
  /** A photo kept under its own id: of a topic, or of what another entry says. */
  z.strictObject({
    ...base,
    kind: z.literal("photo"),
    photo: recordIdSchema,
    topic: topicIdSchema.nullable(),
    ref: ulidSchema.nullable(),
  }),
  z.strictObject({ ...base, kind: z.literal("reason"), topic: topicIdSchema, reason: plainText(500) }),
  z.strictObject({
    ...base,
    kind: z.literal("sign"),
    role: z.enum(signRoles),
    name: nameSchema,
    /** What was signed for, as it stood on the screen. */
    signsFor: z.array(plainText(300)).max(8).optional(),
    width: z.number().min(50).max(4000),
    height: z.number().min(50).max(4000),
    strokes: z.array(strokeSchema).min(1).max(200),
  }),
  /** A buyer who will not sign. */
  z.strictObject({ ...base, kind: z.literal("refuse"), name: nameSchema, reason: plainText(500) }),
  /** The wish to close: sealed as soon as everything it needs has arrived. */
  z.strictObject({ ...base, kind: z.literal("close") }),
  z.strictObject({ ...base, kind: z.literal("settle"), ref: ulidSchema, note: noteSchema }),
  /** A message to the buyer about something owed. */
  z.strictObject({ ...base, kind: z.literal("tell"), ref: ulidSchema, text: noteSchema }),
  /** The buyer rang: about a topic, or about something else. */
  z.strictObject({ ...base, kind: z.literal("call"), topic: topicIdSchema.nullable(), note: noteSchema }),
  z.strictObject({ ...base, kind: z.literal("amend"), note: noteSchema }),
  /** On the owner page, without anybody of the store beside them. */
  z.strictObject({ ...base, kind: z.literal("remote"), topic: topicIdSchema, as: z.enum(["understood", "did"]) }),
  z.strictObject({ ...base, kind: z.literal("ask"), topic: topicIdSchema.nullable(), note: noteSchema }),
  /** Of a boat trucked to the buyer: one thing looked at on arrival. */
  z.strictObject({
    ...base,
    kind: z.literal("inspect"),
    check: recordIdSchema,
    ok: z.boolean(),
    note: noteSchema.optional(),
  }),
]);
export type Entry = z.infer<typeof entrySchema>;
export type EntryKind = Entry["kind"];
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;

const onlyAdds: ReadonlySet<EntryKind> = new Set<EntryKind>([
  "mark",
  "measure",
  "snag",
  "promise",
  "assign",
  "photo",
  "settle",
  "tell",
  "call",
  "amend",
  "remote",
  "ask",
  "inspect",
  // Two who close at once wish for the same seal: the second is only acknowledged.
  "close",
]);
/** Clocks are put right to within a few seconds: what was made so shortly after the seal may have been made before it. */
const clockGraceMs = 5000;

/**
 * Whether an entry may still be added once the handover is sealed. What was made before the seal and comes late (another
 * tablet had no signal) is kept, whatever it is; what is made after it can only add.
 */
export function mayFollowSeal(entry: Pick<Entry, "kind" | "at">, sealedAt: string): boolean {
  return onlyAdds.has(entry.kind) || Date.parse(entry.at) <= Date.parse(sealedAt) + clockGraceMs;
}

/** Kinds that an owner may enter on their own page. */
export function isOwnersToMake(kind: EntryKind): boolean {
  return kind === "remote" || kind === "ask" || kind === "inspect" || kind === "photo";
}
