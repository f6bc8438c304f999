import { z } from "zod";
import { instantSchema, localDateSchema } from "../dates/index.ts";
import { callFaultSchema } from "../faults/index.ts";
import { sha256Schema } from "../hash/index.ts";
import { readingAnswerSchema } from "../hours/index.ts";
import { languageSchema } from "../language/index.ts";
import { placeSchema, plainText } from "../rig/index.ts";
import { topicIdSchema } from "../topic/index.ts";
import { tripPlanSchema } from "../trip/index.ts";
import { typedSchema } from "../units/index.ts";
import { laterHows, marks, signRoles } from "./kinds.ts";

export const ulidSchema = z.string().regex(/^[0-7][0-9A-HJKMNP-TV-Z]{25}$/, "must be a ULID");
export const recordIdSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");

const base = {
  id: ulidSchema,
  delivery: recordIdSchema,
  at: instantSchema,
  by: recordIdSchema,
  device: z.string().regex(/^[A-Za-z0-9-]{1,40}$/),
  /** By how many milliseconds the device's clock was found behind the server's; `at` has it put right already. */
  clockMs: z.int().min(-1e12).max(1e12).optional(),
  /** The snapshot its author had before them: SHA-256 of what the walk was begun with. Not kept by the first version. */
  snapshot: sha256Schema.optional(),
};
const noteSchema = plainText(1000);
const nameSchema = plainText(80);
/** A stroke of a pen: x, y pairs in pixels of a pad `width` wide. */
const strokeSchema = z.array(z.number().min(-10).max(4000)).min(2).max(4000);

/**
 * What happens in a handover, as small immutable entries. Each is written down on the device first and stored once however
 * often it is sent. Corrections are entries too (`undo`, `settle`, `amend`, a snag that `corrects` another).
 */
