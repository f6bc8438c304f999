import { literal, type Model, Op, type WhereOptions } from "sequelize";
import { z } from "zod";
import { type Instant, instantSchema, type LocalDate, localDateSchema } from "../../core/dates/index.ts";
import { personSchema, type Receipt, type Strike } from "../../core/record/index.ts";
import { defaultPlanOptions, type PlanOptions, planOptionsSchema } from "../../core/route/index.ts";
import { type Entry, owedKinds, severities } from "../../core/walk/index.ts";
import type { DeliveryRow, EntryRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";
import { Failure } from "../failure.ts";
import { createWalkLogs } from "./walkLogs.ts";

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
      messagedAt: instantSchema.nullable(),
      topic: z.string().nullable(),
    }),
  ),
});
export type Summary = z.infer<typeof summarySchema>;

/** Of a delivery whose summary is yet to be worked out. */
const noSummary: Summary = { state: "planned", owed: [] };

/** So many of the latest entries say what is spent and forgotten here, however long the store has been. */
const mostLearned = 20_000;

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

/** The row keeps when the buyer was last sent a message under its first name, `toldAt`; older rows hold more than is asked. */
const readSummary = (text: string): Summary => {
  if (text === "") return noSummary;
  const { state, owed } = JSON.parse(text);
  const rename = ({ toldAt, ...each }: { toldAt: Instant | null }) => ({ ...each, messagedAt: toldAt });
  return { state, owed: owed.map(rename) };
};
const writeSummary = ({ state, owed }: Summary) => ({
  summary: JSON.stringify({
    state,
    owed: owed.map(({ messagedAt, ...each }) => ({ ...each, toldAt: messagedAt })),
  }),
  owed: owed.length,
});

const toDelivery = ({ buyers, summary, style, wishes, owed: _, ...rest }: DeliveryRow): DeliveryRecord => ({
  ...rest,
  buyers: JSON.parse(buyers),
  planOptions: readPlanOptions(wishes, style),
  summary: readSummary(summary),
});

type EntryRowModel = Model<EntryRow, EntryRow>;

