import { gunzipSync, gzipSync } from "node:zlib";
import { LRUCache } from "lru-cache";
import { Op } from "sequelize";
import type { Instant } from "../../core/dates/index.ts";
import { type Snapshot, snapshotSchema } from "../../core/record/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne, readQuery } from "../database/rows.ts";

const mostRemembered = 60;
const mostNoted = 5000;

/** What walks go by, known by hash. A snapshot never changes under its name, so that what was read may be remembered. */
export function createSnapshots({ models }: Database) {
  const remembered = new Map<string, Snapshot>();
  /** What does not change any more and every mark asks: that a snapshot is in use, that a handover was given it. */
  const used = new LRUCache<string, true>({ max: mostNoted });
  const given = new LRUCache<string, true>({ max: mostNoted });
  const nameGiven = (sha256: string, deliveryId: string) => `${deliveryId} ${sha256}`;
  const remember = (sha256: string, snapshot: Snapshot) => {
    remembered.delete(sha256);
    remembered.set(sha256, snapshot);
    if (remembered.size > mostRemembered) remembered.delete(remembered.keys().next().value!);
    return snapshot;
  };
  return {
    async find(sha256: string, transaction?: Transaction): Promise<Snapshot | null> {
      const known = remembered.get(sha256);
      if (known !== undefined) return remember(sha256, known);
      const row = await readOne(models.snapshots, sha256, transaction);
      if (row === null) return null;
      return remember(sha256, snapshotSchema.parse(JSON.parse(gunzipSync(row.body).toString("utf8"))));
    },
    /** Those of these hashes that are here. */
    async findMany(hashes: Iterable<string>, transaction?: Transaction): Promise<Map<string, Snapshot>> {
      const found = new Map<string, Snapshot>();
      for (const sha256 of new Set(hashes)) {
        const snapshot = await this.find(sha256, transaction);
        if (snapshot !== null) found.set(sha256, snapshot);
      }
      return found;
    },
    async has(sha256: string): Promise<boolean> {
      return remembered.has(sha256) || (await models.snapshots.count({ where: { sha256 } })) > 0;
    },
    /** Keeps a snapshot by its hash, once. */
    async add(sha256: string, deliveryId: string, text: string, at: Instant, transaction: Transaction): Promise<void> {
      if ((await readOne(models.snapshots, sha256, transaction)) !== null) return;
      const body = gzipSync(text);
      await models.snapshots.create({ sha256, deliveryId, body, at, isUsed: 0 }, { transaction });
      transaction.afterCommit(() => {
        remember(sha256, JSON.parse(text));
      });
    },
    /** Notes that a handover was given this snapshot: from then on its entries may name it. */
    async noteHandout(sha256: string, deliveryId: string, at: Instant, transaction: Transaction): Promise<void> {
      await models.handouts.bulkCreate([{ deliveryId, sha256, at }], { ignoreDuplicates: true, transaction });
    },
    async isHandedOut(sha256: string, deliveryId: string): Promise<boolean> {
      return (await models.handouts.count({ where: { sha256, deliveryId } })) > 0;
    },
    /**
     * Of these snapshots those that are here and that this handover was never given: what its entries may not name. One that was
     * handed out before that was noted may be any handover's of its hull.
     */
    async listForeign(
      hashes: Iterable<string>,
      { deliveryId, hull }: { readonly deliveryId: string; readonly hull: string },
      transaction?: Transaction,
    ): Promise<Set<string>> {
      const named = [...new Set(hashes)].filter((sha256) => !given.has(nameGiven(sha256, deliveryId)));
      if (named.length === 0) return new Set();
      const where = { sha256: { [Op.in]: named }, deliveryId: { [Op.in]: ["", deliveryId] } };
      const rows = await readAll(models.handouts, { where }, transaction);
      const mine = new Set(rows.flatMap((row) => (row.deliveryId === deliveryId ? [row.sha256] : [])));
      const ofBefore = new Set(rows.flatMap((row) => (row.deliveryId === "" ? [row.sha256] : [])));
      const here = await this.findMany(
        named.filter((sha256) => !mine.has(sha256)),
        transaction,
      );
      const keep = () => {
        for (const sha256 of mine) given.set(nameGiven(sha256, deliveryId), true);
      };
      if (transaction === undefined) keep();
      else transaction.afterCommit(keep);
      return new Set(
        [...here].flatMap(([sha256, snapshot]) => (ofBefore.has(sha256) && snapshot.hull === hull ? [] : [sha256])),
      );
    },
    async markUsed(hashes: readonly string[], transaction: Transaction) {
      const fresh = [...new Set(hashes)].filter((sha256) => !used.has(sha256));
      if (fresh.length === 0) return;
      await models.snapshots.update({ isUsed: 1 }, { where: { sha256: { [Op.in]: fresh }, isUsed: 0 }, transaction });
      transaction.afterCommit(() => {
        for (const sha256 of fresh) used.set(sha256, true);
      });
    },
    /** Those that no entry ever named and that are older than an instant go; answers how many. */
    async removeUnused(before: string): Promise<number> {
      const gone = await readQuery<{ sha256: string }>(
        models.snapshots,
        "SELECT sha256 FROM snapshots WHERE isUsed = 0 AND at < ?",
        [before],
      );
      for (const { sha256 } of gone) {
        remembered.delete(sha256);
        used.delete(sha256);
        for (const key of given.keys()) if (key.endsWith(` ${sha256}`)) given.delete(key);
        await models.snapshots.destroy({ where: { sha256, isUsed: 0 } });
        await models.handouts.destroy({ where: { sha256 } });
      }
      return gone.length;
    },
  };
}

export type Snapshots = ReturnType<typeof createSnapshots>;
