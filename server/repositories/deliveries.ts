import { Op, type WhereOptions } from "sequelize";
import { z } from "zod";
import { personSchema } from "../../core/record/index.ts";
import type { StyleId } from "../../core/route/index.ts";
import { type Entry, recordIdSchema } from "../../core/walk/index.ts";
import type { DeliveryRow, SealRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";

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
      what: z.enum(["later", "snag", "gear", "must"]),
      text: z.string(),
      since: z.string(),
      stops: z.boolean(),
    }),
  ),
});
export type Summary = z.infer<typeof summarySchema>;

export interface DeliveryRecord {
  readonly id: string;
  readonly boatId: string;
  readonly date: string;
  readonly time: string;
  readonly note: string;
  readonly buyers: z.infer<typeof personSchema>[];
  readonly style: StyleId;
  readonly summary: Summary;
}

const toDelivery = (row: { get(options: { plain: true }): unknown }): DeliveryRecord => {
  const { buyers, summary, style, owed: _, ...rest } = row.get({ plain: true }) as DeliveryRow;
  return { ...rest, buyers: JSON.parse(buyers), style: style as StyleId, summary: JSON.parse(summary) };
};

/** Handovers with their entries and seals. Entries and seals are only ever added. */
export function createDeliveries({ models }: Database) {
  const inTx = (transaction?: Transaction) => (transaction === undefined ? {} : { transaction });
  const listWhere = async (where: WhereOptions<DeliveryRow>, limit?: number) =>
    (
      await models.deliveries.findAll({
        where,
        order: ["date", "time", "id"],
        ...(limit === undefined ? {} : { limit }),
      })
    ).map(toDelivery);
  return {
    async add(delivery: DeliveryRecord, transaction?: Transaction) {
      const buyers = z.array(personSchema).min(1).parse(delivery.buyers);
      const summary = summarySchema.parse(delivery.summary);
      await models.deliveries.create(
        {
          ...delivery,
          buyers: JSON.stringify(buyers),
          summary: JSON.stringify(summary),
          owed: summary.owed.length,
        },
        inTx(transaction),
      );
    },
    async find(id: string, transaction?: Transaction): Promise<DeliveryRecord | null> {
      const row = await models.deliveries.findByPk(id, inTx(transaction));
      return row === null ? null : toDelivery(row);
    },
    listOn: (date: string) => listWhere({ date }),
    listOfBoats: (boatIds: readonly string[]) => listWhere({ boatId: { [Op.in]: [...boatIds] } }),
    listAll: () => listWhere({}),
    listOwing: (most: number) => listWhere({ owed: { [Op.gt]: 0 } }, most),
    sumOwed: async () => (await models.deliveries.sum("owed")) ?? 0,
    async setStyle(id: string, style: StyleId) {
      await models.deliveries.update({ style }, { where: { id } });
    },
    async setSummary(id: string, summary: Summary, transaction: Transaction) {
      await models.deliveries.update(
        { summary: JSON.stringify(summary), owed: summary.owed.length },
        { where: { id }, transaction },
      );
    },
    async listEntries(deliveryId: string, transaction?: Transaction): Promise<Entry[]> {
      const rows = await models.entries.findAll({ where: { deliveryId }, order: ["id"], ...inTx(transaction) });
      return rows.map((row) => JSON.parse(row.get("body") as string) as Entry);
    },
    /** Entries by id, whichever delivery they belong to. */
    async findEntries(ids: readonly string[], transaction: Transaction): Promise<Map<string, Entry>> {
      const rows = await models.entries.findAll({ where: { id: { [Op.in]: [...ids] } }, transaction });
      return new Map(rows.map((row) => [row.get("id") as string, JSON.parse(row.get("body") as string) as Entry]));
    },
    async addEntries(deliveryId: string, entries: readonly Entry[], transaction: Transaction) {
      await models.entries.bulkCreate(
        entries.map((entry) => ({ id: entry.id, deliveryId, body: JSON.stringify(entry) })),
        { transaction },
      );
    },
    async findSeal(deliveryId: string, transaction?: Transaction): Promise<SealRow | null> {
      const row = await models.seals.findByPk(deliveryId, inTx(transaction));
      return row === null ? null : row.get({ plain: true });
    },
    async addSeal(seal: SealRow, transaction: Transaction) {
      await models.seals.create(seal, { transaction });
    },
  };
}

export type Deliveries = ReturnType<typeof createDeliveries>;
