import { AsyncLocalStorage } from "node:async_hooks";
import { existsSync, mkdirSync, renameSync, rmSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { QueryTypes, Sequelize, Transaction } from "sequelize";
import sqlite3 from "sqlite3";
import { explainUnopened } from "../dataFolder.ts";
import { Failure } from "../failure.ts";
import { StartRefused } from "../startRefused.ts";
import { migrate } from "./migrate.ts";
import { defineModels, type Models } from "./models.ts";
import { findFaultOf, type StoreFault, watchFile } from "./standing.ts";

export type { Transaction } from "sequelize";

export interface Database {
  readonly models: Models;
  readonly migrationsRun: number;
  /**
   * Runs writes that belong together; one at a time, all or nothing, on disk when the promise resolves. Failure:
   * `store-stuck`, where the disk takes nothing; nothing of it is stored then, and the next one is tried as ever.
   */
  inTransaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  isOpen(): Promise<boolean>;
  /** Why nothing can be stored just now; after a write that failed, found by trying once more. */
  findFault(): Promise<StoreFault | null>;
  /** How much room there is on the store's disk; null where its folder is gone. */
  measureDisk(): { readonly freeBytes: number; readonly totalBytes: number } | null;
  close(): Promise<void>;
}

/** How a store is opened. */
export interface OpenOptions {
  /**
   * Whether what is stored must outlast a power cut, as in every store that people use. One that is only being made, or is
   * thrown away after a test, need not wait for the disk at each write.
   */
  readonly mustLast?: boolean;
}

const writePragmas = (mustLast: boolean) =>
  `PRAGMA journal_mode=WAL; PRAGMA synchronous=${mustLast ? "FULL" : "OFF"}; PRAGMA foreign_keys=ON; PRAGMA busy_timeout=5000;`;

type Opened = (error: Error | null) => void;

/**
 * Sequelize opens a connection for each transaction and closes it after, which costs more than the write itself. Here a
 * closed one waits, open, for the next transaction; `closeSpares` closes those that wait. Each has the same settings.
 */
function createConnections(pragmas: string) {
  const spares: sqlite3.Database[] = [];
  let isEnding = false;
  class Connection extends sqlite3.Database {
    private isClosed = false;
    constructor(file: string, mode: number, opened: Opened) {
      super(file, mode, (error) => {
        if (error) opened(error);
        else this.exec(pragmas, opened);
      });
    }
    override close(closed?: Opened): void {
      // Sequelize closes once more what it knows of when it is closed itself.
      if (this.isClosed) closed?.(null);
      else if (isEnding) {
        this.isClosed = true;
        super.close(closed);
      } else {
        spares.push(this);
        closed?.(null);
      }
    }
  }
  const closeOne = (spare: sqlite3.Database) => new Promise<void>((resolve) => spare.close(() => resolve()));
  /** Called with `new`, as a class would be: a constructor that gives a waiting one where there is one. */
  function Database(file: string, mode: number, opened: Opened) {
    const spare = spares.pop();
    if (spare === undefined) return new Connection(file, mode, opened);
    setImmediate(opened, null);
    return spare;
  }
  return {
    Database,
    /** After a write that failed: a connection that may still be in the middle of it is not used again. */
    async dropSpares() {
      const wasEnding = isEnding;
      isEnding = true;
      const closed = spares.splice(0).map(closeOne);
      isEnding = wasEnding;
      await Promise.all(closed);
    },
    closeSpares() {
      isEnding = true;
      return Promise.all(spares.map(closeOne));
    },
  };
}

type Write = (...given: unknown[]) => Promise<unknown>;
/** The writes of a model, and which of their arguments names the transaction. */
const writes = { create: 1, bulkCreate: 1, update: 1, upsert: 1, destroy: 0 } as const;

/**
 * A single write that names no transaction waits its turn like all others. Beside the queue it would wait for SQLite's lock,
 * which goes to whoever asks at the right moment: while jobs are done one after the other, that may be nobody for seconds.
 */
function queueWrites(model: Models[keyof Models], inTransaction: Database["inTransaction"]) {
  const methods = model as unknown as Record<string, Write>;
  for (const [name, at] of Object.entries(writes)) {
    const write = methods[name]!.bind(model);
    methods[name] = (...given) => {
      const options = (given[at] ?? {}) as { transaction?: Transaction };
      if (options.transaction !== undefined) return write(...given);
      return inTransaction((transaction) => write(...given.slice(0, at), { ...options, transaction }));
    };
  }
}

function connect(storage: string, mustLast: boolean) {
  const { Database, closeSpares, dropSpares } = createConnections(writePragmas(mustLast));
  const sequelize = new Sequelize({
    dialect: "sqlite",
    dialectModule: { ...sqlite3, Database },
    storage,
    logging: false,
    retry: { max: 0 },
  });
  const close = async () => {
    await closeSpares();
    await sequelize.close();
  };
  return { sequelize, close, dropSpares };
}

/** A new store is made under another name and gets its own when it is whole: a kill meanwhile leaves none behind. */
async function makeNew(file: string, mustLast: boolean) {
  const part = `${file}.part`;
  for (const name of [part, `${part}-wal`, `${part}-shm`]) rmSync(name, { force: true });
  const { sequelize, close } = connect(part, mustLast);
  await migrate(sequelize, { file: part, isNew: true });
  await sequelize.query("PRAGMA wal_checkpoint(TRUNCATE)");
  await close();
  renameSync(part, file);
}

/** A file that is there and is no store of ours is never taken for a new one: it may be one that was damaged. */
async function checkIsStore(sequelize: Sequelize, file: string) {
  const wrong = `${file} is there and is no store of Ravik's: restore it from a copy, or move it away to begin a new one`;
  if (statSync(file).size === 0) throw new StartRefused(wrong);
  const rows = await sequelize
    .query("SELECT name FROM sqlite_master WHERE name IN ('migrations', 'deliveries')", { type: QueryTypes.SELECT })
    .catch((error: { parent?: Error }) => {
      if (error.parent !== undefined && findFaultOf(error) !== null) throw explainUnopened(error.parent, dirname(file));
      return [];
    });
  if (rows.length < 2) throw new StartRefused(wrong);
}

const probeLetters = 20_000;

/** A write that wants room and leaves nothing behind. */
async function writeAndTakeBack(sequelize: Sequelize, transaction: Transaction) {
  const name = "-".repeat(probeLetters);
  const options = { replacements: { name }, transaction };
  await sequelize.query("INSERT INTO migrations (name) VALUES (:name)", options);
  await sequelize.query("DELETE FROM migrations WHERE name = :name", options);
}

/** Opens (and makes or migrates) the store's database in `folder`. Throws, in words, for a file that is no store. */
export async function openDatabase(folder: string, { mustLast = true }: OpenOptions = {}): Promise<Database> {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, "ravik.sqlite");
  const isNew = !existsSync(file);
  if (isNew) await makeNew(file, mustLast);
  const { sequelize, close, dropSpares } = connect(file, mustLast);
  await checkIsStore(sequelize, file);
  const migrationsRun = await migrate(sequelize, { file, isNew });
  const models = defineModels(sequelize);
  let queue: Promise<unknown> = Promise.resolve();
  let isClosing = false;
  /** Whether what runs now runs within a transaction. */
  const inside = new AsyncLocalStorage<true>();
  const watched = watchFile(file);
  let fault: StoreFault | null = null;
  const run = async <T>(work: (transaction: Transaction) => Promise<T>): Promise<T> => {
    try {
      const done = await sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async (t) => {
        const value = await inside.run(true, () => work(t));
        if (!watched.isThere()) throw new Failure("store-stuck", { why: "gone" satisfies StoreFault });
        return value;
      });
      fault = null;
      return done;
    } catch (error) {
      const found = findFaultOf(error);
      if (found === null) throw error;
      fault = found;
      await dropSpares();
      throw new Failure("store-stuck", { why: found });
    }
  };
  const inTransaction: Database["inTransaction"] = (work) => {
    // It would wait for the very transaction it is asked in, for ever.
    if (inside.getStore() === true)
      return Promise.reject(new Error("inTransaction: a write within a transaction must be given that transaction"));
    if (isClosing) return Promise.reject(new Error("inTransaction: the database is being closed"));
    const turn = queue.then(() => run(work));
    queue = turn.catch(() => undefined);
    return turn;
  };
  for (const model of Object.values(models)) queueWrites(model, inTransaction);
  return {
    models,
    migrationsRun,
    inTransaction,
    async isOpen() {
      try {
        await sequelize.query("SELECT 1");
        return true;
      } catch {
        return false;
      }
    },
    async findFault() {
      const seen = watched.look();
      if (seen !== null || fault === null) return seen;
      await inTransaction((transaction) => writeAndTakeBack(sequelize, transaction)).catch(() => undefined);
      return fault;
    },
    measureDisk: watched.measure,
    async close() {
      isClosing = true;
      await queue;
      await close();
    },
  };
}
