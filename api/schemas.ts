import { z } from "zod";
import { breakInPackSchema } from "../core/breakin/index.ts";
import { cardTextSchema } from "../core/card/index.ts";
import { boatStages } from "../core/care/index.ts";
import { instantSchema, localDateSchema } from "../core/dates/index.ts";
import { gearPackSchema } from "../core/gear/index.ts";
import { sha256Schema } from "../core/hash/index.ts";
import { readingAnswerSchema } from "../core/hours/index.ts";
import { languageSchema, ownPhrasesSchema, phraseBookSchema } from "../core/language/index.ts";
import { launchSchema, rampSheetSchema } from "../core/ramp/index.ts";
import { readyCheckSchema } from "../core/ready/index.ts";
import { personSchema, receiptSchema, verdicts } from "../core/record/index.ts";
import { regionSchema } from "../core/region/index.ts";
import { families, plainText, rigSchema } from "../core/rig/index.ts";
import { ownStyleSchema, planOptionsSchema, planSchema, styleIdSchema } from "../core/route/index.ts";
import { synonymsSchema } from "../core/search/index.ts";
import { sequenceSchema } from "../core/sequence/index.ts";
import { dueDaySchema, servicePackSchema } from "../core/service/index.ts";
import { lineText } from "../core/text/lineText.ts";
import {
  glossaryEntrySchema,
  levels,
  toldInSchema,
  toldTopicSchema,
  topicIdSchema,
  topicSchema,
} from "../core/topic/index.ts";
import { towRulesSchema, vehicleSchema } from "../core/tow/index.ts";
import {
  entrySchema,
  obstacleCodes,
  owedKinds,
  recordIdSchema,
  roles,
  severities,
  ulidSchema,
  unseenWhys,
} from "../core/walk/index.ts";
import { boatCareSchema, contactSchema, messageStateSchema, readingSchema } from "./careSchemas.ts";

export const timeSchema = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, "must be a time written HH:MM");

export const meSchema = z.strictObject({
  id: recordIdSchema,
  name: plainText(80),
  role: z.enum(roles),
  store: plainText(80),
  /** Messages are carried by a service; else people send them by hand. */
  isCarried: z.boolean(),
  /** The store was put back from a backup: messages wait until its owner lets them go on. */
  isHeld: z.boolean(),
  /** IANA name; days and times are those of this zone. */
  timeZone: z.string(),
  region: regionSchema,
  /** Who may let a walk begin on a boat that is not ready. */
  allowers: z.array(z.enum(roles)),
  hasSecond: z.boolean(),
  /** The owner wants a second factor of them, and they have none yet: nothing else is open to them before. */
  owesSecond: z.boolean(),
  /** On an admitted tablet, where a PIN stands before each session. */
  isShared: z.boolean(),
  /** What opens the session on such a tablet, told once to whoever has just signed in; null else. */
  open: z.string().nullable(),
  /** What they read topics in, as far as these were translated. */
  language: languageSchema,
});
export type Me = z.infer<typeof meSchema>;

/** The seal of a handover; `number` is its place in the store's seal chain. */
export const sealSchema = z.strictObject({
  sha256: sha256Schema,
  sealedAt: instantSchema,
  number: z.int(),
  /** The public key of the store that sealed it; null where it had none yet, or none is known. */
  key: sha256Schema.nullable(),
  /** Of one that another store sealed: which, and how it was checked when it was taken in; older ones have no such note. */
  from: z
    .strictObject({
      store: z.string(),
      taken: z
        .strictObject({
          verdict: z.enum(verdicts),
          /** Since when this store knows that key; null where it bore none. */
          knownSince: localDateSchema.nullable(),
          by: z.string(),
          at: instantSchema,
        })
        .nullable(),
    })
    .nullable(),
});

const hoursReadingSchema = z.strictObject({
  date: localDateSchema,
  hours: z.number(),
  answer: readingAnswerSchema.nullable(),
});

