import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { Sequelize, Transaction } from "sequelize";
import sqlite3 from "sqlite3";
import { migrate } from "./migrate.ts";
import { defineModels, type Models } from "./models.ts";

export type { Transaction } from "sequelize";

export interface Database {
  readonly models: Models;
  readonly migrationsRun: number;
  /** Runs writes that belong together; one at a time, all or nothing, on disk when the promise resolves. */
  inTransaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  isOpen(): Promise<boolean>;
  close(): Promise<void>;
}

const pragmas = "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON; PRAGMA busy_timeout=5000;";

/** Sequelize opens a connection a transaction; each must have the same settings, so they are set where one is opened. */
class DurableDatabase extends sqlite3.Database {
  constructor(file: string, mode: number, opened: (error: Error | null) => void) {
    super(file, mode, (error) => {
      if (error) opened(error);
      else this.exec(pragmas, opened);
    });
  }
}

/** Opens (and makes or migrates) the store's database in `folder`. */
export async function openDatabase(folder: string): Promise<Database> {
  mkdirSync(folder, { recursive: true });
  const sequelize = new Sequelize({
    dialect: "sqlite",
    dialectModule: { ...sqlite3, Database: DurableDatabase },
    storage: join(folder, "ravik.sqlite"),
    logging: false,
    retry: { max: 0 },
  });
  const migrationsRun = await migrate(sequelize);
  const models = defineModels(sequelize);
  let queue: Promise<unknown> = Promise.resolve();
  return {
    models,
    migrationsRun,
    inTransaction(work) {
      const turn = queue.then(() => sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, work));
      queue = turn.catch(() => undefined);
      return turn;
    },
    async isOpen() {
      try {
        await sequelize.query("SELECT 1");
        return true;
      } catch {
        return false;
      }
    },
    async close() {
      await queue;
      await sequelize.close();
    },
  };
}
