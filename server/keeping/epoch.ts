import sqlite3 from "sqlite3";
import { ulid } from "ulid";
import { z } from "zod";
import { firstEpoch } from "../../api/epoch.ts";
import { type Instant, instantSchema } from "../../core/dates/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readOne } from "../database/rows.ts";

/** The row of `settings` it stands in. */
const key = "epoch";

const epochSchema = z.strictObject({
  id: z.string(),
  /** When the store was put back, and when what it was put back from was made. */
  at: instantSchema,
  of: instantSchema,
  /** Put back from a backup, unless it was found to hold less than it had acknowledged. */
  why: z.enum(["restored", "behind"]).optional(),
  /** Who let jobs and messages go on, and when; null while they wait. */
  released: z.strictObject({ at: instantSchema, by: z.string() }).nullable(),
});
export type Epoch = z.infer<typeof epochSchema>;

/**
 * From here on the database in `file`, which nobody has open, is of another epoch: what was entered since `of` is missing in
 * it, and devices that hold some of it send it again when they see the new id.
 */
export function beginEpoch(file: string, { at, of }: Pick<Epoch, "at" | "of">): Promise<void> {
  const epoch: Epoch = { id: ulid(Date.parse(at)), at, of, released: null };
  const sql = "INSERT INTO settings (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value";
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, sqlite3.OPEN_READWRITE, (error) => {
      if (error) return reject(error);
      database.run(sql, [key, JSON.stringify(epoch)], (failed) =>
        database.close((closing) => (failed || closing ? reject(failed ?? closing) : resolve())),
      );
    });
  });
}

/** Which epoch the store is in, and whether what it does by itself waits for its owner. */
export function createEpochs({ models }: Database) {
  const find = async (transaction?: Transaction): Promise<Epoch | null> => {
    const row = await readOne(models.settings, key, transaction);
    return row === null ? null : epochSchema.parse(JSON.parse(row.value));
  };
  return {
    find,
    findId: async (transaction?: Transaction): Promise<string> => (await find(transaction))?.id ?? firstEpoch,
    /** Begins another epoch in a store that is open. */
    async begin({ at, of, why }: Required<Pick<Epoch, "at" | "of" | "why">>, transaction: Transaction): Promise<void> {
      const epoch: Epoch = { id: ulid(Date.parse(at)), at, of, why, released: null };
      await models.settings.upsert({ key, value: JSON.stringify(epoch) }, { transaction });
    },
    /** The store was put back, and nobody has let it go on yet. */
    async isHeld(transaction?: Transaction): Promise<boolean> {
      const epoch = await find(transaction);
      return epoch !== null && epoch.released === null;
    },
    async release(by: string, at: Instant, transaction: Transaction): Promise<void> {
      const epoch = await find(transaction);
      if (epoch === null || epoch.released !== null) return;
      const value = JSON.stringify({ ...epoch, released: { at, by } } satisfies Epoch);
      await models.settings.update({ value }, { where: { key }, transaction });
    },
  };
}

export type Epochs = ReturnType<typeof createEpochs>;
