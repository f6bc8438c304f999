import type { Database } from "../database/open.ts";
import type { Photo } from "../photos.ts";

/** Photos, kept in the store's one file so that a copy of it is a whole backup. */
export function createPhotos({ models }: Database) {
  return {
    async add(photo: Photo & { id: string; at: string; by: string }) {
      await models.photos.create(photo);
    },
    async find(id: string, size: "small" | "large"): Promise<Buffer | null> {
      const row = await models.photos.findByPk(id, { attributes: [size] });
      return row === null ? null : (row.get(size) as Buffer);
    },
  };
}

export type Photos = ReturnType<typeof createPhotos>;
