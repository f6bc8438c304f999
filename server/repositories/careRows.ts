import { literal, Op } from "sequelize";
import type { FillRow, ReadingRow, ServiceRow, WithdrawnKind } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";

/** Those that were not withdrawn. */
const standing = (kind: WithdrawnKind) => ({
  id: { [Op.notIn]: literal(`(SELECT id FROM withdrawals WHERE kind = '${kind}')`) },
});

/** Engine hours that were read, fuel taken and services done. */
export function createCareRows({ models }: Database) {
  return {
    async addReading(reading: ReadingRow, transaction: Transaction) {
      await models.readings.create(reading, { transaction });
    },
    getReading: (id: string, transaction: Transaction): Promise<ReadingRow | null> =>
      readOne(models.readings, id, transaction),
    async listReadings(boatIds: readonly string[], transaction?: Transaction): Promise<ReadingRow[]> {
      return readAll(
        models.readings,
        {
          where: { boatId: { [Op.in]: [...boatIds] }, ...standing("reading") },
          // By day, and of one day as they were entered: a device's clock may be wrong, the order of arrival is not.
          order: [["date", "ASC"], literal("rowid")],
        },
        transaction,
      );
    },
    /** Of all boats, by day and as they were entered. */
    async listAllReadings(): Promise<ReadingRow[]> {
      return readAll(models.readings, { where: standing("reading"), order: [["date", "ASC"], literal("rowid")] });
    },
    /**
     * Of all boats that were handed over, or of so many picked evenly among them: what their owners run is seen from two
     * thousand as well as from twenty. By day and as they were entered.
     */
    async listReadingsToLearn(mostBoats: number): Promise<ReadingRow[]> {
      const [row] = await readQuery<{ n: number }>(models.boats, "SELECT COUNT(*) AS n FROM boats");
      const every = Math.max(1, Math.floor(row!.n / mostBoats));
      const picked = literal(`(SELECT id FROM boats WHERE inService IS NOT NULL AND rowid % ${every} = 0)`);
      return readAll(models.readings, {
        where: { boatId: { [Op.in]: picked }, ...standing("reading") },
        order: [["date", "ASC"], literal("rowid")],
      });
    },
    async addFill(fill: FillRow, transaction: Transaction) {
      await models.fills.create(fill, { transaction });
    },
    getFill: (id: string, transaction: Transaction): Promise<FillRow | null> => readOne(models.fills, id, transaction),
    async listFills(boatIds: readonly string[], transaction?: Transaction): Promise<FillRow[]> {
      return readAll(
        models.fills,
        { where: { boatId: { [Op.in]: [...boatIds] }, ...standing("fill") }, order: ["date", "id"] },
        transaction,
      );
    },
    async listAllFills(): Promise<FillRow[]> {
      return readAll(models.fills, { where: standing("fill"), order: ["date", "id"] });
    },
    async addService(service: ServiceRow, transaction: Transaction) {
      await models.services.create(service, { transaction });
    },
    getService: (id: string, transaction: Transaction): Promise<ServiceRow | null> =>
      readOne(models.services, id, transaction),
    async listServices(boatIds: readonly string[], transaction?: Transaction): Promise<ServiceRow[]> {
      return readAll(
        models.services,
        {
          where: { boatId: { [Op.in]: [...boatIds] }, ...standing("service") },
          order: ["date", "id"],
        },
        transaction,
      );
    },
    async listAllServices(): Promise<ServiceRow[]> {
      return readAll(models.services, { where: standing("service"), order: ["date", "id"] });
    },
  };
}
