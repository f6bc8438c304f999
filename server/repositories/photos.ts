import { Op } from "sequelize";
import type { Instant } from "../../core/dates/index.ts";
import type { SealedPhoto } from "../../core/record/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll } from "../database/rows.ts";
import type { Photo } from "../photos.ts";

/** Photos, kept in the store's one file so that a copy of it is a whole backup. Each is kept once under its id. */
export function createPhotos({ models }: Database) {
  const facts = ["id", "sha256", "sent", "width", "height"];
  return {
    /** `original`: of a photo that came sealed, its bytes as they came; then `sha256` is of those. */
    async add(
      photo: Photo & { id: string; at: Instant; by: string; sent: string | null; original?: Buffer },
      transaction?: Transaction,
    ) {
      await models.photos.create(
        { ...photo, original: photo.original ?? null },
        transaction === undefined ? {} : { transaction },
      );
    },
    /** The bytes whose hash is sealed. */
    async findSealed(id: string): Promise<Buffer | null> {
      const row = await models.photos.findByPk(id, { attributes: ["original", "large"] });
      const bytes = row === null ? null : ((row.get("original") ?? row.get("large")) as Buffer);
      return bytes === null || bytes.length === 0 ? null : bytes;
    },
    async find(id: string, size: "small" | "large"): Promise<Buffer | null> {
      const row = await models.photos.findByPk(id, { attributes: [size] });
      const bytes = row === null ? null : (row.get(size) as Buffer);
      // One that was struck is as if it had never come.
      return bytes === null || bytes.length === 0 ? null : bytes;
    },
    /** Its picture is gone; that there was one stays. */
    async strike(id: string, transaction: Transaction) {
      const nothing = Buffer.alloc(0);
      await models.photos.update({ large: nothing, small: nothing, original: null }, { where: { id }, transaction });
    },
    /** Of these those that are here no more and never will be: struck, or given up after a restore. */
    async listGone(ids: readonly string[], transaction?: Transaction): Promise<string[]> {
      const where = { part: "photo", id: { [Op.in]: [...ids] } };
      return (await readAll(models.strikes, { where }, transaction)).map(({ id }) => id);
    },
    /** A photo that a handover names and that no device has any more: it is waited for no longer. */
    async giveUp(id: string, deliveryId: string, at: Instant, transaction: Transaction) {
      await models.strikes.upsert({ part: "photo", id, deliveryId, at }, { transaction });
    },
    async listFacts(ids: readonly string[], transaction?: Transaction): Promise<SealedPhoto[]> {
      const rows = await readAll(
        models.photos,
        { where: { id: { [Op.in]: [...ids] } }, attributes: facts, order: ["id"] },
        transaction,
      );
      return rows.map(({ id, sha256, sent, width, height }) => ({ id, sha256, sent, width, height }));
    },
  };
}

export type Photos = ReturnType<typeof createPhotos>;
