import { literal, Op } from "sequelize";
import type { Contact } from "../../api/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { BoatRow, FillRow, ReadingRow, ServiceRow, WithdrawnKind } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

export interface BoatRecord extends Omit<BoatRow, "rig"> {
  /** As stored; parse with the rig service, which remembers. */
  readonly rigText: string;
}

/** A boat without its rig. */
export type BoatHead = Omit<BoatRow, "rig">;
const headColumns = ["id", "name", "hull", "inService", "template", "version", "contact"];

const toBoat = ({ rig, ...rest }: BoatRow): BoatRecord => ({ ...rest, rigText: rig });

/** Boats, their engine-hour readings, the fuel they took and the services done on them. */
export function createBoats({ models }: Database) {
  /** Those that were not withdrawn. */
  const standing = (kind: WithdrawnKind) => ({
    id: { [Op.notIn]: literal(`(SELECT id FROM withdrawals WHERE kind = '${kind}')`) },
  });
  const inTx = (transaction?: Transaction) => (transaction === undefined ? {} : { transaction });
  return {
    async add(
      boat: { id: string; name: string; hull: string; rig: Rig; template?: string },
      transaction?: Transaction,
    ) {
      await models.boats.create(
        {
          ...boat,
          template: boat.template ?? null,
          rig: JSON.stringify(boat.rig),
          inService: null,
          version: 1,
          contact: "{}",
        },
        inTx(transaction),
      );
    },
    async findByHull(hull: string, transaction?: Transaction): Promise<BoatRecord | null> {
      const [row] = await readAll(models.boats, { where: { hull }, limit: 1 }, transaction);
      return row === undefined ? null : toBoat(row);
    },
    async setRig(
      id: string,
      { rig, ...rest }: { name: string; hull: string; rig: Rig; version: number },
      transaction: Transaction,
    ) {
      await models.boats.update({ ...rest, rig: JSON.stringify(rig) }, { where: { id }, transaction });
    },
    async find(id: string, transaction?: Transaction): Promise<BoatRecord | null> {
      const row = await readOne(models.boats, id, transaction);
      return row === null ? null : toBoat(row);
    },
    async findMany(ids: readonly string[]): Promise<Map<string, BoatRecord>> {
      const rows = await readAll(models.boats, { where: { id: { [Op.in]: [...ids] } } });
      return new Map(rows.map(toBoat).map((boat) => [boat.id, boat]));
    },
    async list(): Promise<BoatRecord[]> {
      return (await readAll(models.boats, { order: ["name", "hull"] })).map(toBoat);
    },
    /** Boats without their rigs, which are most of what is stored of them: all, or those named. */
    async listHeads(ids?: readonly string[]): Promise<BoatHead[]> {
      const where = ids === undefined ? {} : { where: { id: { [Op.in]: [...ids] } } };
      return readAll(models.boats, { ...where, attributes: headColumns, order: ["name", "hull"] });
    },
    async setInService(id: string, inService: LocalDate, transaction: Transaction) {
      await models.boats.update({ inService }, { where: { id }, transaction });
    },
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
    async listAllServices(): Promise<ServiceRow[]> {
      return readAll(models.services, { where: standing("service"), order: ["date", "id"] });
    },
    async setContact(id: string, contact: Contact) {
      await models.boats.update({ contact: JSON.stringify(contact) }, { where: { id } });
    },
    async addReading(reading: ReadingRow, transaction: Transaction) {
      await models.readings.create(reading, { transaction });
    },
    getReading: (id: string, transaction: Transaction): Promise<ReadingRow | null> =>
      readOne(models.readings, id, transaction),
    getFill: (id: string, transaction: Transaction): Promise<FillRow | null> => readOne(models.fills, id, transaction),
    getService: (id: string, transaction: Transaction): Promise<ServiceRow | null> =>
      readOne(models.services, id, transaction),
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
    async addFill(fill: FillRow, transaction: Transaction) {
      await models.fills.create(fill, { transaction });
    },
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
    async addService(service: ServiceRow, transaction: Transaction) {
      await models.services.create(service, { transaction });
    },
  };
}

export type Boats = ReturnType<typeof createBoats>;
