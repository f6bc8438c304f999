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
  /**
   * As `inTransaction`, in one with all others that wait by then: what forty tablets mark at once goes to the disk once. Where one of them
   * throws none of it is stored, and each is done again by itself, so that only what cannot be is refused: `work` must bear
   * being done twice.
   */
  inSharedTransaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  /** How many transactions have reached the disk since it was opened: what was read since the last one is as it is there. */
  countCommits(): number;
  isOpen(): Promise<boolean>;
  /** Why nothing can be stored just now; after a write that failed, found by trying once more. */
  findFault(): Promise<StoreFault | null>;
  /** How much room there is on the store's disk; null where its folder is gone. */
  measureDisk(): { readonly freeBytes: number; readonly totalBytes: number } | null;
  close(): Promise<void>;
}

/** Somebody's part of a transaction that several share. */
interface Waiting {
  readonly work: (transaction: Transaction) => Promise<unknown>;
  readonly resolve: (done: unknown) => void;
  readonly reject: (error: unknown) => void;
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
type ReadColumns = (this: unknown, error: Error | null, rows: unknown[]) => void;

const columnsAsked = /^PRAGMA table_info\(`(.*)`\)$/;
/** What waits longer in one transaction than this many would hold up who came last more than the disk does. */
const mostShared = 60;

/**
 * Sequelize opens a connection for each transaction and closes it after, which costs more than the write itself. Here a
 * closed one waits, open, for the next transaction; `closeSpares` closes those that wait. Each has the same settings.
 */
function createConnections(pragmas: string) {
  const spares: sqlite3.Database[] = [];
  /** Sequelize asks for a table's columns before each read: once the schema stands they are answered from here. */
  const columns = new Map<string, unknown[]>();
  let isEnding = false;
  class Connection extends sqlite3.Database {
    private isClosed = false;
    constructor(file: string, mode: number, opened: Opened) {
      super(file, mode, (error) => {
        if (error) opened(error);
        else this.exec(pragmas, opened);
      });
    }
    override all(...asked: unknown[]): this {
      const [sql, done] = asked as [string, ReadColumns];
      const table = columnsAsked.exec(sql)?.[1];
      const ask = super.all as (...all: unknown[]) => this;
      if (table === undefined) return ask.apply(this, asked);
      const known = columns.get(table);
      if (known !== undefined) {
        done.call(this, null, known);
        return this;
      }
      return ask.call(this, sql, (error: Error | null, rows: unknown[]) => {
        if (error === null) columns.set(table, rows);
        done.call(this, error, rows);
      });
    }
    override run(...asked: unknown[]): this {
      // Each connection has its settings from its opening on; Sequelize says this one again before each transaction.
      if (asked[0] === "PRAGMA FOREIGN_KEYS=ON" && asked.length === 1) return this;
      return (super.run as (...all: unknown[]) => this).apply(this, asked);
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
    /** The schema has changed. */
    forgetColumns: () => columns.clear(),
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
  const { Database, closeSpares, dropSpares, forgetColumns } = createConnections(writePragmas(mustLast));
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
  return { sequelize, close, dropSpares, forgetColumns };
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
  const { sequelize, close, dropSpares, forgetColumns } = connect(file, mustLast);
  await checkIsStore(sequelize, file);
  const migrationsRun = await migrate(sequelize, { file, isNew });
  forgetColumns();
  const models = defineModels(sequelize);
  let queue: Promise<unknown> = Promise.resolve();
  let isClosing = false;
  let commits = 0;
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
      commits++;
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
    return takeTurn(() => run(work));
  };
  const takeTurn = <T>(go: () => Promise<T>): Promise<T> => {
    const turn = queue.then(go);
    queue = turn.catch(() => undefined);
    return turn;
  };
  const waiting: Waiting[] = [];
  const runShared = async () => {
    const batch = waiting.splice(0, mostShared);
    if (waiting.length > 0) void takeTurn(runShared);
    const doEach = async (transaction: Transaction) => {
      const done: unknown[] = [];
      for (const { work } of batch) done.push(await work(transaction));
      return done;
    };
    try {
      const done = await run(doEach);
      for (const [i, { resolve }] of batch.entries()) resolve(done[i]);
    } catch (error) {
      if (batch.length === 1) return batch[0]!.reject(error);
      for (const { work, resolve, reject } of batch) await run(work).then(resolve, reject);
    }
  };
  const inSharedTransaction: Database["inSharedTransaction"] = <T>(work: (transaction: Transaction) => Promise<T>) => {
    if (inside.getStore() === true)
      return Promise.reject(
        new Error("inSharedTransaction: a write within a transaction must be given that transaction"),
      );
    if (isClosing) return Promise.reject(new Error("inSharedTransaction: the database is being closed"));
    return new Promise<T>((resolve, reject) => {
      waiting.push({ work, resolve: resolve as Waiting["resolve"], reject });
      // The first to wait asks for a turn, the others come along.
      if (waiting.length === 1) void takeTurn(runShared);
    });
  };
  for (const model of Object.values(models)) queueWrites(model, inTransaction);
  return {
    models,
    migrationsRun,
    inTransaction,
    inSharedTransaction,
    countCommits: () => commits,
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