export const deliverySchema = z.strictObject({
  id: recordIdSchema,
  boat: recordIdSchema,
  boatName: plainText(80),
  hull: z.string(),
  date: localDateSchema,
  time: timeSchema,
  note: z.string(),
  buyers: z.array(personSchema).min(1),
  /** Who entered something here. */
  staff: z.array(personSchema),
  /** Names of all who work here and may be given something to fix; not on the owner's page. */
  colleagues: z.array(z.string()).optional(),
  planOptions: planOptionsSchema,
  rig: rigSchema,
  plan: planSchema,
  topics: z.array(toldTopicSchema),
  /** The same in other languages, as far as somebody here needs them and they were translated. */
  told: toldInSchema,
  makeReady: z.array(readyCheckSchema),
  /** What is looked at when the boat is trucked to its buyer. */
  arrival: z.array(z.strictObject({ id: recordIdSchema, title: plainText(80), why: plainText(160) })),
  /** How likely each topic is to be left out here. */
  forgotten: z.record(topicIdSchema, z.number()),
  /** The hours of each engine as read before this handover, by engine. */
  readings: z.record(z.string(), z.array(hoursReadingSchema)),
  /** What the walk goes by, or would go by if it began now; null of one sealed before that was kept. */
  snapshot: sha256Schema.nullable(),
  /** A must that is to be done by their own hands is open until each who attends did it. */
  eachDoes: z.boolean().optional(),
  /** What has changed in library or boat since it began, of what is still to come, and the snapshot with it. */
  next: z
    .strictObject({
      snapshot: sha256Schema,
      topics: z.array(
        z.strictObject({
          topic: topicIdSchema,
          title: z.string(),
          what: z.enum(["reworded", "added", "gone", "now-must", "no-must"]),
        }),
      ),
      isBoatChanged: z.boolean(),
    })
    .nullable(),
  entries: z.array(entrySchema),
  /** What the store knows of each entry and its author does not, by its id. */
  receipts: z.record(ulidSchema, receiptSchema),
  seal: sealSchema.nullable(),
  /** Of a sealed handover: the entries that were added to it since, or came late. */
  added: z.array(ulidSchema),
  /** Of those the ones that were here when it was sealed, and that no signature was for. */
  uncovered: z.array(ulidSchema),
  /** What was struck from it since, the first first: of these entries only the hash is left, and so many names and photos. */
  strikes: z.array(
    z.strictObject({
      at: instantSchema,
      by: recordIdSchema,
      reason: z.string(),
      entries: z.array(ulidSchema),
      people: z.int(),
      photos: z.int(),
    }),
  ),
  /** The owner's private page, where there is one; with `isRemote` the walk itself is on it. */
  link: z.strictObject({ madeAt: instantSchema, isRemote: z.boolean() }).nullable(),
});
export type Delivery = z.infer<typeof deliverySchema>;

export const planComparisonSchema = z.strictObject({
  style: styleIdSchema,
  name: z.string(),
  line: z.string(),
  moves: z.int(),
  moveMin: z.number(),
  totalMin: z.number(),
  deferred: z.int(),
  firstMust: z.strictObject({ title: z.string(), atMin: z.number() }).nullable(),
});
export type PlanComparison = z.infer<typeof planComparisonSchema>;

const boatLineSchema = {
  boat: recordIdSchema,
  boatName: plainText(80),
  serial: z.string(),
};

export const owedLineSchema = z.strictObject({
  ...boatLineSchema,
  delivery: recordIdSchema,
  ref: ulidSchema,
  what: z.enum(owedKinds),
  text: z.string(),
  since: localDateSchema,
  severity: z.enum(severities).nullable(),
  owner: z.string().nullable(),
  due: localDateSchema.nullable(),
  /** The last message to the buyer about it, and what became of it. */
  message: z.strictObject({ id: ulidSchema, at: instantSchema, state: messageStateSchema }).nullable(),
  topic: topicIdSchema.nullable(),
  buyers: z.string(),
});
export type OwedLine = z.infer<typeof owedLineSchema>;

