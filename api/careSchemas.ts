import { z } from "zod";
import { careReasonSchema } from "../core/aftercare/index.ts";
import {
  breachSchema,
  breakInPackSchema,
  breakInStandingSchema,
  coverageSchema,
  limitPhaseSchema,
  rpmSchema,
  traceOutputSchema,
} from "../core/breakin/index.ts";
import { instantSchema, localDateSchema } from "../core/dates/index.ts";
import { expectedDaySchema, fanSchema, readingAnswerSchema, readingSources } from "../core/hours/index.ts";
import { engineSchema, plainText } from "../core/rig/index.ts";
import { dueDaySchema, plannedVisitSchema, servicePackSchema } from "../core/service/index.ts";
import { lineText } from "../core/text/lineText.ts";
import { typedSchema } from "../core/units/index.ts";
import { recordIdSchema, ulidSchema } from "../core/walk/index.ts";
import { loadWeekSchema, offerSchema, workshopSchema } from "../core/workshop/index.ts";

const hoursSchema = z.number().min(0).max(100_000);
export const readingSchema = z.strictObject({
  id: ulidSchema,
  engine: recordIdSchema,
  date: localDateSchema,
  /** As the meter shows them. */
  hours: hoursSchema,
  reason: z.string().nullable(),
  by: z.string(),
  source: z.enum(readingSources),
  answer: readingAnswerSchema.nullable(),
  photo: recordIdSchema.nullable(),
});

export const newReadingSchema = z.strictObject({
  id: ulidSchema,
  engine: recordIdSchema,
  date: localDateSchema,
  hours: hoursSchema,
  source: z.enum(readingSources).default("phone"),
  /** Why hours fall or leap; asked for only then. */
  answer: readingAnswerSchema.optional(),
  reason: plainText(300).optional(),
  photo: recordIdSchema.optional(),
});

export const fillSchema = z.strictObject({
  id: ulidSchema,
  date: localDateSchema,
  /** 0 where the tanks were full and nobody counted what went in: enough for the first brim. */
  litres: z.number().min(0).max(20_000),
  isFull: z.boolean(),
  /** As it was typed, where that was not litres. */
  typed: typedSchema.optional(),
  by: z.string(),
  /** Hours were reported on that day, so that a brim of it counts. */
  hasHours: z.boolean(),
});
export type FillLine = z.infer<typeof fillSchema>;
export const newFillSchema = fillSchema
  .omit({ by: true, hasHours: true })
  .refine(({ litres, isFull }) => litres > 0 || isFull, {
    path: ["litres"],
    message: "must be more than nothing",
  });
export type NewFill = z.infer<typeof newFillSchema>;

export const serviceOutcomes = ["done", "elsewhere", "skipped"] as const;
export const serviceSchema = z.strictObject({
  id: ulidSchema,
  /** An engine, or `boat` for the boat itself. */
  engine: recordIdSchema,
  item: recordIdSchema,
  date: localDateSchema,
  hours: hoursSchema,
  by: z.string(),
  outcome: z.enum(serviceOutcomes),
  note: z.string(),
  photo: recordIdSchema.nullable(),
  /** A file that shows it, under the name it came with. */
  file: recordIdSchema.nullable(),
  fileName: z.string().nullable(),
  priceCents: z.int().nullable(),
  /** What went in; hours of work; who did it, where that is not who wrote it down. */
  parts: z.string(),
  labourH: z.number().nullable(),
  mechanic: z.string(),
});
export const newServiceSchema = z
  .strictObject({
    id: ulidSchema,
    engine: recordIdSchema,
    item: recordIdSchema,
    date: localDateSchema,
    hours: hoursSchema,
    outcome: z.enum(serviceOutcomes).default("done"),
    /** Parts and remarks; who did it, when elsewhere; why, when skipped. */
    note: z.string().trim().max(400).default(""),
    photo: recordIdSchema.optional(),
    file: recordIdSchema.optional(),
    fileName: lineText(120).optional(),
    priceCents: z.int().min(0).max(100_000_000).optional(),
    parts: plainText(400).optional(),
    labourH: z.number().min(0).max(100).optional(),
    mechanic: lineText(80).optional(),
  })
  .refine(({ outcome, note }) => outcome === "done" || note !== "", {
    path: ["note"],
    message: "must say who did it, or why not",
  });

