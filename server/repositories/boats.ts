import { Op } from "sequelize";
import { type CallBack, callBackSchema } from "../../api/careSchemas.ts";
import type { Contact } from "../../api/index.ts";
import type { CareRig } from "../../core/care/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { BoatRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";
import { createCareRows } from "./careRows.ts";

export interface BoatRecord extends Omit<BoatRow, "rig"> {
  /** As stored; parse with the rig service, which remembers. */
  readonly rigText: string;
}

/** A boat without its rig. */
export type BoatHead = Omit<BoatRow, "rig">;
const headColumns = [
  "id",
  "name",
  "hull",
  "inService",
  "template",
  "version",
  "contact",
  "stock",
  "color",
  "callBack",
  "gearDates",
];

/** A boat that was handed over, with what its care depends on. */
export interface CaredBoat extends BoatHead {
  readonly inService: LocalDate;
  readonly rig: CareRig;
}
export interface BoatShape {
  readonly family: Rig["family"];
  readonly loaM: number;
  readonly beamM: number;
  readonly engines: number;
}

const shapeColumns = `json_extract(rig, '$.family') AS family, json_extract(rig, '$.loaM') AS loaM,
  json_extract(rig, '$.beamM') AS beamM, json_array_length(rig, '$.engines') AS engines`;

export interface ListedBoat extends BoatHead, BoatShape {
  /** As they stand in the row; null where it was never handed over. */
  readonly lastBuyers: string | null;
  readonly owed: number;
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
export function createBoats(database: Database) {
  return { ...createBoatRows(database), ...createBoatLists(database), ...createCareRows(database) };
}

export type Boats = ReturnType<typeof createBoats>;

function createBoatRows({ models }: Database) {
  return {
    async add(
      boat: { id: string; name: string; hull: string; rig: Rig; template?: string; stock?: string; color?: string },
      transaction?: Transaction,
    ) {
      await models.boats.create(
        {
          stock: "",
          color: "",
          ...boat,
          template: boat.template ?? null,
          rig: JSON.stringify(boat.rig),
          inService: null,
          version: 1,
          contact: "{}",
          callBack: "",
          gearDates: "{}",
        },
        transaction === undefined ? {} : { transaction },
      );
    },
    async find(id: string, transaction?: Transaction): Promise<BoatRecord | null> {
      const row = await readOne(models.boats, id, transaction);
      return row === null ? null : toBoat(row);
    },
    async findMany(ids: readonly string[]): Promise<Map<string, BoatRecord>> {
      const rows = await readAll(models.boats, { where: { id: { [Op.in]: [...ids] } } });
      return new Map(rows.map(toBoat).map((boat) => [boat.id, boat]));
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
    async setInService(id: string, inService: LocalDate, transaction: Transaction) {
      await models.boats.update({ inService }, { where: { id }, transaction });
    },
    async setContact(id: string, contact: Contact, transaction?: Transaction) {
      await models.boats.update({ contact: JSON.stringify(contact) }, { where: { id }, transaction });
    },
    /** What the yard calls it: its stock number and color. */
    async setStock(id: string, { stock, color }: Pick<BoatRow, "stock" | "color">) {
      await models.boats.update({ stock, color }, { where: { id } });
    },
    /** Until when something is good; null takes it back. */
    async setGearDate(id: string, item: string, until: LocalDate | null, transaction: Transaction) {
      const row = await readOne(models.boats, id, transaction);
      const { [item]: _, ...others } = JSON.parse(row?.gearDates ?? "{}") as Record<string, LocalDate>;
      const gearDates = JSON.stringify(until === null ? others : { ...others, [item]: until });
      await models.boats.update({ gearDates }, { where: { id }, transaction });
    },
    /** When its people want to be called back, or null once they were. */
    async setCallBack(id: string, callBack: CallBack | null, transaction: Transaction) {
      const kept = callBack === null ? "" : JSON.stringify(callBack);
      await models.boats.update({ callBack: kept }, { where: { id }, transaction });
    },
    async listCallBacks(): Promise<Map<string, CallBack>> {
      const rows = await readAll(models.boats, {
        attributes: ["id", "callBack"],
        where: { callBack: { [Op.ne]: "" } },
      });
      return new Map(rows.map(({ id, callBack }) => [id, callBackSchema.parse(JSON.parse(callBack))]));
    },
  };
}

function createBoatLists({ models }: Database) {
  return {
    /** Boats without their rigs, which are most of what is stored of them: all, or those named. */
    async listHeads(ids?: readonly string[]): Promise<BoatHead[]> {
      const where = ids === undefined ? {} : { where: { id: { [Op.in]: [...ids] } } };
      return readAll(models.boats, { ...where, attributes: headColumns, order: ["name", "hull"] });
    },
    /** Boats that were handed over between two days, these included. */
    async listInServiceBetween(from: LocalDate, to: LocalDate): Promise<string[]> {
      const sql = "SELECT id FROM boats WHERE inService >= ? AND inService <= ?";
      return (await readQuery<{ id: string }>(models.boats, sql, [from, to])).map(({ id }) => id);
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
        `SELECT id, ${shapeColumns} FROM boats WHERE id IN (SELECT value FROM json_each(?))`,
        [JSON.stringify(ids)],
      );
      return new Map(rows.map(({ id, ...shape }) => [id, shape]));
    },
    /** What the list of boats shows of these: their shapes, the people each was handed to last, and how much is owed of it. */
    listLines(ids: readonly string[]): Promise<ListedBoat[]> {
      return readQuery(
        models.boats,
        `SELECT ${headColumns.join(", ")}, ${shapeColumns}, (SELECT buyers FROM deliveries WHERE boatId = boats.id
         ORDER BY date DESC, time DESC, deliveries.id DESC LIMIT 1) AS lastBuyers,
         COALESCE((SELECT SUM(owed) FROM deliveries WHERE boatId = boats.id), 0) AS owed
         FROM boats WHERE id IN (SELECT value FROM json_each(?))`,
        [JSON.stringify(ids)],
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
  };
}
