import { literal, Op } from "sequelize";
import type { Rig } from "../../core/rig/index.ts";
import type { BoatRow, ReadingRow, ServiceRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";

export interface BoatRecord extends Omit<BoatRow, "rig"> {
  /** As stored; parse with the rig desk, which remembers. */
  readonly rigText: string;
}

const toBoat = (row: { get(options: { plain: true }): unknown }): BoatRecord => {
  const { rig, ...rest } = row.get({ plain: true }) as BoatRow;
  return { ...rest, rigText: rig };
};

/** Boats, their engine-hour readings and the services done on them. */
export function createBoats({ models }: Database) {
  const inTx = (transaction?: Transaction) => (transaction === undefined ? {} : { transaction });
  return {
    async add(boat: { id: string; name: string; hull: string; rig: Rig }, transaction?: Transaction) {
      await models.boats.create(
        { ...boat, rig: JSON.stringify(boat.rig), inService: null, dueDate: null },
        inTx(transaction),
      );
    },
    async find(id: string, transaction?: Transaction): Promise<BoatRecord | null> {
      const row = await models.boats.findByPk(id, inTx(transaction));
      return row === null ? null : toBoat(row);
    },
    async findMany(ids: readonly string[]): Promise<Map<string, BoatRecord>> {
      const rows = await models.boats.findAll({ where: { id: { [Op.in]: [...ids] } } });
      return new Map(rows.map(toBoat).map((boat) => [boat.id, boat]));
    },
    async list(): Promise<BoatRecord[]> {
      return (await models.boats.findAll({ order: ["name", "hull"] })).map(toBoat);
    },
    async countDueBy(date: string): Promise<number> {
      return models.boats.count({ where: { dueDate: { [Op.lte]: date } } });
    },
    async listDueBy(date: string, most: number): Promise<BoatRecord[]> {
      const rows = await models.boats.findAll({
        where: { dueDate: { [Op.lte]: date } },
        order: ["dueDate", "id"],
        limit: most,
      });
      return rows.map(toBoat);
    },
    async setCare(id: string, care: { inService: string | null; dueDate: string | null }, transaction: Transaction) {
      await models.boats.update(care, { where: { id }, transaction });
    },
    async listReadings(boatIds: readonly string[], transaction?: Transaction): Promise<ReadingRow[]> {
      const rows = await models.readings.findAll({
        where: { boatId: { [Op.in]: [...boatIds] } },
        // By day, and of one day as they were entered: a device's clock may be wrong, the order of arrival is not.
        order: [["date", "ASC"], literal("rowid")],
        ...inTx(transaction),
      });
      return rows.map((row) => row.get({ plain: true }));
    },
    async addReading(reading: ReadingRow, transaction: Transaction) {
      await models.readings.create(reading, { transaction });
    },
    async listServices(boatIds: readonly string[], transaction?: Transaction): Promise<ServiceRow[]> {
      const rows = await models.services.findAll({
        where: { boatId: { [Op.in]: [...boatIds] } },
        order: ["date", "id"],
        ...inTx(transaction),
      });
      return rows.map((row) => row.get({ plain: true }));
    },
    async addService(service: ServiceRow, transaction: Transaction) {
      await models.services.create(service, { transaction });
    },
  };
}

export type Boats = ReturnType<typeof createBoats>;