/** Everything owed over all boats, what wants doing first at the top. */
export const owedSchema = z.strictObject({
  date: localDateSchema,
  lines: z.array(owedLineSchema),
  /** Who may take care of something. */
  staff: z.array(personSchema),
});
export type OwedSheet = z.infer<typeof owedSchema>;

export const dueLineSchema = z.strictObject({
  ...boatLineSchema,
  engine: z.string(),
  title: z.string(),
  likelyNowH: z.number(),
  reportedH: z.number(),
  reportedOn: localDateSchema,
  due: dueDaySchema,
  buyers: z.string(),
});

export const todaySchema = z.strictObject({
  date: localDateSchema,
  handovers: z.array(
    z.strictObject({
      ...boatLineSchema,
      delivery: recordIdSchema,
      time: timeSchema,
      buyers: z.string(),
      note: z.string(),
      family: z.string(),
      loaM: z.number(),
      beamM: z.number(),
      engines: z.int(),
      readyDone: z.int(),
      readyOf: z.int(),
      readyOpen: z.array(z.string()),
      mustsOpen: z.int(),
      mustsOf: z.int(),
      stopping: z.array(z.string()),
      style: z.string(),
      stops: z.int(),
      moves: z.int(),
      totalMin: z.number(),
      state: z.enum(["planned", "walking", "signed"]),
    }),
  ),
  /** Handovers of the coming days whose buyer's car does not fit, the soonest first. */
  misfits: z.array(
    z.strictObject({
      boat: recordIdSchema,
      boatName: plainText(80),
      serial: z.string(),
      delivery: recordIdSchema,
      date: localDateSchema,
      buyers: z.string(),
      car: z.string(),
      /** What does not fit, in words, the worst first. */
      says: z.array(z.string()),
    }),
  ),
  /** Handovers of the coming week that are not signed, today's too, and what is open before them. For whom it is no business: none. */
  coming: z.array(
    z.strictObject({
      ...boatLineSchema,
      delivery: recordIdSchema,
      date: localDateSchema,
      time: timeSchema,
      buyers: z.string(),
      readyOpen: z.array(z.string()),
      readyOf: z.int(),
      stopping: z.array(z.string()),
    }),
  ),
  /** Closed handovers that are not sealed before somebody acts, for whoever may close: what the signers did not know, what is in the way. */
  waiting: z.array(
    z.strictObject({
      ...boatLineSchema,
      delivery: recordIdSchema,
      buyers: z.string(),
      since: instantSchema,
      unseen: z.array(z.strictObject({ why: z.enum(unseenWhys), text: z.string() })),
      obstacles: z.array(z.strictObject({ code: z.enum(obstacleCodes), count: z.int() })),
    }),
  ),
  /** Today's slots in the workshop. */
  slots: z.array(
    z.strictObject({
      ...boatLineSchema,
      id: ulidSchema,
      startMin: z.int(),
      durationMin: z.int(),
      title: z.string(),
      buyers: z.string(),
    }),
  ),
  /** What is off course in the store; null for all but its owner. */
  course: z
    .strictObject({
      failedMessages: z.int(),
      failedJobs: z.int(),
      /** The last backup is there, is older than a night, or there is none. */
      backup: z.enum(["good", "late", "none"]),
      /** The store was put back from a backup, or holds less than it had, and jobs and messages wait for the owner. */
      isHeld: z.boolean(),
      /** A page of the store's file is damaged. */
      isDamaged: z.boolean(),
      latePromises: z.int(),
      /** Must-do topics that are still owed; things to be put right that are nobody's. */
      openMusts: z.int(),
      unowned: z.int(),
      overdueBoats: z.int(),
      stopped: z.int(),
    })
    .nullable(),
  owed: z.array(owedLineSchema),
  owedInAll: z.int(),
  due: z.array(dueLineSchema),
  dueInAll: z.int(),
});
export type Today = z.infer<typeof todaySchema>;

