import { createHash } from "node:crypto";
import { Op } from "sequelize";
import type { Instant } from "../../core/dates/index.ts";
import { writeJson } from "../../core/hash/index.ts";
import { firstLink, type SealedContent, type Strike, writeLink } from "../../core/record/index.ts";
import type { Entry } from "../../core/walk/index.ts";
import type { ChainRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readQuery } from "../database/rows.ts";
import type { StoreKey } from "../storeKey.ts";

export const hashText = (text: string) => createHash("sha256").update(text, "utf8").digest("hex");

/** Far enough to find one of ours among what was taken in. */
const lookBack = 200;

interface ChainOptions {
  /** Called once links are on disk. */
  readonly onAdded?: () => void;
  /** A demo tells its past story by story: each seal bears the time of its own. */
  readonly tellsPast?: boolean;
}

interface NewLink extends Pick<ChainRow, "deliveryId" | "kind" | "canonical" | "at"> {
  /** Of `canonical`, unless a store that sealed it elsewhere said so. */
  readonly sha256?: string;
  /** What its salted hashes are of. */
  readonly content?: SealedContent;
}

/** As it is kept: of entries only the salts; null where one was struck. */
interface PackedContent extends Omit<SealedContent, "entries"> {
  readonly salts: Readonly<Record<string, string | null>>;
}
const packContent = ({ entries, ...rest }: SealedContent): string => {
  const salts = Object.entries(entries).map(([id, part]) => [id, "salt" in part ? part.salt : null]);
  return JSON.stringify({ ...rest, salts: Object.fromEntries(salts) } satisfies PackedContent);
};
const unpackContent = (body: string, entries: readonly Entry[]): SealedContent => {
  const { salts, ...rest } = JSON.parse(body) as PackedContent;
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const parts = Object.entries(salts).map(([id, salt]): [string, SealedContent["entries"][string]] => {
    const value = byId.get(id);
    return [id, salt === null || value === undefined ? { struck: true } : { salt, value }];
  });
  return { ...rest, entries: Object.fromEntries(parts) };
};

/**
 * The store's seal chain: handovers sealed or taken in, and what was added to them. Only ever added to, each link signed.
 */
