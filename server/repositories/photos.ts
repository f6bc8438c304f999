import { Op } from "sequelize";
import type { PhotoFact } from "../../core/record/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll } from "../database/rows.ts";
import type { Photo } from "../photos.ts";

/** Photos, kept in the store's one file so that a copy of it is a whole backup. Each is kept once under its id. */
export function createPhotos({ models }: Database) {
  const facts = ["id", "sha256", "width", "height"];
  return {
    async add(photo: Photo & { id: string; at: string; by: string }, transaction?: Transaction) {
      await models.photos.create(photo, transaction === undefined ? {} : { transaction });
    },
    async find(id: string, size: "small" | "large"): Promise<Buffer | null> {
      const row = await models.photos.findByPk(id, { attributes: [size] });
      return row === null ? null : (row.get(size) as Buffer);
    },
    async listFacts(ids: readonly string[], transaction?: Transaction): Promise<PhotoFact[]> {
      const rows = await readAll(
        models.photos,
        { where: { id: { [Op.in]: [...ids] } }, attributes: facts, order: ["id"] },
        transaction,
      );
      return rows.map(({ id, sha256, width, height }) => ({ id, sha256, width, height }));
    },
  };
}

export type Photos = ReturnType<typeof createPhotos>;