export const boatSchema = z.strictObject({
  id: recordIdSchema,
  name: plainText(80),
  hull: z.string(),
  rig: rigSchema,
  inService: localDateSchema.nullable(),
  buyers: z.string(),
  stock: z.string(),
  color: z.string(),
  /** What the last who bought it reads. */
  language: languageSchema,
  today: localDateSchema,
  deliveries: z.array(
    z.strictObject({ id: recordIdSchema, date: localDateSchema, time: timeSchema, state: z.string() }),
  ),
  ...boatCareSchema.shape,
  contact: contactSchema,
  readings: z.array(readingSchema),
  owed: z.array(owedLineSchema),
});
export type Boat = z.infer<typeof boatSchema>;

export const boatRowSchema = z.strictObject({
  id: recordIdSchema,
  name: plainText(80),
  hull: z.string(),
  stock: z.string(),
  color: z.string(),
  family: z.string(),
  loaM: z.number(),
  beamM: z.number(),
  engines: z.int(),
  buyers: z.string(),
  inService: localDateSchema.nullable(),
  nextDelivery: localDateSchema.nullable(),
  due: dueDaySchema.nullable(),
  owed: z.int(),
  stage: z.enum(boatStages),
});

/** What an owner's private page shows: their boat, their record, what is theirs to enter. */
/** What a boat is towed and launched with. */
export const towingSheetSchema = z.strictObject({
  vehicle: vehicleSchema.nullable(),
  launches: z.array(launchSchema),
  ramps: z.array(rampSheetSchema),
  /** What regions ask of whoever tows, the neutral one first. */
  rules: z.array(towRulesSchema),
  /** Which of them the store has written itself. */
  ownRules: z.array(z.string()),
});
export type TowingSheet = z.infer<typeof towingSheetSchema>;

const learnedPriorSchema = z.strictObject({
  kind: z.string(),
  /** Null: on all boats of the store. */
  family: z.enum(families).nullable(),
  calls: z.int(),
  causes: z.int(),
  prior: z.number(),
});

/** A call, or an owner's question, about something that fails. */
export const dockCallSchema = z.strictObject({
  id: ulidSchema,
  delivery: recordIdSchema,
  boat: recordIdSchema,
  boatName: z.string(),
  hull: z.string(),
  buyers: z.string(),
  at: instantSchema,
  /** Who took it; null where an owner asked on their own page. */
  by: z.string().nullable(),
  fails: z.string(),
  /** What was found at fault; null while that is open. */
  cause: z.string().nullable(),
  minutes: z.int(),
  note: z.string(),
});
export type DockCall = z.infer<typeof dockCallSchema>;

/** What goes on by telephone: the last first. */
export const dockCallSheetSchema = z.strictObject({
  open: z.array(dockCallSchema),
  closed: z.array(dockCallSchema),
  learned: z.array(learnedPriorSchema),
  /** From when on calls count; null for all of them. */
  since: instantSchema.nullable(),
});
export type DockCallSheet = z.infer<typeof dockCallSheetSchema>;

/** Words in other languages, and what there is to translate. */
export const languageSheetSchema = z.strictObject({
  books: z.array(phraseBookSchema),
  /** Which of them are the store's own. */
  own: ownPhrasesSchema,
  cards: z.array(cardTextSchema),
  /** Places, names of things and what switches do, on the store's boats and templates, as their sheets say them. */
  places: z.array(z.string()),
  labels: z.array(z.string()),
  says: z.array(z.string()),
});
export type LanguageSheet = z.infer<typeof languageSheetSchema>;

