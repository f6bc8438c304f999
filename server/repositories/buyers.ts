import { Op } from "sequelize";
import type { LocalDate } from "../../core/dates/index.ts";
import { struckName } from "../../core/walk/index.ts";
import type { AuditRow, MessageRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readQuery } from "../database/rows.ts";

/** People are known by their name, however it was written. */
export const nameKey = (name: string): string => name.trim().toLowerCase();

export interface BuyerHandover {
  readonly delivery: string;
  /** Who they are in it, by id. */
  readonly person: string;
  readonly boat: string;
  readonly date: LocalDate;
  readonly buyers: readonly { readonly id: string; readonly name: string }[];
}

/** The tables that say what was done to a boat, and when. */
const boatTables = ["readings", "services", "fills", "runs", "bookings"] as const;
/** Whatever SQLite cannot fold to small letters, or JSON writes otherwise, may be anything: what is found is looked at again. */
const like = (text: string) => `%${text.trim().replace(/[^ -~]|[%_"\\]/gu, "%")}%`;

/** What the store holds of one buyer, over all its tables, and how it is struck from those that have no seal. */
export function createBuyers({ models }: Database) {
  const listMessages = (of: Owned, transaction?: Transaction) =>
    readAll(models.messages, { where: whereMessages(of), order: ["at"] }, transaction);
  const listLog = async (name: string, contactOf: readonly string[], contactWords: string, t?: Transaction) => {
    const rows = await readAll(
      models.audit,
      { where: { [Op.or]: [{ about: { [Op.like]: like(name) } }, { what: contactWords }] } },
      t,
    );
    const isOf = ({ about, what }: AuditRow) =>
      about.toLowerCase().includes(nameKey(name)) ||
      (what === contactWords && contactOf.some((boat) => about.includes(`boat ${boat},`)));
    return rows.filter(isOf);
  };
  return {
    /** Every handover to somebody of this name, the first first. */
    async listHandovers(name: string, transaction?: Transaction): Promise<BuyerHandover[]> {
      const rows = await readQuery<{ id: string; boatId: string; date: LocalDate; buyers: string }>(
        models.deliveries,
        `SELECT id, boatId, date, buyers FROM deliveries WHERE buyers LIKE ? ORDER BY date, id`,
        [like(name)],
        transaction,
      );
      return rows.flatMap(({ id, boatId, date, buyers: text }) => {
        const buyers = JSON.parse(text) as { id: string; name: string }[];
        const them = buyers.find((buyer) => nameKey(buyer.name) === nameKey(name));
        return them === undefined ? [] : [{ delivery: id, person: them.id, boat: boatId, date, buyers }];
      });
    },
    listMessages,
    listLog,
    /** What was done to a boat until a day, table by table; of runs without their traces. */
    async listRows(boatId: string, until: LocalDate | null): Promise<Record<string, object[]>> {
      const listed = await Promise.all(
        boatTables.map(async (table) => {
          const rows = await readQuery<{ date: string; trace?: Buffer }>(
            models[table],
            `SELECT * FROM ${table} WHERE boatId = ? AND date <= ? ORDER BY date`,
            [boatId, until ?? "9999-12-31"],
          );
          return [table, rows.map(({ trace: _, ...row }) => row)] as const;
        }),
      );
      return Object.fromEntries(listed);
    },
    /** Of messages only that they were sent stays; what waits is not sent any more. Answers how many. */
    async strikeMessages(of: Owned, transaction: Transaction): Promise<number> {
      const rows = await listMessages(of, transaction);
      const ids = rows.map(({ id }) => id);
      const where = { id: { [Op.in]: ids } };
      await models.messages.update({ recipient: struckName, text: struckName, answer: null }, { where, transaction });
      await models.messages.update(
        { state: "stopped" },
        { where: { ...where, state: { [Op.in]: ["waiting", "ready"] } }, transaction },
      );
      return ids.length;
    },
    /** Lines of the log that were permitted to be struck say what was done and by whom, and no longer to whom. */
    async strikeLog(numbers: readonly number[], transaction: Transaction): Promise<void> {
      await models.audit.update({ about: struckName }, { where: { number: { [Op.in]: [...numbers] } }, transaction });
    },
    async clearNote(deliveryId: string, transaction: Transaction): Promise<void> {
      await models.deliveries.update({ note: "" }, { where: { id: deliveryId }, transaction });
    },
    /** What the boat has of whoever has it: how they are reached, when to be called, their gear's dates, their car. */
    async clearBoat(boatId: string, contact: string, transaction: Transaction): Promise<void> {
      await models.boats.update({ contact, callBack: "", gearDates: "{}" }, { where: { id: boatId }, transaction });
      await models.towing.destroy({ where: { boatId }, transaction });
      await models.bookings.update({ note: "" }, { where: { boatId }, transaction });
    },
    /** Handovers before a day of whose boats nothing has been heard since: no handover, hours, service, slot or message. */
    async listQuiet(before: LocalDate, most: number): Promise<BuyerHandover[]> {
      const rows = await readQuery<{ id: string; boatId: string; date: LocalDate; buyers: string }>(
        models.deliveries,
        `SELECT id, boatId, date, buyers FROM deliveries AS d WHERE d.date < ?
           AND EXISTS (SELECT 1 FROM json_each(d.buyers) WHERE json_extract(value, '$.name') <> '${struckName}')
           AND NOT EXISTS (SELECT 1 FROM deliveries WHERE boatId = d.boatId AND date >= ?)
           ${["readings", "services", "bookings"].map((table) => `AND NOT EXISTS (SELECT 1 FROM ${table} WHERE boatId = d.boatId AND date >= ?)`).join("\n")}
           AND NOT EXISTS (SELECT 1 FROM outbox WHERE boatId = d.boatId AND at >= ?)
         ORDER BY d.date, d.id LIMIT ?`,
        [before, before, before, before, before, before, most],
      );
      return rows.flatMap(({ id, boatId, date, buyers: text }) => {
        const buyers = JSON.parse(text) as { id: string; name: string }[];
        return buyers
          .filter(({ name }) => name !== struckName)
          .map(({ id: person }) => ({ delivery: id, person, boat: boatId, date, buyers }));
      });
    },
    /** Messages from before an instant keep only that they were sent; answers how many lost their words now. */
    async strikeOldMessages(before: string, transaction: Transaction): Promise<number> {
      const [count] = await models.messages.update(
        { recipient: struckName, text: struckName, answer: null },
        {
          where: {
            at: { [Op.lt]: before as MessageRow["at"] },
            text: { [Op.ne]: struckName },
            // What is still to go out keeps its words.
            state: { [Op.notIn]: ["waiting", "ready"] },
          },
          transaction,
        },
      );
      return count;
    },
    /** Lines of the log from before a day go; the day is kept, for the guards let nothing else go. */
    async removeOldLog(before: LocalDate, transaction: Transaction): Promise<number> {
      const value = JSON.stringify({ logFrom: before });
      await models.settings.upsert({ key: "retention", value }, { transaction });
      return models.audit.destroy({ where: { at: { [Op.lt]: before as never } }, transaction });
    },
  };
}

/** Messages about these handovers, and those about these boats that are about no handover. */
interface Owned {
  readonly deliveries: readonly string[];
  readonly boats: readonly string[];
}
const whereMessages = ({ deliveries, boats }: Owned) => ({
  [Op.or]: [{ deliveryId: { [Op.in]: [...deliveries] } }, { deliveryId: null, boatId: { [Op.in]: [...boats] } }],
});

export type Buyers = ReturnType<typeof createBuyers>;
