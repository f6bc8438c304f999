import { literal, Op } from "sequelize";
import type { Contact } from "../../api/index.ts";
import type { CareRig } from "../../core/care/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { BoatRow, FillRow, ReadingRow, ServiceRow, WithdrawnKind } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";

export interface BoatRecord extends Omit<BoatRow, "rig"> {
  /** As stored; parse with the rig service, which remembers. */
  readonly rigText: string;
}

/** A boat without its rig. */
export type BoatHead = Omit<BoatRow, "rig">;
const headColumns = ["id", "name", "hull", "inService", "template", "version", "contact"];

/** A boat that was handed over, with what its care depends on. */
export interface CaredBoat extends BoatHead {
  readonly inService: LocalDate;
  readonly rig: CareRig;
}
export interface BoatShape {
  readonly family: string;
  readonly loaM: number;
  readonly beamM: number;
  readonly engines: number;
}

const careRigParts = ["engines", "tanks", "batteries", "trailer", "used", "modelYear"] as const;
/** What stands in the row was a valid rig when it was stored. */
const toCareRig = (parts: string): CareRig =>
  Object.fromEntries(
    (JSON.parse(parts) as unknown[]).flatMap((value, i) => {
      const part = careRigParts[i]!;
      return value === null && part === "used" ? [] : [[part, value]];
    }),
  ) as unknown as CareRig;

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
    /** Boats without their rigs, which are most of what is stored of them: all, or those named. */
    async listHeads(ids?: readonly string[]): Promise<BoatHead[]> {
      const where = ids === undefined ? {} : { where: { id: { [Op.in]: [...ids] } } };
      return readAll(models.boats, { ...where, attributes: headColumns, order: ["name", "hull"] });
    },
    /** Of each boat that was handed over what its care depends on: a tenth of its rig, taken out by the database. */
    async listCared(ids: readonly string[]): Promise<CaredBoat[]> {
      const paths = careRigParts.map((part) => `'$.${part}'`).join(", ");
      const rows = await readQuery<BoatHead & { parts: string }>(
        models.boats,
        `SELECT ${headColumns.join(", ")}, json_extract(rig, ${paths}) AS parts FROM boats
         WHERE inService IS NOT NULL AND id IN (SELECT value FROM json_each(?))`,
        [JSON.stringify(ids)],
      );
      return rows.map(({ parts, ...head }) => ({ ...head, inService: head.inService!, rig: toCareRig(parts) }));
    },
    /** What a list shows of these boats' shapes, by boat. */
    async listShapes(ids: readonly string[]): Promise<Map<string, BoatShape>> {
      const rows = await readQuery<BoatShape & { id: string }>(
        models.boats,
        `SELECT id, json_extract(rig, '$.family') AS family, json_extract(rig, '$.loaM') AS loaM,
         json_extract(rig, '$.beamM') AS beamM, json_array_length(rig, '$.engines') AS engines
         FROM boats WHERE id IN (SELECT value FROM json_each(?))`,
        [JSON.stringify(ids)],
      );
      return new Map(rows.map(({ id, ...shape }) => [id, shape]));
    },
    /** Every boat as it may be asked for: by name, hull number, the people it was handed to last, or whom its contact names. */
    listFindable(): Promise<{ id: string; name: string; hull: string; contact: string; buyers: string | null }[]> {
      return readQuery(
        models.boats,
        `SELECT id, name, hull, contact, (SELECT buyers FROM deliveries WHERE boatId = boats.id
         ORDER BY date DESC, time DESC, deliveries.id DESC LIMIT 1) AS buyers FROM boats`,
      );
    },
    async listHulls(): Promise<string[]> {
      return (await readQuery<{ hull: string }>(models.boats, "SELECT hull FROM boats")).map(({ hull }) => hull);
    },
    /** The names of all boats that have an engine with this break-in or service pack. */
    async listNamesWithPack(pack: string): Promise<string[]> {
      const rows = await readQuery<{ name: string }>(
        models.boats,
        `SELECT name FROM boats WHERE EXISTS (SELECT 1 FROM json_each(rig, '$.engines') AS engine
         WHERE ? IN (json_extract(engine.value, '$.breakInPack'), json_extract(engine.value, '$.servicePack')))
         ORDER BY name, hull`,
        [pack],
      );
      return rows.map(({ name }) => name);
    },
    /** Boats that are yet to be handed over. */
    listWaiting: (): Promise<BoatHead[]> =>
      readAll(models.boats, { where: { inService: null }, attributes: headColumns, order: ["name", "hull"] }),
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
