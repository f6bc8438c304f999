import { LRUCache } from "lru-cache";
import { type Entry, type KeptWalk, keepWalk } from "../../core/walk/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readQuery } from "../database/rows.ts";
import type { HandoverContext, WalkReader } from "./walkReader.ts";

/** What a walk was read at: the versions of its row and its boat, of what was struck from it, and its last entry's number. */
interface Stamps {
  readonly handover: number;
  readonly boat: number;
  readonly struck: number;
  readonly last: number;
}

/** A walk between two marks. */
interface InHand {
  readonly context: HandoverContext;
  readonly fold: KeptWalk;
  readonly stamps: Stamps;
}

/** A walk as it is now, for entries to be added to. */
export interface WalkTaken {
  readonly context: HandoverContext;
  readonly stamps: Stamps;
  /** Folded; null where it is sealed, has not begun, or was told in the words of several snapshots, which its marks decide. */
  readonly fold: KeptWalk | null;
  /** The number of the last entry of the store. */
  readonly lastNumber: number;
  /** One of the ids that were asked about is an entry of another handover. */
  readonly isTaken: boolean;
}

const mostInHand = 100;

/**
 * Walks under way, known as they were left: every mark asks for one, and nothing of it has changed but by the mark before. One question says
 * whether that is so; where it is not, the walk is read anew. What a transaction leaves is known once it is on disk.
 */
export function createWalksInHand({
  database,
  walkReader,
}: {
  readonly database: Database;
  readonly walkReader: WalkReader;
}) {
  const known = new LRUCache<string, InHand>({ max: mostInHand });
  /** What transactions under way have left so far: those that share one see each other's. */
  const pending = new WeakMap<Transaction, Map<string, InHand>>();
  const find = (id: string, t: Transaction) => pending.get(t)?.get(id) ?? known.get(id);

  async function ask(id: string, ids: readonly string[], t: Transaction) {
    const version = (kind: string, of: string) =>
      `(SELECT number FROM versions WHERE kind = '${kind}' AND id = ${of}) AS ${kind}`;
    const ofBoat = "(SELECT boatId FROM deliveries WHERE id = ?)";
    const [row] = await readQuery<Record<keyof Stamps | "number" | "taken", number | null>>(
      database.models.entries,
      `SELECT ${version("handover", "?")}, ${version("struck", "?")}, ${version("boat", ofBoat)},
        (SELECT MAX(number) FROM entries WHERE deliveryId = ?) AS last,
        (SELECT MAX(number) FROM entries) AS number,
        (SELECT COUNT(*) FROM entries WHERE id IN (${ids.map(() => "?").join(",")})) AS taken`,
      [id, id, id, id, ...ids],
      t,
    );
    const { handover, struck, boat, last, number, taken } = row!;
    const stamps: Stamps = { handover: handover ?? 0, boat: boat ?? 0, struck: struck ?? 0, last: last ?? 0 };
    return { stamps, lastNumber: number ?? 0, taken: taken ?? 0 };
  }

  async function readRowVersion(id: string, t: Transaction): Promise<number> {
    const sql = "SELECT number FROM versions WHERE kind = 'handover' AND id = ?";
    const [row] = await readQuery<{ number: number }>(database.models.entries, sql, [id], t);
    return row?.number ?? 0;
  }

  return {
    /** Within the transaction in which entries of these ids are to be added. */
    async take(id: string, ids: readonly string[], t: Transaction): Promise<WalkTaken> {
      const { stamps, lastNumber, taken } = await ask(id, ids, t);
      const held = find(id, t);
      const isHeld = held !== undefined && isSame(held.stamps, stamps);
      const context = isHeld ? held.context : await walkReader.get(id, t);
      const { walk, log } = context;
      const isTaken = taken > new Set(ids.filter((each) => log.receipts.has(each))).size;
      const asked = { context, stamps, lastNumber, isTaken };
      if (isHeld) return { ...asked, fold: held.fold };
      const isPlain = walk.sealed === null && walk.snapshot !== null && goesBy(walk.snapshot, log.entries);
      const fold = isPlain ? keepWalk(log.entries, (entry) => log.receipts.get(entry)?.number) : null;
      return { ...asked, fold };
    },
    /** It is being added to: until it is left again nobody knows it. */
    drop(id: string, t: Transaction) {
      known.delete(id);
      pending.get(t)?.delete(id);
    },
    /** As a transaction leaves it. `isRowWritten`: its own row was, and has another version. */
    async leave(
      id: string,
      { context, fold, stamps, isRowWritten }: InHand & { readonly isRowWritten: boolean },
      t: Transaction,
    ) {
      const { walk, log } = context;
      if (walk.snapshot === null || !goesBy(walk.snapshot, log.entries)) return;
      const handover = isRowWritten ? await readRowVersion(id, t) : stamps.handover;
      const left: InHand = { context, fold, stamps: { ...stamps, handover } };
      const mine = pending.get(t) ?? new Map<string, InHand>();
      pending.set(t, mine.set(id, left));
      t.afterCommit(() => {
        known.set(id, left);
      });
    },
  };
}

export type WalksInHand = ReturnType<typeof createWalksInHand>;

/** Whether all of them were told in the words of this one snapshot. */
const goesBy = (snapshot: string, entries: readonly Entry[]) =>
  entries.every((entry) => entry.snapshot === undefined || entry.snapshot === snapshot);

const isSame = (one: Stamps, other: Stamps) =>
  one.handover === other.handover && one.boat === other.boat && one.struck === other.struck && one.last === other.last;
