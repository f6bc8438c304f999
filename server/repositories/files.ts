import type { FileRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";

/** Files that show what was done, each kept once under its id, in the store's one file. */
export function createFiles({ models }: Database) {
  return {
    async add(file: FileRow, transaction: Transaction) {
      await models.files.create(file, { transaction });
    },
    async find(id: string): Promise<Pick<FileRow, "type" | "bytes"> | null> {
      const row = await models.files.findByPk(id, { attributes: ["type", "bytes"] });
      return row === null ? null : { type: row.get("type") as FileRow["type"], bytes: row.get("bytes") as Buffer };
    },
    async has(id: string, transaction?: Transaction): Promise<boolean> {
      const count = await models.files.count({
        where: { id },
        ...(transaction === undefined ? {} : { transaction }),
      });
      return count > 0;
    },
  };
}

export type Files = ReturnType<typeof createFiles>;