/** Under what name an owner's own entries stand. */
export const ownerAuthor = "Owner";
export const withdrawnKinds = ["reading", "run", "fill", "service"] as const;
export const newWithdrawalSchema = z.strictObject({
  kind: z.enum(withdrawnKinds),
  id: ulidSchema,
  /** Why it was wrong. */
  reason: plainText(200),
  /** What counts in its place: the same on this day, with this number (hours on the meter, litres, hours at the service). */
  right: z
    .strictObject({
      id: ulidSchema,
      date: localDateSchema,
      amount: hoursSchema,
      /** Of fuel: as it was typed, where that was not litres. */
      typed: typedSchema.optional(),
      answer: readingAnswerSchema.optional(),
    })
    .optional(),
});
export type NewWithdrawal = z.infer<typeof newWithdrawalSchema>;
/** What was entered wrong, as it was, and why it does not count. */
export const withdrawalSchema = z.strictObject({
  kind: z.enum(withdrawnKinds),
  id: ulidSchema,
  reason: z.string(),
  by: z.string(),
  at: instantSchema,
  isCorrected: z.boolean(),
  engine: recordIdSchema.nullable(),
  date: localDateSchema,
  amount: z.number().nullable(),
  what: z.string().nullable(),
});
export type Withdrawal = z.infer<typeof withdrawalSchema>;

/** A sentence and what stands in it, said in the language of whoever reads. */
const toldSchema = z.strictObject({
  phrase: z.string(),
  values: z
    .array(z.union([z.string(), z.number(), z.array(z.number()), z.strictObject({ fromMin: z.int(), toMin: z.int() })]))
    .readonly(),
});

export const runVerdictSchema = traceOutputSchema.extend({
  breaches: z.array(breachSchema.extend({ says: toldSchema })),
  advice: z.array(toldSchema),
});
export type RunVerdict = z.infer<typeof runVerdictSchema>;
export const runSources = ["hand", "file", "gateway"] as const;
export const runLineSchema = z.strictObject({
  id: ulidSchema,
  engine: recordIdSchema,
  date: localDateSchema,
  /** Minutes of the day at which it began. */
  startMin: z.int().min(0).max(1439),
  source: z.enum(runSources),
  fileName: z.string(),
  hoursBefore: z.number(),
  by: z.string(),
  verdict: runVerdictSchema,
});
export type RunLine = z.infer<typeof runLineSchema>;
/** A run as it is sent: the same outing of one engine or several, a sample a second at the most. */
export const newRunSchema = z.strictObject({
  date: localDateSchema,
  startMin: z.int().min(0).max(1439),
  source: z.enum(runSources),
  fileName: z.string().max(120).default(""),
  engines: z
    .array(
      z.strictObject({
        id: ulidSchema,
        engine: recordIdSchema,
        samples: z
          .array(z.tuple([z.number().min(0), rpmSchema]))
          .min(2)
          .max(200_000),
        /** Coolant in °C against seconds. */
        temperatures: z
          .array(z.tuple([z.number().min(0), z.number().min(-40).max(200)]))
          .max(20_000)
          .optional(),
      }),
    )
    .min(1)
    .max(5)
    .refine((engines) => new Set(engines.map(({ id }) => id)).size === engines.length, "each needs an id of its own")
    .refine((engines) => new Set(engines.map(({ engine }) => engine)).size === engines.length, "each engine once"),
});
export type NewRun = z.infer<typeof newRunSchema>;
export const runSheetSchema = z.strictObject({
  run: runLineSchema,
  limits: z.array(limitPhaseSchema),
  samples: z.array(z.tuple([z.number(), z.number()])),
  /** Coolant in °C against seconds; empty where none was recorded. */
  temperatures: z.array(z.tuple([z.number(), z.number()])),
});
export type RunSheet = z.infer<typeof runSheetSchema>;