export const entrySchema = z.discriminatedUnion("kind", [
  /** The walk begins, with what `snapshot` holds. Of two starts the first received governs. */
  z.strictObject({ ...base, kind: z.literal("start") }),
  /** Library or boat changed since: from here on the walk goes by the snapshot `next`. */
  z.strictObject({ ...base, kind: z.literal("update"), next: sha256Schema }),
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
    /** In which language it was told, where that is not the one its snapshot is written in. */
    language: languageSchema.optional(),
    /** Of a topic put off: how it is made up for, and by when. */
    how: z.enum(laterHows).optional(),
    when: localDateSchema.optional(),
  }),
  /** What is wrong. `stops` is the worst; otherwise `how` says how bad, "before leaving" when left out. */
  z.strictObject({
    ...base,
    kind: z.literal("snag"),
    topic: topicIdSchema.nullable(),
    note: noteSchema,
    stops: z.boolean(),
    how: z.enum(["before-leaving", "by-date", "cosmetic", "note"]).optional(),
    /** The make-ready check it was found by. */
    check: recordIdSchema.optional(),
    /** The snag that this one puts right: it stands in its place, under its id, where and when that one was found. */
    corrects: ulidSchema.optional(),
    place: placeSchema.optional(),
    owner: nameSchema.optional(),
    due: localDateSchema.optional(),
  }),
  /** What was promised, or sold and not fitted yet (`isExtra`). */
  z.strictObject({
    ...base,
    kind: z.literal("promise"),
    note: noteSchema,
    isExtra: z.boolean(),
    place: placeSchema.optional(),
    owner: nameSchema.optional(),
    due: localDateSchema.optional(),
  }),
  /** Who takes care of something owed, and by when; null for nobody, no day. */
  z.strictObject({
    ...base,
    kind: z.literal("assign"),
    ref: ulidSchema,
    owner: nameSchema.nullable(),
    due: localDateSchema.nullable(),
  }),
  /** Takes back; `reason` where it is another's mark or refusal that is taken back. */
  z.strictObject({ ...base, kind: z.literal("undo"), ref: ulidSchema, reason: plainText(500).optional() }),
  /** Things counted; `dated` is the day printed on what goes out of date. */
  z.strictObject({
    ...base,
    kind: z.literal("gear"),
    item: recordIdSchema,
    count: z.int().min(0).max(999),
    dated: localDateSchema.optional(),
  }),
  z.strictObject({
    ...base,
    kind: z.literal("hours"),
    engine: recordIdSchema,
    hours: z.number().min(0).max(100_000),
    /** What was answered about hours that do not follow from those before. */
    answer: readingAnswerSchema.optional(),
  }),
  /** A reading taken with gauge, meter or eye (`listMeasures`); in the unit of the measure. */
  z.strictObject({
    ...base,
    kind: z.literal("measure"),
    item: recordIdSchema,
    value: z.number().min(-100).max(100_000),
    /** As it was read off a gauge in a unit of the store's; `value` is the same in the measure's unit. */
    typed: typedSchema.optional(),
    /** Of battery volts: charged or run within the last hours, so that it reads high. */
    isJustCharged: z.boolean().optional(),
  }),
  /** A photo kept under its own id: of a topic, or of what another entry says. */
  z.strictObject({
    ...base,
    kind: z.literal("photo"),
    photo: recordIdSchema,
    /** SHA-256 of the bytes the device sends. */
    sha256: sha256Schema.optional(),
    topic: topicIdSchema.nullable(),
    ref: ulidSchema.nullable(),
  }),
  z.strictObject({ ...base, kind: z.literal("reason"), topic: topicIdSchema, reason: plainText(500) }),
  z.strictObject({
    ...base,
    kind: z.literal("sign"),
    role: z.enum(signRoles),
    name: nameSchema,
    /** Of a buyer: who of the handover's people it is. */
    person: recordIdSchema.optional(),
    /** SHA-256 of marks, gear, readings, hours and what is owed, as they stood on the screen (`hashShown`). */
    digest: sha256Schema.optional(),
    /** What was signed for, as it stood on the screen. */
    signsFor: z.array(plainText(300)).max(8).optional(),
    width: z.number().min(50).max(4000),
    height: z.number().min(50).max(4000),
    strokes: z.array(strokeSchema).min(1).max(200),
  }),
  /** A buyer who will not sign. */
  z.strictObject({
    ...base,
    kind: z.literal("refuse"),
    name: nameSchema,
    person: recordIdSchema.optional(),
    reason: plainText(500),
  }),
  /**
   * The wish to close: sealed as soon as everything it lists has arrived. `covers`: the entries its signatures are for;
   * `beside`: what takes back or corrects some of that and was unknown to whoever signed. It is sealed as it was signed all the
   * same, and the record says so.
   */
  z.strictObject({
    ...base,
    kind: z.literal("close"),
    covers: z.array(ulidSchema).max(20_000).optional(),
    beside: z.array(ulidSchema).min(1).max(2_000).optional(),
  }),
  z.strictObject({ ...base, kind: z.literal("settle"), ref: ulidSchema, note: noteSchema }),
  /** A message to the buyer about something owed. */
  z.strictObject({ ...base, kind: z.literal("tell"), ref: ulidSchema, text: noteSchema }),
  /** The buyer rang: about a topic, or about something else. */
  z.strictObject({
    ...base,
    kind: z.literal("call"),
    topic: topicIdSchema.nullable(),
    note: noteSchema,
    /** What the finder came to. */
    fault: callFaultSchema.optional(),
  }),
  z.strictObject({ ...base, kind: z.literal("amend"), note: noteSchema }),
  /** On the owner page, without anybody of the store beside them. */
  z.strictObject({ ...base, kind: z.literal("remote"), topic: topicIdSchema, as: z.enum(["understood", "did"]) }),
  z.strictObject({
    ...base,
    kind: z.literal("ask"),
    topic: topicIdSchema.nullable(),
    note: noteSchema,
    /** What an owner's finder came to. */
    fault: callFaultSchema.optional(),
  }),
  /**
   * One step of a sequence (hitching up, launching): done, left out, or open again; or what was read at a wheel, in °C or kPa,
   * or by hand. `run` names one time it was gone through.
   */
  z.strictObject({
    ...base,
    kind: z.literal("step"),
    sequence: recordIdSchema,
    run: z.string().regex(/^[a-z][a-z0-9-]{0,79}$/),
    step: recordIdSchema,
    role: z.enum(["skipper", "helper"]),
    as: z.enum(["done", "skipped", "open"]),
    value: z.number().min(-60).max(2000).optional(),
    /** As it was read in a unit of the store's. */
    typed: typedSchema.optional(),
    feel: z.enum(["cool", "warm", "hot"]).optional(),
  }),
  /** A day out as it is planned now: the last word on a trip counts. Null calls it off. */
  z.strictObject({ ...base, kind: z.literal("trip"), trip: recordIdSchema, plan: tripPlanSchema.nullable() }),
  /** A scenario gone through at the drawn helm: what was worked, in seconds since it began. Entered by nobody yet. */
  z.strictObject({
    ...base,
    kind: z.literal("rehearsed"),
    scenario: recordIdSchema,
    version: z.int().min(1),
    person: recordIdSchema,
    actions: z
      .array(
        z.strictObject({
          tS: z.number().min(0).max(86_400),
          control: z.string().regex(/^[a-z0-9:-]{1,120}$/),
          to: z.union([z.number(), plainText(80)]),
        }),
      )
      .max(5000),
  }),
  /** A clip about a topic was watched to its end; `clip`: SHA-256 of its bytes. Entered by nobody yet. */
  z.strictObject({
    ...base,
    kind: z.literal("watched"),
    topic: topicIdSchema,
    clip: sha256Schema,
    person: recordIdSchema.nullable(),
  }),
  /** A question about a topic was answered: by its how-manieth choice, from 0. Entered by nobody yet. */
  z.strictObject({
    ...base,
    kind: z.literal("answered"),
    topic: topicIdSchema,
    question: recordIdSchema,
    choice: z.int().min(0).max(20),
    person: recordIdSchema.nullable(),
  }),
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