/** Handovers with their entries and seals. Entries and seals are only ever added. */
export function createDeliveries(database: Database) {
  const { models } = database;
  const logs = createWalkLogs(database);
  const inTx = (transaction?: Transaction) => (transaction === undefined ? {} : { transaction });
  const listWhere = async (where: WhereOptions<DeliveryRow>, limit?: number) =>
    (
      await readAll(models.deliveries, {
        where,
        order: ["date", "time", "id"],
        ...(limit === undefined ? {} : { limit }),
      })
    ).map(toDelivery);
  const deliveries = {
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
        inTx(transaction),
      );
    },
    async find(id: string, transaction?: Transaction): Promise<DeliveryRecord | null> {
      const row = await readOne(models.deliveries, id, transaction);
      return row === null ? null : toDelivery(row);
    },
    listOn: (date: LocalDate) => listWhere({ date }),
    listOfBoats: (boatIds: readonly string[]) => listWhere({ boatId: { [Op.in]: [...boatIds] } }),
    listFrom: (date: LocalDate) => listWhere({ date: { [Op.gte]: date } }),
    /** The day of each boat's next handover that is not signed. */
    async listComing(today: LocalDate): Promise<Map<string, LocalDate>> {
      const rows = await readQuery<{ boatId: string; date: LocalDate }>(
        models.deliveries,
        `SELECT boatId, MIN(date) AS date FROM deliveries
         WHERE date >= ? AND json_extract(NULLIF(summary, ''), '$.state') IS NOT 'signed' GROUP BY boatId`,
        [today],
      );
      return new Map(rows.map(({ boatId, date }) => [boatId, date]));
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
    listOwing: (most?: number) => listWhere({ owed: { [Op.gt]: 0 } }, most),
    sumOwed: async () => (await models.deliveries.sum("owed")) ?? 0,
    async setPlan(id: string, options: PlanOptions, summary: Summary, transaction: Transaction) {
      await models.deliveries.update(
        { ...writePlanOptions(options), ...writeSummary(summary) },
        { where: { id }, transaction },
      );
    },
    async setSnapshot(id: string, snapshot: string, transaction: Transaction) {
      await models.deliveries.update({ snapshot }, { where: { id }, transaction });
    },
    /** Walks under way that began before it was kept what they go by. */
    listUnfrozen: () =>
      listWhere({ snapshot: null, [Op.and]: literal("json_extract(NULLIF(summary, ''), '$.state') = 'walking'") }),
    /** Closings that wait for their seal. */
    async listClosing(): Promise<string[]> {
      const rows = await readQuery<{ deliveryId: string }>(
        models.entries,
        `SELECT DISTINCT deliveryId FROM entries WHERE json_extract(body, '$.kind') = 'close'
         AND deliveryId NOT IN (SELECT deliveryId FROM chain WHERE kind IN ('handover', 'import'))`,
      );
      return rows.map(({ deliveryId }) => deliveryId);
    },
    /** Seconds spent on each topic in the latest walks, by topic. */
    async listSpent(): Promise<Map<string, number[]>> {
      const rows = await readQuery<{ topic: string; spentS: number }>(
        models.entries,
        `SELECT json_extract(body, '$.topic') AS topic, json_extract(body, '$.spentS') AS spentS FROM entries
         WHERE json_extract(body, '$.kind') = 'mark' ORDER BY id DESC LIMIT ${mostLearned}`,
      );
      const spent = new Map<string, number[]>();
      for (const { topic, spentS } of rows) {
        const list = spent.get(topic);
        if (list === undefined) spent.set(topic, [spentS]);
        else list.push(spentS);
      }
      return spent;
    },
    async setSummary(id: string, summary: Summary, transaction: Transaction) {
      await models.deliveries.update(writeSummary(summary), { where: { id }, transaction });
    },
    /** All entries of a delivery with their receipts. */
    readLog: logs.read,
    listEntries: async (deliveryId: string, transaction?: Transaction): Promise<readonly Entry[]> =>
      (await logs.read(deliveryId, transaction)).entries,
    /** Adds entries that are new, as they came; one whose id another delivery has is refused. Answers their receipts. */
    async addEntries(
      deliveryId: string,
      entries: readonly Entry[],
      { receivedAt, via }: Pick<Receipt, "receivedAt" | "via">,
      transaction: Transaction,
    ): Promise<Map<string, Receipt>> {
      const ids = entries.map(({ id }) => id);
      if ((await models.entries.count({ where: { id: { [Op.in]: ids } }, transaction })) > 0)
        throw new Failure("entry-differs", { path: "entries" });
      const last = (await models.entries.max<number | null, EntryRowModel>("number", { transaction })) ?? 0;
      const stored = entries.map((entry, i) => ({ entry, receipt: { receivedAt, number: last + 1 + i, via } }));
      await models.entries.bulkCreate(
        stored.map(({ entry, receipt }) => ({
          id: entry.id,
          deliveryId,
          body: JSON.stringify(entry),
          ...receipt,
        })),
        { transaction },
      );
      return new Map(stored.map(({ entry, receipt }) => [entry.id, receipt]));
    },
    /** Of these entries only that they were made stays; a buyer's name is `struckName` from now on. */
    async strike(
      deliveryId: string,
      parts: readonly Strike[],
      person: string,
      struckName: string,
      transaction: Transaction,
    ) {
      for (const { part, id } of parts) {
        if (part !== "entry") continue;
        const row = await readOne(models.entries, id, transaction);
        if (row === null) continue;
        const { delivery, at, by, device } = JSON.parse(row.body) as Entry;
        const body = JSON.stringify({ id, delivery, at, by, device, kind: "amend", note: struckName });
        await models.entries.update({ body }, { where: { id }, transaction });
      }
      const row = (await readOne(models.deliveries, deliveryId, transaction))!;
      const buyers = (JSON.parse(row.buyers) as { id: string }[]).map((buyer) =>
        buyer.id === person ? { ...buyer, name: struckName } : buyer,
      );
      await models.deliveries.update({ buyers: JSON.stringify(buyers) }, { where: { id: deliveryId }, transaction });
    },
    /** The deliveries whose entries name a photo. */
    async listOfPhoto(photo: string): Promise<string[]> {
      const rows = await readQuery<{ deliveryId: string }>(
        models.entries,
        `SELECT DISTINCT deliveryId FROM entries
         WHERE json_extract(body, '$.kind') = 'photo' AND json_extract(body, '$.photo') = ?`,
        [photo],
      );
      return rows.map(({ deliveryId }) => deliveryId);
    },
    /** Deliveries whose summary an older version kept in another form. */
    async listUnsummarized(): Promise<DeliveryRecord[]> {
      return listWhere({ summary: "" });
    },
    /** Marks made late and calls, by topic, over the latest walks, and how many of them were signed. */
    async countForgotten(): Promise<{ rows: { topic: string; late: number; calls: number }[]; handovers: number }> {
      // Late: made after the first thing that is only done when closing (gear counted, hours read, a signature).
      const rows = await readQuery<{ topic: string; late: number; calls: number }>(
        models.entries,
        `WITH recent AS (
           SELECT deliveryId, body, json_extract(body, '$.kind') AS kind FROM entries
           WHERE number > (SELECT MAX(number) FROM entries) - ${mostLearned}),
         closing AS (
           SELECT deliveryId, MIN(json_extract(body, '$.at')) AS at FROM recent
           WHERE kind IN ('gear', 'hours', 'sign') GROUP BY deliveryId)
         SELECT json_extract(e.body, '$.topic') AS topic,
           SUM(kind = 'mark' AND json_extract(e.body, '$.at') > closing.at
             AND json_extract(e.body, '$.mark') IN ('told', 'shown', 'did')) AS late,
           SUM(kind = 'call') AS calls
         FROM recent e LEFT JOIN closing ON closing.deliveryId = e.deliveryId
         WHERE kind IN ('mark', 'call') AND json_extract(e.body, '$.topic') IS NOT NULL
         GROUP BY 1 HAVING late > 0 OR calls > 0`,
      );
      const [count] = await readQuery<{ n: number }>(
        models.entries,
        `SELECT COUNT(*) AS n FROM chain WHERE kind = 'handover' AND deliveryId IN (
           SELECT deliveryId FROM entries WHERE number > (SELECT MAX(number) FROM entries) - ${mostLearned})`,
      );
      return { rows, handovers: count?.n ?? 0 };
    },
  };
  return deliveries;
}

export type Deliveries = ReturnType<typeof createDeliveries>;
