import { LRUCache } from "lru-cache";
import { Op } from "sequelize";
import type { Receipt } from "../../core/record/index.ts";
import type { Entry } from "../../core/walk/index.ts";
import type { EntryRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readQuery } from "../database/rows.ts";

/** The entries of a delivery, by id, and what the store knows of each beside it. */
export interface WalkLog {
  readonly entries: readonly Entry[];
  readonly receipts: ReadonlyMap<string, Receipt>;
}

interface Stored {
  readonly entry: Entry;
  readonly receipt: Receipt;
}

const byId = (a: Entry, b: Entry) => (a.id < b.id ? -1 : 1);
const toStored = ({ body, receivedAt, number, via, offsetMs }: EntryRow): Stored => ({
  entry: JSON.parse(body) as Entry,
  receipt: { receivedAt, number, via, ...(offsetMs === null ? {} : { offsetMs }) },
});
const noLog: WalkLog = { entries: [], receipts: new Map() };

/** A log with what was stored since; what is there already is not put in twice. With nothing new it is the same log. */
export function addToLog(log: WalkLog, stored: readonly Stored[]): WalkLog {
  const fresh = stored.filter(({ entry }) => !log.receipts.has(entry.id));
  if (fresh.length === 0) return log;
  return {
    entries: [...log.entries, ...fresh.map(({ entry }) => entry)].sort(byId),
    receipts: new Map([...log.receipts, ...fresh.map(({ entry, receipt }) => [entry.id, receipt] as const)]),
  };
}

interface Known {
  readonly log: WalkLog;
  /** The number of its last entry, and the version of what was struck from it. */
  readonly last: number;
  readonly struck: number;
}

const mostKnown = 100;

/**
 * Logs of walks, read on from where they are known: every post asks for one. Entries are only ever added, with rising
 * numbers; a strike raises a version, and then all of the log is read anew. What was read within a transaction is known once
 * that is on disk, and never if it never comes there.
 */
export function createWalkLogs({ models }: Database) {
  const known = new LRUCache<string, Known>({ max: mostKnown });
  const readStruck = async (id: string, transaction?: Transaction) => {
    const sql = "SELECT number FROM versions WHERE kind = 'struck' AND id = ?";
    const [row] = await readQuery<{ number: number }>(models.entries, sql, [id], transaction);
    return row?.number ?? 0;
  };
  return {
    async read(deliveryId: string, transaction?: Transaction): Promise<WalkLog> {
      const before = known.get(deliveryId);
      const struck = await readStruck(deliveryId, transaction);
      const from = before !== undefined && before.struck === struck ? before : { log: noLog, last: -1 };
      const where = { deliveryId, number: { [Op.gt]: from.last } };
      const rows = await readAll(models.entries, { where, order: ["id"] }, transaction);
      const log = addToLog(from.log, rows.map(toStored));
      const last = rows.reduce((most, { number }) => Math.max(most, number), from.last);
      const keep = () => {
        const now = known.get(deliveryId);
        if (now === undefined || now.struck < struck || (now.struck === struck && now.last < last))
          known.set(deliveryId, { log, last, struck });
      };
      if (transaction === undefined) keep();
      else transaction.afterCommit(keep);
      return log;
    },
  };
}
