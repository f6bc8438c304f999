import { type Model, Op } from "sequelize";
import type { Instant } from "../../core/dates/index.ts";
import type { CallFault } from "../../core/faults/index.ts";
import { type Receipt, type Strike, strikeEntry } from "../../core/record/index.ts";
import type { CallsHere, Spent } from "../../core/route/index.ts";
import { type Entry, type EntryOf, struckName } from "../../core/walk/index.ts";
import type { EntryRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";
import { Failure } from "../failure.ts";
import { createWalkLogs } from "./walkLogs.ts";

/** So many of the latest entries say what is spent and forgotten here, however long the store has been. */
const mostLearned = 20_000;

/** A call or an owner's question that a finder was run for. */
export interface FaultCall {
  readonly deliveryId: string;
  readonly entry: EntryOf<"call" | "ask"> & { readonly fault: CallFault };
}

type EntryRowModel = Model<EntryRow, EntryRow>;

/** What was entered in handovers. Entries are only ever added. `onStored`: called with the last number that is on disk. */
export function createEntries(database: Database, onStored: (number: number) => void) {
  const { models } = database;
  const logs = createWalkLogs(database);
  const readKnown = async (entries: readonly Entry[], transaction: Transaction) => {
    const ids = entries.map(({ id }) => id);
    return {
      isTaken: (await models.entries.count({ where: { id: { [Op.in]: ids } }, transaction })) > 0,
      lastNumber: (await models.entries.max<number | null, EntryRowModel>("number", { transaction })) ?? 0,
    };
  };
  return {
    /** All entries of a delivery with their receipts. */
    readLog: logs.read,
    listEntries: async (deliveryId: string, transaction?: Transaction): Promise<readonly Entry[]> =>
      (await logs.read(deliveryId, transaction)).entries,
    /** Of these ids those that no entry has. */
    async listMissing(ids: readonly string[]): Promise<string[]> {
      const rows = await readAll(models.entries, { attributes: ["id"], where: { id: { [Op.in]: ids } } });
      const known = new Set(rows.map(({ id }) => id));
      return ids.filter((id) => !known.has(id));
    },
    /** Photos that entries name, not taken back or struck, and that are not here; the last first. */
    async listMissingPhotos(): Promise<{ deliveryId: string; entry: EntryOf<"photo"> }[]> {
      const rows = await readQuery<{ deliveryId: string; body: string }>(
        models.entries,
        `SELECT deliveryId, body FROM entries
         WHERE json_extract(body, '$.kind') = 'photo'
           AND NOT EXISTS (SELECT 1 FROM photos WHERE photos.id = json_extract(entries.body, '$.photo'))
           AND NOT EXISTS (SELECT 1 FROM strikes WHERE part = 'photo' AND strikes.id = json_extract(entries.body, '$.photo'))
         ORDER BY id DESC`,
      );
      const missing = rows.map(({ deliveryId, body }) => ({ deliveryId, entry: JSON.parse(body) as EntryOf<"photo"> }));
      const taken = await Promise.all(
        [...new Set(missing.map(({ deliveryId }) => deliveryId))].map(async (id) => (await logs.read(id)).entries),
      );
      const undone = new Set(taken.flat().flatMap((entry) => (entry.kind === "undo" ? [entry.ref] : [])));
      return missing.filter(({ entry }) => !undone.has(entry.id));
    },
    /**
     * Adds entries that are new, as they came; one whose id another delivery has is refused. Answers their receipts. `known`: what whoever asks
     * has read of the store's entries in this transaction.
     */
    async addEntries(
      deliveryId: string,
      entries: readonly Entry[],
      {
        receivedAt,
        via,
        offsetMs,
      }: Omit<Receipt, "number" | "receivedAt"> & {
        readonly receivedAt: Receipt["receivedAt"] | ((entry: Entry) => Instant);
      },
      transaction: Transaction,
      known?: { readonly lastNumber: number; readonly isTaken: boolean },
    ): Promise<Map<string, Receipt>> {
      const { lastNumber: last, isTaken } = known ?? (await readKnown(entries, transaction));
      if (isTaken) throw new Failure("entry-differs", { path: "entries" });
      const told = offsetMs === undefined ? {} : { offsetMs };
      const stored = entries.map((entry, i) => ({
        entry,
        receipt: {
          receivedAt: typeof receivedAt === "function" ? receivedAt(entry) : receivedAt,
          number: last + 1 + i,
          via,
          ...told,
        } satisfies Receipt,
      }));
      await models.entries.bulkCreate(
        stored.map(({ entry, receipt }) => ({
          id: entry.id,
          deliveryId,
          body: JSON.stringify(entry),
          offsetMs: null,
          ...receipt,
        })),
        { transaction },
      );
      transaction.afterCommit(() => onStored(last + entries.length));
      return new Map(stored.map(({ entry, receipt }) => [entry.id, receipt]));
    },
    /** Of these entries only that they were made stays; a buyer's name is `struckName` from now on. */
    async strike(deliveryId: string, parts: readonly Strike[], person: string, transaction: Transaction) {
      for (const { part, id } of parts) {
        if (part !== "entry") continue;
        const row = await readOne(models.entries, id, transaction);
        if (row === null) continue;
        const body = JSON.stringify(strikeEntry(JSON.parse(row.body) as Entry));
        await models.entries.update({ body }, { where: { id }, transaction });
      }
      const row = (await readOne(models.deliveries, deliveryId, transaction))!;
      const buyers = (JSON.parse(row.buyers) as { id: string }[]).map((buyer) =>
        buyer.id === person ? { ...buyer, name: struckName } : buyer,
      );
      await models.deliveries.update({ buyers: JSON.stringify(buyers) }, { where: { id: deliveryId }, transaction });
    },
  };
}

/** What is asked of the entries of many handovers at once. */
export function createEntrySearch({ models }: Database) {
  return {
    /** Closings that wait for their seal. */
    async listClosing(): Promise<string[]> {
      const rows = await readQuery<{ deliveryId: string }>(
        models.entries,
        `SELECT DISTINCT deliveryId FROM entries WHERE json_extract(body, '$.kind') = 'close'
         AND deliveryId NOT IN (SELECT deliveryId FROM chain WHERE kind IN ('handover', 'import'))`,
      );
      return rows.map(({ deliveryId }) => deliveryId);
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
    /** Seconds spent teaching each topic in each of the latest walks, and with whom. Marks made at the desk took none. */
    async listSpent(): Promise<Spent[]> {
      return readQuery<Spent>(
        models.entries,
        `WITH recent AS (
           SELECT deliveryId, json_extract(body, '$.topic') AS topic, json_extract(body, '$.spentS') AS spentS
           FROM entries WHERE json_extract(body, '$.kind') = 'mark' AND json_extract(body, '$.mark') IN ('told', 'shown', 'did')
           ORDER BY id DESC LIMIT ${mostLearned})
         SELECT deliveryId AS delivery, topic, SUM(spentS) AS spentS, json_extract(wishes, '$.people') AS people,
           json_extract(wishes, '$.experience') AS experience
         FROM recent JOIN deliveries ON deliveries.id = deliveryId
         GROUP BY deliveryId, topic HAVING SUM(spentS) > 0`,
      );
    },
    /** The latest calls and questions with what a finder came to, the last first, each with its handover. */
    async listFaultCalls(since: Instant | null, mostRows: number): Promise<FaultCall[]> {
      const rows = await readQuery<{ deliveryId: string; body: string }>(
        models.entries,
        `SELECT deliveryId, body FROM entries
         WHERE json_extract(body, '$.kind') IN ('call', 'ask') AND json_extract(body, '$.fault') IS NOT NULL
           AND json_extract(body, '$.at') >= ?
         ORDER BY number DESC LIMIT ?`,
        [since ?? "", mostRows],
      );
      return rows.map(({ deliveryId, body }) => ({ deliveryId, entry: JSON.parse(body) as FaultCall["entry"] }));
    },
    /** From a day on: calls that were about a topic, and when handovers were sealed. */
    async listTopicCalls(since: Instant): Promise<CallsHere> {
      const calls = await readQuery<{ topic: string; at: Instant }>(
        models.entries,
        `SELECT json_extract(body, '$.topic') AS topic, json_extract(body, '$.at') AS at FROM entries
         WHERE json_extract(body, '$.kind') IN ('call', 'ask') AND json_extract(body, '$.kind') = 'call'
           AND json_extract(body, '$.topic') IS NOT NULL AND json_extract(body, '$.at') >= ?`,
        [since],
      );
      const sealed = await readQuery<{ at: Instant }>(
        models.entries,
        "SELECT at FROM chain WHERE kind = 'handover' AND at >= ?",
        [since],
      );
      return {
        calls: calls.map(({ topic, at }) => ({ topic, atMs: Date.parse(at) })),
        handoversMs: sealed.map(({ at }) => Date.parse(at)),
      };
    },
    /** The number of the last call or question there is; 0 without any. */
    async findLastCall(): Promise<number> {
      const [row] = await readQuery<{ n: number | null }>(
        models.entries,
        "SELECT MAX(number) AS n FROM entries WHERE json_extract(body, '$.kind') IN ('call', 'ask')",
      );
      return row?.n ?? 0;
    },
    /** Marks made late and calls (from an instant on), by topic, over the latest walks, and how many of them were signed. */
    async countForgotten(
      callsSince: Instant | null = null,
    ): Promise<{ rows: { topic: string; late: number; calls: number }[]; handovers: number }> {
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
           SUM(kind = 'call' AND json_extract(e.body, '$.at') >= ?) AS calls
         FROM recent e LEFT JOIN closing ON closing.deliveryId = e.deliveryId
         WHERE kind IN ('mark', 'call') AND json_extract(e.body, '$.topic') IS NOT NULL
         GROUP BY 1 HAVING late > 0 OR calls > 0`,
        [callsSince ?? ""],
      );
      const [count] = await readQuery<{ n: number }>(
        models.entries,
        `SELECT COUNT(*) AS n FROM chain WHERE kind = 'handover' AND deliveryId IN (
           SELECT deliveryId FROM entries WHERE number > (SELECT MAX(number) FROM entries) - ${mostLearned})`,
      );
      return { rows, handovers: count?.n ?? 0 };
    },
  };
}
