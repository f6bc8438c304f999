import { z } from "zod";
import { localDateSchema } from "../core/dates/index.ts";

/** A figure, the span it may be in nineteen times of twenty, and how many it was made from. */
const estimateSchema = z.strictObject({ n: z.int(), value: z.number(), low: z.number(), high: z.number() }).nullable();
const monthSchema = z.string().regex(/^\d{4}-\d{2}$/);
const pairSchema = { now: estimateSchema, before: estimateSchema };
/** Minutes; of places and people recorded minutes over planned ones. */
const minutesLineSchema = z.strictObject({ id: z.string(), name: z.string(), plannedMin: z.number(), ...pairSchema });
const shareLineSchema = {
  id: z.string(),
  name: z.string(),
  k: z.int(),
  n: z.int(),
  kBefore: z.int(),
  nBefore: z.int(),
  ...pairSchema,
};

/** What the owner learns from twelve months, beside the twelve before: lists, the weightiest first. */
export const reportSheetSchema = z.strictObject({
  /** The twelve months: from the day after this one, to this one. */
  from: localDateSchema,
  to: localDateSchema,
  /** Handovers closed in them, and in the twelve before. */
  closed: z.strictObject({ now: z.int(), before: z.int() }),
  minutes: z.strictObject({
    topics: z.array(minutesLineSchema),
    places: z.array(minutesLineSchema),
    people: z.array(minutesLineSchema),
  }),
  /** Topics that were put off, by what the boat is called; of how many handovers that marked them. */
  putOff: z.array(z.strictObject({ ...shareLineSchema, boat: z.string(), topic: z.string() })),
  /** Topics that were planned and never reached, by what the boat is called, of how many signed handovers that noted it. */
  forgotten: z.array(z.strictObject({ ...shareLineSchema, boat: z.string(), topic: z.string() })),
  /** Handovers with a snag, by what the boat is called, with the days to mend: the middle one of those mended. */
  snags: z.array(
    z.strictObject({
      ...shareLineSchema,
      days: estimateSchema,
      daysBefore: estimateSchema,
      open: z.int(),
    }),
  ),
  /** Promises by the month they were made in; the share kept is of those no longer open. */
  promises: z.strictObject({
    months: z.array(z.strictObject({ month: monthSchema, kept: z.int(), late: z.int(), open: z.int() })),
    ...pairSchema,
  }),
  /** Calls in the first 90 days, a handover; `isOver`: all of that month's handovers have had them. */
  calls: z.strictObject({
    months: z.array(z.strictObject({ month: monthSchema, calls: z.int(), handovers: z.int(), isOver: z.boolean() })),
    topics: z.array(z.strictObject(shareLineSchema)),
    ...pairSchema,
  }),
  /** The workshop: hours booked and not cancelled, and what it was open for. */
  load: z.strictObject({
    months: z.array(z.strictObject({ month: monthSchema, bookedH: z.number(), capacityH: z.number() })),
    now: z.strictObject({ bookedH: z.number(), capacityH: z.number() }),
    before: z.strictObject({ bookedH: z.number(), capacityH: z.number() }),
  }),
  /** Musts left undone at a closing, of all handovers closed, with what was said of it most. */
  notDone: z.array(
    z.strictObject({ ...shareLineSchema, reasons: z.array(z.strictObject({ reason: z.string(), k: z.int() })) }),
  ),
  /** First services of engines, by the month their boat was handed over; the share kept is of those no longer open. */
  firstServices: z.strictObject({
    months: z.array(z.strictObject({ month: monthSchema, kept: z.int(), late: z.int(), lost: z.int(), open: z.int() })),
    ...pairSchema,
  }),
  /** Runs of the break-in, by the month the boat was handed over: how many were logged, and how many were as asked. */
  runs: z.strictObject({
    months: z.array(z.strictObject({ month: monthSchema, k: z.int(), n: z.int(), boats: z.int() })),
    ...pairSchema,
  }),
});
export type ReportSheet = z.infer<typeof reportSheetSchema>;