export const ownerPageSchema = z.strictObject({
  store: z.string(),
  phone: z.string(),
  logo: recordIdSchema.nullable(),
  timeZone: z.string(),
  region: regionSchema,
  today: localDateSchema,
  delivery: deliverySchema,
  inService: localDateSchema.nullable(),
  /** Until when gear and registration are good, by gear, as the owner entered it. */
  gearDates: z.record(recordIdSchema, localDateSchema),
  /** Nobody knows how to reach them. */
  isUnreached: z.boolean(),
  ...boatCareSchema.omit({ bookings: true }).shape,
  /** The words of the cards and the packs they speak of, for the page to make this boat's cards from. */
  cards: z.array(cardTextSchema),
  breakInPacks: z.array(breakInPackSchema),
  servicePacks: z.array(servicePackSchema),
  synonyms: synonymsSchema,
  /** The words of the buyer's language, for cards and places; null where that is English. */
  book: phraseBookSchema.nullable(),
  /** Their car as its plates were read, and what regions ask of whoever tows. */
  towing: towingSheetSchema.pick({ vehicle: true, rules: true }),
  /** How likely the store's calls make each kind of fault on such a boat. */
  learnedFaults: z.array(learnedPriorSchema),
});
export type OwnerPage = z.infer<typeof ownerPageSchema>;

const differenceSchema = z.looseObject({ code: z.string() });
export const verifiedSchema = z.strictObject({
  /** Intact and signed by the store that sealed it; intact, and signed by nobody; or not intact. */
  verdict: z.enum(verdicts),
  isIntact: z.boolean(),
  /** Each in words. */
  differences: z.array(differenceSchema.extend({ says: z.string() })),
  sha256: sha256Schema.nullable(),
  entries: z.int(),
  amendments: z.int(),
  /** Names were struck from a record of the first format: its seal can no longer be recomputed. */
  cannotRecompute: z.literal(true).optional(),
  /** Whether this store sealed or took in a record of that seal, and as which link of its chain. */
  known: z.strictObject({ number: z.int(), delivery: recordIdSchema, sealedAt: instantSchema }).nullable(),
  signedBy: z.strictObject({ store: z.string(), key: sha256Schema }).nullable(),
  /** Whose signature it bears: this store's, that of a store known here, or of one that is not; null where there is none. */
  origin: z
    .strictObject({
      store: z.string(),
      key: sha256Schema,
      is: z.enum(["this-store", "known", "unknown"]),
      /** Since when the key of a known store is known here, where that was noted. */
      since: localDateSchema.nullable(),
    })
    .nullable(),
});
export type VerifiedSheet = z.infer<typeof verifiedSchema>;

/** What a bundle holds, before it is taken in. */
export const bundlePreviewSchema = z.strictObject({
  store: z.string(),
  boatName: z.string(),
  hull: z.string(),
  date: localDateSchema,
  buyers: z.array(z.string()),
  topics: z.int(),
  entries: z.int(),
  photos: z.int(),
  /** Named by the record, and not in the file. */
  photosLeft: z.int().min(0),
  amendments: z.int(),
  verified: verifiedSchema,
  /** The boat is one of this store's already. */
  isBoatKnown: z.boolean(),
  /** This very handover is here already. */
  isKnown: z.boolean(),
});
export type BundlePreview = z.infer<typeof bundlePreviewSchema>;

const packNameSchema = z.strictObject({ id: z.string(), title: z.string() });

/** A boat's rig as the sheet edits it. `version` goes up with every save. */
export const rigSheetSchema = z.strictObject({
  boat: recordIdSchema,
  name: plainText(80),
  hull: z.string(),
  version: z.int(),
  rig: rigSchema,
  template: z.strictObject({ id: recordIdSchema, name: z.string() }).nullable(),
  breakInPacks: z.array(packNameSchema),
  servicePacks: z.array(packNameSchema),
});
export type RigSheet = z.infer<typeof rigSheetSchema>;

export const savedRigSchema = z.strictObject({
  /** The version the changes were made on. */
  version: z.int(),
  name: lineText(80),
  hull: z.union([z.literal(""), lineText(20)]),
  rig: rigSchema,
});

export const templateLineSchema = z.strictObject({
  id: recordIdSchema,
  name: z.string(),
  maker: z.string(),
  model: z.string(),
  family: z.enum(families),
  loaM: z.number(),
  beamM: z.number(),
  isShipped: z.boolean(),
});
export type TemplateLine = z.infer<typeof templateLineSchema>;