export function createChain(
  { models }: Database,
  storeKey: StoreKey,
  { onAdded = () => undefined, tellsPast = false }: ChainOptions = {},
) {
  const sealed = { kind: { [Op.in]: ["handover", "import"] } };
  const put = async (fresh: NewLink, last: Pick<ChainRow, "link"> | undefined, transaction: Transaction) => {
    const { content, ...rest } = fresh;
    const sha256 = fresh.sha256 ?? hashText(fresh.canonical);
    const previous = last?.link ?? firstLink;
    const link = hashText(writeLink(previous, sha256));
    const row = { ...rest, sha256, previous, link, key: storeKey.publicKey, signature: storeKey.sign(link) };
    const made = await models.chain.create(row as ChainRow, { transaction });
    transaction.afterCommit(onAdded);
    const number = made.get("number") as number;
    if (content !== undefined)
      await models.contents.create(
        { number, deliveryId: fresh.deliveryId, body: packContent(content) },
        { transaction },
      );
    return { ...row, number };
  };
  const findLast = async (transaction: Transaction) => {
    const attributes = ["link", "number", "key", "deliveryId"];
    const last = { order: [["number", "DESC"]] as [string, string][], limit: 1, attributes };
    return (await readAll(models.chain, last, transaction))[0];
  };
  /** The last link, after one that says the store's key has changed where it has; its signature covers all that came before. */
  const announce = async (last: ChainRow, at: Instant, transaction: Transaction) => {
    if (last.key === storeKey.publicKey) return last;
    const change = { format: "ravik.key/1", key: storeKey.publicKey, before: last.key, head: last.link, at };
    return put({ deliveryId: last.deliveryId, kind: "key", canonical: writeJson(change), at }, last, transaction);
  };
  return {
    /** The sealed record of a delivery; null while it is open. */
    async findSeal(deliveryId: string, transaction?: Transaction): Promise<ChainRow | null> {
      const [row] = await readAll(models.chain, { where: { deliveryId, ...sealed }, limit: 1 }, transaction);
      return row ?? null;
    },
    /** A sealed record by its seal, whichever delivery it is of. */
    async findBySha(sha256: string): Promise<ChainRow | null> {
      const [row] = await readAll(models.chain, { where: { sha256, ...sealed }, limit: 1 });
      return row ?? null;
    },
    /** What was added to a delivery after its seal, the first first. */
    listAmendments: (deliveryId: string, transaction?: Transaction) =>
      readAll(models.chain, { where: { deliveryId, kind: "amendment" }, order: ["number"] }, transaction),
    listAll: () => readAll(models.chain, { order: ["number"] }),
    /** The links from this number on. */
    listFrom: (number: number): Promise<Pick<ChainRow, "number" | "link">[]> =>
      readAll(models.chain, {
        where: { number: { [Op.gte]: number } },
        order: ["number"],
        attributes: ["number", "link"],
      }),
    /** The keys that this store's chain was signed with, of all times. */
    async listKeys(): Promise<string[]> {
      const sql = "SELECT DISTINCT key FROM chain WHERE key IS NOT NULL";
      return (await readQuery<{ key: string }>(models.chain, sql)).map(({ key }) => key);
    },
    /**
     * When what is sealed now is sealed: never before what this store sealed last, wherever its clock has been set back to. What
     * others sealed bears their times.
     */
    async findNext(now: Instant, transaction: Transaction): Promise<Instant> {
      if (tellsPast) return now;
      const sql = `SELECT MAX(at) AS at FROM (SELECT at, kind, deliveryId FROM chain ORDER BY number DESC LIMIT ${lookBack}) AS last
        WHERE kind <> 'import' AND NOT EXISTS (SELECT 1 FROM imports WHERE imports.deliveryId = last.deliveryId)`;
      const [row] = await readQuery<{ at: Instant | null }>(models.chain, sql, [], transaction);
      return row?.at != null && row.at > now ? row.at : now;
    },
    /** The last link there is. */
    async findHead(): Promise<ChainRow | null> {
      const [last] = await readAll(models.chain, { order: [["number", "DESC"]], limit: 1 });
      return last ?? null;
    },
    /** What the salted hashes of a link are of; the entries themselves stand in their own table. */
    async findContent(number: number, entries: readonly Entry[], transaction?: Transaction): Promise<SealedContent> {
      const [row] = await readAll(models.contents, { where: { number }, limit: 1 }, transaction);
      return row === undefined ? { people: {}, entries: {}, photos: {} } : unpackContent(row.body, entries);
    },
    /** Takes out of what its hashes are of what is named here; the hashes stay. The guards let through only what was permitted. */
    async strike(deliveryId: string, parts: readonly Strike[], transaction: Transaction) {
      for (const { number, body } of await readAll(models.contents, { where: { deliveryId } }, transaction)) {
        const packed = JSON.parse(body) as { people: object; photos: object; salts: object };
        for (const { part, id } of parts) {
          const table = part === "entry" ? packed.salts : part === "person" ? packed.people : packed.photos;
          if (id in table) Object.assign(table, { [id]: part === "entry" ? null : { struck: true } });
        }
        await models.contents.update({ body: JSON.stringify(packed) }, { where: { number }, transaction });
      }
    },
    /** Puts the text of a record of the first format in place of what it was; hash, link and signature stay as they were. */
    async rewrite(number: number, canonical: string, transaction: Transaction) {
      await models.chain.update({ canonical }, { where: { number }, transaction });
    },
    /**
     * Puts a link at the end. Within a transaction of its own store, so that no two are put there at once. Where the store's
     * key is not the one of the link before, a link that says so comes first.
     */
    async add(fresh: NewLink, transaction: Transaction): Promise<ChainRow> {
      const last = await findLast(transaction);
      return put(fresh, last === undefined ? undefined : await announce(last, fresh.at, transaction), transaction);
    },
    /** Says at once that the store's key is another than that of the last link, where it is. */
    async announceKey(at: Instant, transaction: Transaction): Promise<void> {
      const last = await findLast(transaction);
      if (last !== undefined) await announce(last, at, transaction);
    },
  };
}

export type Chain = ReturnType<typeof createChain>;