export const engineItemSchema = dueDaySchema.extend({
  id: z.string(),
  title: z.string(),
  work: z.array(z.string()),
  lastDone: localDateSchema.nullable(),
  /** Of a used boat: nobody knows when it was done last. */
  isUnknown: z.boolean(),
});
export const engineCareSchema = z.strictObject({
  engine: recordIdSchema,
  label: z.string(),
  kind: engineSchema.shape.kind,
  /** Engine hours, changed meters and slips reckoned in; what the meter itself showed last. */
  reportedH: z.number().nullable(),
  meterH: z.number().nullable(),
  reportedOn: localDateSchema.nullable(),
  likelyNowH: z.number().nullable(),
  breakInTitle: z.string(),
  breakInBasis: z.string(),
  /** Its break-in is counted in tanks of fuel. */
  isByTanks: z.boolean(),
  /** Then, the hours they take, by how much is burnt; of what is burnt, how much was measured between full tanks. */
  tankHours: z
    .strictObject({
      tanks: z.number(),
      /** Burnt by the hours reported. */
      burnt: z.number(),
      lowH: z.number(),
      likelyH: z.number(),
      highH: z.number(),
      burnLph: z.number(),
      measured: z.strictObject({ litres: z.number(), hours: z.number() }).nullable(),
    })
    .nullable(),
  breakIn: breakInStandingSchema.nullable(),
  /** Empty where the break-in is counted in tanks and the burn is not known. */
  limits: z.array(limitPhaseSchema),
  ratedToRpm: z.number(),
  coverage: coverageSchema,
  progress: z.strictObject({ hoursShare: z.number(), bandShare: z.number(), share: z.number() }),
  serviceTitle: z.string(),
  serviceBasis: z.string(),
  items: z.array(engineItemSchema),
  forecast: z
    .strictObject({
      yearH: z.strictObject({ p10: z.number(), p50: z.number(), p90: z.number() }),
      fan: fanSchema,
      breakInEnds: expectedDaySchema.extend({ targetH: z.number() }).nullable(),
      nextService: engineItemSchema.nullable(),
    })
    .nullable(),
});
export type EngineCare = z.infer<typeof engineCareSchema>;

export const contactSchema = z.strictObject({
  /** Whose boat it is, where no handover of this store says so. */
  name: z.string().trim().max(80).default(""),
  phone: z.string().trim().max(40).default(""),
  email: z.union([z.literal(""), z.string().trim().max(120).pipe(z.email())]).default(""),
  /** They do not want to be written to. */
  optOut: z.boolean().default(false),
});
export type Contact = z.infer<typeof contactSchema>;

/** When somebody wants to be called back, and what was said. */
export const callBackSchema = z.strictObject({ on: localDateSchema, note: z.string().max(600), by: z.string() });
export type CallBack = z.infer<typeof callBackSchema>;

export const bookingStates = ["booked", "done", "cancelled"] as const;
export const bookedItemSchema = z.strictObject({
  scope: recordIdSchema,
  item: recordIdSchema,
  title: z.string().max(80),
});
export const bookingSchema = z.strictObject({
  id: ulidSchema,
  boat: recordIdSchema,
  date: localDateSchema,
  startMin: z.int().min(0).max(1439),
  labourH: z.number().min(0).max(100),
  items: z.array(bookedItemSchema).max(40),
  note: z.string().max(200),
  state: z.enum(bookingStates),
  by: z.string(),
});
/** What of the months after comes as tables. */
export const careTables = ["readings", "fills", "services", "runs", "bookings", "messages"] as const;
export type CareTable = (typeof careTables)[number];

export const newBookingSchema = bookingSchema.omit({ by: true, state: true });
export type Booking = z.infer<typeof bookingSchema>;

export const messageStateSchema = z.enum(["waiting", "ready", "sent", "delivered", "failed", "answered", "stopped"]);

export const messageSchema = z.strictObject({
  id: z.string(),
  recipient: z.string(),
  text: z.string(),
  at: instantSchema,
  kind: z.string(),
  state: messageStateSchema,
  answer: z.string().nullable(),
});
export type MessageLine = z.infer<typeof messageSchema>;

export const messageStates = messageSchema.shape.state.options;

