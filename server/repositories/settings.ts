import { z } from "zod";
import { retentionRulesSchema } from "../../api/index.ts";
import { instantSchema, localDateSchema } from "../../core/dates/index.ts";
import { sha256Schema } from "../../core/hash/index.ts";
import { ownPhrasesSchema } from "../../core/language/index.ts";
import { rampSheetSchema } from "../../core/ramp/index.ts";
import { completeRegion, type Region, regionSchema, regions } from "../../core/region/index.ts";
import { plainText } from "../../core/rig/index.ts";
import { ownStyleSchema, planOptionsSchema } from "../../core/route/index.ts";
import { ownWordsSchema } from "../../core/topic/index.ts";
import { towRulesSchema } from "../../core/tow/index.ts";
import { roles, usualAllowers } from "../../core/walk/index.ts";
import { workshopSchema } from "../../core/workshop/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readOne } from "../database/rows.ts";
import { createReadModel, type Versions } from "../readModel.ts";

/** A walk in which the buyer does the important ones by hand takes 60 to 90 minutes. */
const usualMin = 90;

/** What a store sets once. `monthlyHours`: engine hours a boat is expected to run in each month, January first. */
export const settingsSchema = z.strictObject({
  store: plainText(80),
  /** Its postal address, a line each. */
  place: z.string().default(""),
  phone: z.string(),
  /** The photo that is its logo, by id. */
  logo: z.string().nullable().default(null),
  /** Where browsers reach it; null where only the start says so, or nobody. */
  webAddress: z.string().nullable().default(null),
  /** IANA name; null where the start says so. */
  timeZone: z.string().nullable().default(null),
  region: z.preprocess((kept) => completeRegion((kept ?? regions.us) as Region), regionSchema),
  monthlyHours: z.array(z.number().min(0)).length(12),
  /** The school taught, by topic; topics not named teach their first. */
  schools: z.record(z.string(), z.string()).default({}),
  ownStyles: z.array(ownStyleSchema).max(20).default([]),
  workshop: workshopSchema.default({ hoursPerDay: [14, 14, 14, 14, 14, 6, 0], closed: [] }),
  /** Nothing is sent from the first hour until the second, of the store's own time. */
  quietHours: z.strictObject({ from: z.int().min(0).max(23), to: z.int().min(0).max(23) }).default({ from: 20, to: 8 }),
  /** Minutes a new plan has; null: all there are. */
  usualMin: planOptionsSchema.shape.budgetMin.default(usualMin),
  /** Who may let a walk begin on a boat that is not ready; the owner always may. */
  allowers: z.array(z.enum(roles)).default([...usualAllowers]),
  /** The hash of the token that opens the store's calendar; none until somebody wants one. */
  feedHash: z.string().nullable().default(null),
  /** Its own words of the glossary. */
  ownWords: ownWordsSchema.default({}),
  /** Its own phrases in other languages, laid over those that ship. */
  phrases: ownPhrasesSchema.default({}),
  /** Messages in the store's own words, by template. */
  messageTexts: z.record(z.string(), z.string()).default({}),
  /** Ramps that people here launch at. */
  ramps: z.array(rampSheetSchema).default([]),
  /** What its region asks of whoever tows, as it has checked it; before what ships. */
  towRules: z.array(towRulesSchema).max(20).default([]),
  /** From when on calls count for what fails and what is taught further; null counts all. */
  callsSince: instantSchema.nullable().default(null),
  /** Stores whose bundles somebody here has looked at and taken in, by their public key. */
  knownStores: z
    .array(z.strictObject({ key: sha256Schema, name: plainText(80), since: localDateSchema.optional() }))
    .default([]),
  /** How long what is kept; null for good. */
  retention: retentionRulesSchema.default({ messagesMonths: null, logMonths: null, buyersYears: null }),
});
export type Settings = z.infer<typeof settingsSchema>;
type Change = Partial<z.input<typeof settingsSchema>>;

const defaults: Settings = {
  store: "Your store",
  place: "",
  phone: "",
  logo: null,
  webAddress: null,
  timeZone: null,
  region: regions.us,
  monthlyHours: [1, 1, 3, 6, 9, 11, 12, 11, 7, 3, 1, 1],
  schools: {},
  ownStyles: [],
  workshop: { hoursPerDay: [14, 14, 14, 14, 14, 6, 0], closed: [] },
  quietHours: { from: 20, to: 8 },
  usualMin,
  allowers: [...usualAllowers],
  feedHash: null,
  ownWords: {},
  phrases: {},
  messageTexts: {},
  ramps: [],
  towRules: [],
  callsSince: null,
  knownStores: [],
  retention: { messagesMonths: null, logMonths: null, buyersYears: null },
};

export function createSettings({ models, inTransaction }: Database, versions: Versions) {
  const find = async (transaction?: Transaction): Promise<Settings> => {
    const row = await readOne(models.settings, "store", transaction);
    return row === null ? defaults : settingsSchema.parse(JSON.parse(row.value));
  };
  const model = createReadModel(versions, { settings: ["store"], make: () => find() });
  return {
    read: async (): Promise<Settings> => (await model()).value,
    /** Changes some of them and leaves the rest as they are now, whoever else changes others at the same time. */
    async change(some: Change | ((now: Settings) => Change), inside?: Transaction) {
      const set = async (transaction: Transaction) => {
        const now = await find(transaction);
        const changed = settingsSchema.parse({ ...now, ...(typeof some === "function" ? some(now) : some) });
        await models.settings.upsert({ key: "store", value: JSON.stringify(changed) }, { transaction });
      };
      await (inside === undefined ? inTransaction(set) : set(inside));
    },
  };
}
