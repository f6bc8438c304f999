import { literal, Op, type WhereOptions } from "sequelize";
import { z } from "zod";
import { type Instant, instantSchema, type LocalDate, localDateSchema } from "../../core/dates/index.ts";
import { personSchema } from "../../core/record/index.ts";
import { defaultPlanOptions, type PlanOptions, planOptionsSchema } from "../../core/route/index.ts";
import { obstacleCodes, owedKinds, severities, unseenWhys } from "../../core/walk/index.ts";
import type { DeliveryRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";
import { createEntries, createEntrySearch } from "./entries.ts";

/** What is asked of many handovers at once, and so stands in their rows; written with every entry, in its transaction. */
export const summarySchema = z.strictObject({
  state: z.enum(["planned", "walking", "signed"]),
  owed: z.array(
    z.strictObject({
      ref: z.string(),
      what: z.enum(owedKinds),
      text: z.string(),
      since: instantSchema,
      stops: z.boolean(),
      severity: z.enum(severities).nullable(),
      owner: z.string().nullable(),
      due: localDateSchema.nullable(),
      message: z.strictObject({ id: z.string(), at: instantSchema }).nullable(),
      topic: z.string().nullable(),
    }),
  ),
  /** Closed, and not to be sealed before somebody acts: since when, what the signers did not know, what is in the way. */
  waits: z
    .strictObject({
      since: instantSchema,
      unseen: z.array(z.strictObject({ why: z.enum(unseenWhys), text: z.string() })),
      obstacles: z.array(z.strictObject({ code: z.enum(obstacleCodes), count: z.int() })),
    })
    .optional(),
  /** Of a signed one the topics that were planned and never reached; not noted by older versions. */
  unreached: z.array(z.string()).optional(),
});
export type Summary = z.infer<typeof summarySchema>;

/** Of a delivery whose summary is yet to be worked out. */
const noSummary: Summary = { state: "planned", owed: [] };

export interface DeliveryRecord {
  readonly id: string;
  readonly boatId: string;
  readonly date: LocalDate;
  readonly time: string;
  readonly note: string;
  readonly buyers: z.infer<typeof personSchema>[];
  readonly planOptions: PlanOptions;
  readonly summary: Summary;
  /** What the walk goes by; null before it begins. */
  readonly snapshot: string | null;
}

/** The row keeps the order made by hand under its first name, `hand`. */
const readPlanOptions = (text: string, style: string): PlanOptions => {
  const { hand = null, ...kept } = JSON.parse(text);
  return planOptionsSchema.parse({ ...defaultPlanOptions, ...kept, manualOrder: hand, style });
};
const writePlanOptions = ({ style, manualOrder, ...options }: PlanOptions) => ({
  style,
  wishes: JSON.stringify({ ...options, hand: manualOrder }),
});

/** Older rows hold more than is asked. */
const readSummary = (text: string): Summary => {
  if (text === "") return noSummary;
  const { state, owed, unreached, waits } = JSON.parse(text);
  return {
    state,
    owed,
    ...(unreached === undefined ? {} : { unreached }),
    ...(waits === undefined ? {} : { waits }),
  };
};
const writeSummary = ({ state, owed, unreached, waits }: Summary) => ({
  summary: JSON.stringify({ state, unreached, waits, owed }),
  owed: owed.length,
});

const toDelivery = ({ buyers, summary, style, wishes, owed: _, ...rest }: DeliveryRow): DeliveryRecord => ({
  ...rest,
  buyers: JSON.parse(buyers),
  planOptions: readPlanOptions(wishes, style),
  summary: readSummary(summary),
});

/** Handovers with their entries. */
export function createDeliveries(database: Database, onStored: (number: number) => void = () => undefined) {
  return {
    ...createDeliveryRows(database),
    ...createDeliveryLists(database),
    ...createEntries(database, onStored),
    ...createEntrySearch(database),
  };
}

export type Deliveries = ReturnType<typeof createDeliveries>;

function createDeliveryRows({ models }: Database) {
  return {
    async add({ planOptions, ...delivery }: Omit<DeliveryRecord, "snapshot">, transaction?: Transaction) {
      const buyers = z.array(personSchema).min(1).parse(delivery.buyers);
      const summary = summarySchema.parse(delivery.summary);
      await models.deliveries.create(
        {
          ...delivery,
          ...writePlanOptions(planOptions),
          buyers: JSON.stringify(buyers),
          ...writeSummary(summary),
          snapshot: null,
        },
        transaction === undefined ? {} : { transaction },
      );
    },
    async find(id: string, transaction?: Transaction): Promise<DeliveryRecord | null> {
      const row = await readOne(models.deliveries, id, transaction);
      return row === null ? null : toDelivery(row);
    },
    async setPlan(id: string, options: PlanOptions, summary: Summary, transaction: Transaction) {
      await models.deliveries.update(
        { ...writePlanOptions(options), ...writeSummary(summary) },
        { where: { id }, transaction },
      );
    },
    async setSnapshot(id: string, snapshot: string, transaction: Transaction) {
      await models.deliveries.update({ snapshot }, { where: { id }, transaction });
    },
    async setSummary(id: string, summary: Summary, transaction: Transaction) {
      await models.deliveries.update(writeSummary(summary), { where: { id }, transaction });
    },
    /** Writes it only where it says something else than the one that is there; answers whether it did. */
    async changeSummary(id: string, before: Summary, summary: Summary, transaction: Transaction): Promise<boolean> {
      if (writeSummary(before).summary === writeSummary(summary).summary) return false;
      await this.setSummary(id, summary, transaction);
      return true;
    },
  };
}

function createDeliveryLists({ models }: Database) {
  const listWhere = async (where: WhereOptions<DeliveryRow>, limit?: number, transaction?: Transaction) => {
    const most = limit === undefined ? {} : { limit };
    const options = { where, order: ["date", "time", "id"], ...most } as const;
    return (await readAll(models.deliveries, options as never, transaction)).map(toDelivery);
  };
  return {
    listOn: (date: LocalDate) => listWhere({ date }),
    listOfBoats: (boatIds: readonly string[], transaction?: Transaction) =>
      listWhere({ boatId: { [Op.in]: [...boatIds] } }, undefined, transaction),
    async findMany(ids: readonly string[]): Promise<Map<string, DeliveryRecord>> {
      const found = await listWhere({ id: { [Op.in]: [...new Set(ids)] } });
      return new Map(found.map((delivery) => [delivery.id, delivery]));
    },
    listFrom: (date: LocalDate) => listWhere({ date: { [Op.gte]: date } }),
    /** Those of some days that are not signed, the first of them. */
    listUnsigned: (from: LocalDate, to: LocalDate, most: number) =>
      listWhere(
        {
          date: { [Op.between]: [from, to] },
          [Op.and]: literal("json_extract(NULLIF(summary, ''), '$.state') IS NOT 'signed'"),
        } as never,
        most,
      ),
    /** How many from a day on are stopped by something. */
    async countStopped(from: LocalDate): Promise<number> {
      const [row] = await readQuery<{ n: number }>(
        models.deliveries,
        `SELECT COUNT(*) AS n FROM deliveries WHERE owed > 0 AND date >= ? AND EXISTS
           (SELECT 1 FROM json_each(NULLIF(summary, ''), '$.owed') AS one WHERE json_extract(one.value, '$.stops'))`,
        [from],
      );
      return row!.n;
    },
    /** Of all that is owed: must-do topics that nobody did, and things to be put right that are nobody's. */
    async countLoose(): Promise<{ openMusts: number; unowned: number }> {
      const [row] = await readQuery<{ openMusts: number | null; unowned: number | null }>(
        models.deliveries,
        `SELECT SUM(json_extract(one.value, '$.what') = 'must') AS openMusts,
           SUM(json_extract(one.value, '$.what') IN ('snag', 'promise', 'extra')
             AND json_extract(one.value, '$.owner') IS NULL) AS unowned
         FROM deliveries, json_each(NULLIF(summary, ''), '$.owed') AS one WHERE deliveries.owed > 0`,
      );
      return { openMusts: row?.openMusts ?? 0, unowned: row?.unowned ?? 0 };
    },
    /** The day of each boat's next handover that is not signed. */
    async listComing(today: LocalDate): Promise<Map<string, LocalDate>> {
      // The plus keeps the planner from the index of boats: few days are to come, and boats are many.
      const rows = await readQuery<{ boatId: string; date: LocalDate }>(
        models.deliveries,
        `SELECT boatId, MIN(date) AS date FROM deliveries
         WHERE date >= ? AND json_extract(NULLIF(summary, ''), '$.state') IS NOT 'signed' GROUP BY +boatId`,
        [today],
      );
      return new Map(rows.map(({ boatId, date }) => [boatId, date]));
    },
    /** Boats to be handed over of which a check of make-ready was entered. */
    async listMakingReady(today: LocalDate): Promise<Set<string>> {
      const rows = await readQuery<{ boatId: string }>(
        models.deliveries,
        `SELECT DISTINCT +boatId AS boatId FROM deliveries
         WHERE date >= ? AND json_extract(NULLIF(summary, ''), '$.state') IS NOT 'signed' AND EXISTS
           (SELECT 1 FROM entries WHERE deliveryId = deliveries.id AND json_extract(body, '$.kind') = 'ready')`,
        [today],
      );
      return new Set(rows.map(({ boatId }) => boatId));
    },
    /** What was promised for a day that has gone by, with its boat. */
    listLate(today: LocalDate): Promise<{ boatId: string; text: string; due: LocalDate }[]> {
      return readQuery(
        models.deliveries,
        `SELECT boatId, json_extract(one.value, '$.text') AS text, json_extract(one.value, '$.due') AS due
         FROM deliveries, json_each(NULLIF(summary, ''), '$.owed') AS one
         WHERE deliveries.owed > 0 AND json_extract(one.value, '$.due') < ? ORDER BY date, time, deliveries.id`,
        [today],
      );
    },
    /** What owners asked and nobody answered yet, the oldest first. */
    async listQuestions(): Promise<{ boatId: string; delivery: string; ref: string; text: string; since: Instant }[]> {
      return readQuery(
        models.deliveries,
        `SELECT boatId, deliveries.id AS delivery, json_extract(one.value, '$.ref') AS ref,
           json_extract(one.value, '$.text') AS text, json_extract(one.value, '$.since') AS since
         FROM deliveries, json_each(NULLIF(summary, ''), '$.owed') AS one
         WHERE deliveries.owed > 0 AND json_extract(one.value, '$.what') = 'question' ORDER BY since, ref`,
      );
    },
    /** Closed and not to be sealed before somebody acts; found by the index of migration 0020. */
    listWaiting: () =>
      listWhere({ [Op.and]: literal(`json_extract(NULLIF(summary, ''), '$.waits') IS NOT NULL`) } as never),
    listOwing: (most?: number) => listWhere({ owed: { [Op.gt]: 0 } }, most),
    sumOwed: async () => (await models.deliveries.sum("owed", { where: { owed: { [Op.gt]: 0 } } })) ?? 0,
    /** Walks under way that began before it was kept what they go by. */
    listUnfrozen: () =>
      listWhere({ snapshot: null, [Op.and]: literal("json_extract(NULLIF(summary, ''), '$.state') = 'walking'") }),
    /** Deliveries whose summary an older version kept in another form. */
    async listUnsummarized(): Promise<DeliveryRecord[]> {
      return listWhere({ summary: "" });
    },
  };
}