/** Messages of all boats, a page at a time. */
export const messageListSchema = z.strictObject({
  messages: z.array(
    messageSchema.extend({
      boat: recordIdSchema,
      boatName: z.string(),
      serial: z.string(),
      /** The phone it goes to; empty where nobody has said one. */
      reach: z.string(),
      /** They do not want messages. */
      optOut: z.boolean(),
    }),
  ),
  /** How many there are of what was asked for, and of each state. */
  found: z.int(),
  states: z.partialRecord(messageSchema.shape.state, z.int()),
  pageSize: z.int(),
});
export type MessageList = z.infer<typeof messageListSchema>;

/** A boat's care as a whole. */
export const boatCareSchema = z.strictObject({
  care: z.array(engineCareSchema),
  visits: z.array(plannedVisitSchema),
  /** By how many hours the engines have drifted apart, when that is odd. */
  driftH: z.number().nullable(),
  fills: z.array(fillSchema),
  runs: z.array(runLineSchema),
  services: z.array(serviceSchema),
  /** The last first. */
  withdrawn: z.array(withdrawalSchema),
  bookings: z.array(bookingSchema),
});
export type BoatCare = z.infer<typeof boatCareSchema>;

export const careLineSchema = z.strictObject({
  boat: recordIdSchema,
  boatName: z.string(),
  serial: z.string(),
  buyers: z.string(),
  contact: contactSchema,
  delivery: recordIdSchema.nullable(),
  weight: z.number(),
  reasons: z.array(careReasonSchema),
  reportedH: z.number().nullable(),
  likelyNowH: z.number().nullable(),
  reportedOn: localDateSchema.nullable(),
  lastMessage: messageSchema.nullable(),
  booking: bookingSchema.nullable(),
  callBack: callBackSchema.nullable(),
  /** What they asked and nobody answered yet, the oldest first; `ref` is the entry of their handover. */
  questions: z.array(
    z.strictObject({ delivery: recordIdSchema, ref: z.string(), text: z.string(), since: instantSchema }),
  ),
});
export type CareLine = z.infer<typeof careLineSchema>;
export const callListSchema = z.strictObject({
  date: localDateSchema,
  lines: z.array(careLineSchema),
  /** With those that matter less than the ones listed. */
  linesInAll: z.int(),
  boats: z.int(),
  templates: z.array(z.strictObject({ id: z.string(), title: z.string(), text: z.string() })),
  store: z.string(),
  phone: z.string(),
  jobs: z.array(
    z.strictObject({
      id: z.string(),
      kind: z.string(),
      boat: recordIdSchema,
      boatName: z.string(),
      dueAt: instantSchema,
      state: z.string(),
      tries: z.int(),
      note: z.string(),
    }),
  ),
});
export type CallList = z.infer<typeof callListSchema>;

export const workshopSheetSchema = z.strictObject({
  date: localDateSchema,
  engines: z.int(),
  workshop: workshopSchema,
  weeks: z.array(loadWeekSchema),
  offers: z.array(offerSchema.extend({ boatName: z.string(), serial: z.string(), buyers: z.string() })),
  bookings: z.array(bookingSchema.extend({ boatName: z.string(), serial: z.string(), buyers: z.string() })),
});
/** Whose work makes a week: what is expected of each boat there, the most first, and what is booked. */
export const workshopWeekSchema = z.strictObject({
  boats: z.array(
    z.strictObject({
      boat: recordIdSchema,
      boatName: z.string(),
      serial: z.string(),
      buyers: z.string(),
      titles: z.array(z.string()),
      /** Hours of work times the chance that they fall in this week. */
      expectedH: z.number(),
      isBooked: z.boolean(),
    }),
  ),
  /** Boats with less than those listed. */
  more: z.int(),
});
export type WorkshopWeek = z.infer<typeof workshopWeekSchema>;
export type WorkshopSheet = z.infer<typeof workshopSheetSchema>;

export const packSheetSchema = z.strictObject({
  breakIn: z.array(
    z.strictObject({ pack: breakInPackSchema, isShipped: z.boolean(), isChanged: z.boolean(), version: z.int() }),
  ),
  service: z.array(
    z.strictObject({ pack: servicePackSchema, isShipped: z.boolean(), isChanged: z.boolean(), version: z.int() }),
  ),
});
export type PackSheet = z.infer<typeof packSheetSchema>;
