import { Op, UniqueConstraintError, type WhereOptions } from "sequelize";
import { z } from "zod";
import { isoDateSchema } from "../../core/dates/index.ts";
import { personSchema } from "../../core/record/index.ts";
import { defaultPlanOptions, type PlanOptions, planOptionsSchema } from "../../core/route/index.ts";
import { type Entry, owedKinds, recordIdSchema, severities } from "../../core/walk/index.ts";
import type { DeliveryRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";
import { Failure } from "../failure.ts";

/** What Today needs to know of a handover without folding its entries again; kept with every entry stored. */
export const summarySchema = z.strictObject({
  state: z.enum(["planned", "walking", "signed"]),
  ready: z.array(recordIdSchema),
  mustsOpen: z.int(),
  mustsOf: z.int(),
  stopping: z.array(z.string()),
  owed: z.array(
    z.strictObject({
      ref: z.string(),
      what: z.enum(owedKinds),
      text: z.string(),
      since: z.string(),
      stops: z.boolean(),
      severity: z.enum(severities).nullable(),
      owner: z.string().nullable(),
      due: isoDateSchema.nullable(),
      messagedAt: z.string().nullable(),
      topic: z.string().nullable(),
    }),
  ),
});
export type Summary = z.infer<typeof summarySchema>;

/** Of a delivery whose summary is yet to be worked out. */
const noSummary: Summary = { state: "planned", ready: [], mustsOpen: 0, mustsOf: 0, stopping: [], owed: [] };

/** The latest marks that minutes are learned from. */
const mostSpent = 20_000;

export interface DeliveryRecord {
  readonly id: string;
  readonly boatId: string;
  readonly date: string;
  readonly time: string;
  readonly note: string;
  readonly buyers: z.infer<typeof personSchema>[];
  readonly planOptions: PlanOptions;
  readonly summary: Summary;
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

/** The row keeps when the buyer was last sent a message under its first name, `toldAt`. */
const readSummary = (text: string): Summary => {
  if (text === "") return noSummary;
  const { owed, ...rest } = JSON.parse(text);
  const rename = ({ toldAt, ...each }: { toldAt: string | null }) => ({ ...each, messagedAt: toldAt });
  return { ...rest, owed: owed.map(rename) };
};
const writeSummary = ({ owed, ...rest }: Summary) => ({
  summary: JSON.stringify({
    ...rest,
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

const mostRemembered = 100;
const byId = (a: Entry, b: Entry) => (a.id < b.id ? -1 : 1);

/** Handovers with their entries and seals. Entries and seals are only ever added. */
export function createDeliveries({ models }: Database) {
  let committed = 0;
  const remembered = new Map<string, readonly Entry[]>();
  const inTx = (transaction?: Transaction) => (transaction === undefined ? {} : { transaction });
  const listWhere = async (where: WhereOptions<DeliveryRow>, limit?: number) =>
    (
      await readAll(models.deliveries, {
        where,
        order: ["date", "time", "id"],
        ...(limit === undefined ? {} : { limit }),
      })
    ).map(toDelivery);
  return {
    async add({ planOptions, ...delivery }: DeliveryRecord, transaction?: Transaction) {
      const buyers = z.array(personSchema).min(1).parse(delivery.buyers);
      const summary = summarySchema.parse(delivery.summary);
      await models.deliveries.create(
        {
          ...delivery,
          ...writePlanOptions(planOptions),
          buyers: JSON.stringify(buyers),
          ...writeSummary(summary),
        },
        inTx(transaction),
      );
    },
    async find(id: string, transaction?: Transaction): Promise<DeliveryRecord | null> {
      const row = await readOne(models.deliveries, id, transaction);
      return row === null ? null : toDelivery(row);
    },
    listOn: (date: string) => listWhere({ date }),
    listOfBoats: (boatIds: readonly string[]) => listWhere({ boatId: { [Op.in]: [...boatIds] } }),
    listAll: () => listWhere({}),
    listOwing: (most?: number) => listWhere({ owed: { [Op.gt]: 0 } }, most),
    sumOwed: async () => (await models.deliveries.sum("owed")) ?? 0,
    async setPlan(id: string, options: PlanOptions, summary: Summary, transaction: Transaction) {
      await models.deliveries.update(
        { ...writePlanOptions(options), ...writeSummary(summary) },
        { where: { id }, transaction },
      );
    },
    /** Seconds spent on each topic in the latest walks, by topic. */
    async listSpent(): Promise<Map<string, number[]>> {
      const rows = await readQuery<{ topic: string; spentS: number }>(
        models.entries,
        `SELECT json_extract(body, '$.topic') AS topic, json_extract(body, '$.spentS') AS spentS FROM entries
         WHERE json_extract(body, '$.kind') = 'mark' ORDER BY id DESC LIMIT ${mostSpent}`,
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
    /** All entries of a delivery, by id. Those of the walks under way are remembered: every entry posted asks for them. */
    async listEntries(deliveryId: string, transaction?: Transaction): Promise<readonly Entry[]> {
      const before = remembered.get(deliveryId);
      if (before !== undefined) return before;
      const asked = committed;
      const rows = await readAll(models.entries, { where: { deliveryId }, order: ["id"] }, transaction);
      const entries = rows.map(({ body }) => JSON.parse(body) as Entry);
      // Something was stored while this was read: it may not be in it.
      if (asked !== committed) return entries;
      if (remembered.size >= mostRemembered) remembered.delete(remembered.keys().next().value!);
      remembered.set(deliveryId, entries);
      return entries;
    },
    /** Adds entries that are new; one whose id another delivery has is refused. */
    async addEntries(deliveryId: string, entries: readonly Entry[], transaction: Transaction) {
      try {
        await models.entries.bulkCreate(
          entries.map((entry) => ({ id: entry.id, deliveryId, body: JSON.stringify(entry) })),
          { transaction },
        );
      } catch (error) {
        if (error instanceof UniqueConstraintError) throw new Failure("entry-differs", { path: "entries" });
        throw error;
      }
      // Only when it is on disk; until then, and if it never comes there, what is remembered is what stands.
      transaction.afterCommit(() => {
        committed++;
        const before = remembered.get(deliveryId);
        if (before !== undefined) remembered.set(deliveryId, [...before, ...entries].sort(byId));
      });
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
    /** Marks made late and calls, by topic, over all walks, and how many walks were signed. */
    async countForgotten(): Promise<{ rows: { topic: string; late: number; calls: number }[]; handovers: number }> {
      // Late: made after the first thing that is only done when closing (gear counted, hours read, a signature).
      const rows = await readQuery<{ topic: string; late: number; calls: number }>(
        models.entries,
        `WITH closing AS (
           SELECT deliveryId, MIN(json_extract(body, '$.at')) AS at FROM entries
           WHERE json_extract(body, '$.kind') IN ('gear', 'hours', 'sign') GROUP BY deliveryId)
         SELECT json_extract(e.body, '$.topic') AS topic,
           SUM(json_extract(e.body, '$.kind') = 'mark' AND json_extract(e.body, '$.at') > closing.at
             AND json_extract(e.body, '$.mark') IN ('told', 'shown', 'did')) AS late,
           SUM(json_extract(e.body, '$.kind') = 'call') AS calls
         FROM entries e LEFT JOIN closing ON closing.deliveryId = e.deliveryId
         WHERE json_extract(e.body, '$.kind') IN ('mark', 'call') AND json_extract(e.body, '$.topic') IS NOT NULL
         GROUP BY 1 HAVING late > 0 OR calls > 0`,
      );
      const [count] = await readQuery<{ n: number }>(
        models.entries,
        "SELECT COUNT(*) AS n FROM chain WHERE kind = 'handover'",
      );
      return { rows, handovers: count?.n ?? 0 };
    },
  };
}

export type Deliveries = ReturnType<typeof createDeliveries>;