const newBoatHead = { name: lineText(80), hull: lineText(20) };
export const newBoatSchema = z.union([
  z.strictObject({ ...newBoatHead, template: recordIdSchema }),
  z.strictObject({ ...newBoatHead, boat: recordIdSchema }),
  z.strictObject({ ...newBoatHead, rig: rigSchema }),
]);

/** Empty where the yard has none. */
export const stockNumberSchema = z.union([z.literal(""), lineText(30)]);
export const colorSchema = z.union([z.literal(""), lineText(40)]);

export const stockBoatSchema = z.strictObject({
  hull: lineText(20),
  stock: stockNumberSchema.default(""),
  color: colorSchema.default(""),
  name: lineText(80),
  /** A template, or a plain boat of a kind. */
  start: z.union([z.strictObject({ template: recordIdSchema }), z.strictObject({ family: z.enum(families) })]),
  maker: lineText(60).nullable(),
  model: lineText(60).nullable(),
  modelYear: z.int().min(1950).max(2100).nullable(),
  loaM: z.number().min(3).max(20).nullable(),
  beamM: z.number().min(1).max(6).nullable(),
});

export const newDeliverySchema = z.strictObject({
  boat: recordIdSchema,
  date: localDateSchema,
  time: timeSchema,
  buyers: z.array(lineText(80)).min(1).max(8),
  note: z.string().trim().max(400),
  /** How the buyer is reached; what the store knows already stays where neither is given. */
  phone: contactSchema.shape.phone,
  email: contactSchema.shape.email,
});

/** The library of this store: what ships, with its own edits laid over it. */
export const librarySheetSchema = z.strictObject({
  topics: z.array(topicSchema),
  edits: z.array(
    z.strictObject({
      topic: topicIdSchema,
      by: z.string(),
      at: instantSchema,
      /** The shipped topic as it is now; null for one of the store's own. */
      shipped: topicSchema.nullable(),
      /** The shipped topic has changed since this edit was made; `basis` is what it was then. */
      isBehind: z.boolean(),
      basis: topicSchema.nullable(),
      /** The store's words for a topic that was merged into `shipped` since: they are told no more. */
      setAside: topicSchema.nullable(),
    }),
  ),
  schools: z.record(topicIdSchema, topicIdSchema),
  ownStyles: z.array(ownStyleSchema),
  /** Minutes as this store takes them, where they differ from the topic's. */
  minutesOf: z.record(topicIdSchema, z.number()),
  /** How often each topic was marked only when closing or later, and how often buyers rang about it. */
  forgotten: z.record(topicIdSchema, z.strictObject({ late: z.int(), calls: z.int() })),
  /** Topics taken further because buyers ring about them: over how many handovers, and how far. */
  raised: z.record(
    topicIdSchema,
    z.strictObject({ level: z.enum(levels), value: z.int(), calls: z.int(), handovers: z.int() }),
  ),
});
export type LibrarySheet = z.infer<typeof librarySheetSchema>;

/** What people go by on the road, at the ramp and aboard. */
export const guidesSchema = z.strictObject({
  sequences: z.array(sequenceSchema),
  gearPacks: z.array(gearPackSchema),
  /** Whether somebody says here what wind is forecast. */
  hasForecast: z.boolean(),
});
export type Guides = z.infer<typeof guidesSchema>;

export const glossarySchema = z.strictObject({
  entries: z.array(glossaryEntrySchema),
  /** The same in other languages, as far as they were translated: marked in texts of that language. */
  told: z.array(glossaryEntrySchema),
  /** Of each entry the term it is kept under, and what ships for it where that is otherwise or not at all. */
  ours: z.array(z.strictObject({ key: z.string(), term: z.string(), original: glossaryEntrySchema.nullable() })),
  /** What ships and this store leaves out. */
  leftOut: z.array(glossaryEntrySchema),
  /** What people say for what the library calls otherwise: what a search reads as the same. */
  synonyms: synonymsSchema,
});
export type GlossarySheet = z.infer<typeof glossarySchema>;
