import { createHash, randomBytes } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Model, ModelStatic } from "sequelize";
import { z } from "zod";
import { type Instant, instantSchema } from "../../core/dates/index.ts";
import type { Models } from "../database/models.ts";
import { type Database, openDatabase, type Transaction } from "../database/open.ts";
import { readQuery } from "../database/rows.ts";
import { usualCost } from "../signIn/passwords.ts";
import { copyDatabase } from "./copyDatabase.ts";

/**
 * A whole store as one open file, `ravik.store/1`: lines of JSON (UTF-8, each ended by LF). The first is the head, then one
 * for each row, table after table, and the last says how many there were and the SHA-256 of all lines before it. Columns that
 * hold JSON stand as JSON, bytes as `{"base64": "…"}`. What opens a door is left out: passwords, second steps, sessions,
 * invitations, shared tablets, and the store's key, which is no part of the database.
 */
export const storeFormat = "ravik.store/1";

const left: ReadonlySet<string> = new Set(["sessions", "invites", "devices"]);
/** Of a person: what opens a door. They are told to choose a new password. */
const secrets = ["salt", "hash", "cost", "second", "secondStep", "recovery"] as const;
/** Those that go with it, by the name they have in the database. */
const tables = (models: Models): [string, ModelStatic<Model>][] =>
  Object.values<ModelStatic<Model>>(models as never)
    .map((model): [string, ModelStatic<Model>] => [String(model.getTableName()), model])
    .filter(([name]) => !left.has(name));
const rowsAtOnce = 200;

type Cell = string | number | null | Buffer;
type Row = Record<string, Cell>;

const headSchema = z.strictObject({
  format: z.literal(storeFormat),
  store: z.string(),
  at: instantSchema,
  migrations: z.int(),
});
const rowSchema = z.strictObject({ table: z.string(), row: z.record(z.string(), z.unknown()) });
const endSchema = z.strictObject({ rows: z.int(), sha256: z.string() });

/** JSON where it comes back letter for letter, else the text as it is: what is sealed is not rewritten. */
function openText(text: string): unknown {
  if (!/^[[{]/.test(text)) return text;
  try {
    const value: unknown = JSON.parse(text);
    return JSON.stringify(value) === text ? value : text;
  } catch {
    return text;
  }
}
const writeCell = (cell: Cell): unknown =>
  Buffer.isBuffer(cell) ? { base64: cell.toString("base64") } : typeof cell === "string" ? openText(cell) : cell;

/** Bytes are known from JSON by their column's kind, so that JSON that says "base64" stays JSON. */
function readCell(value: unknown, isBytes: boolean): Cell {
  if (isBytes && value !== null) return Buffer.from((value as { base64: string }).base64, "base64");
  return typeof value === "object" && value !== null ? JSON.stringify(value) : (value as Cell);
}

/** Every line of the store as it stands now; read from a copy, so that nobody waits and nothing changes on the way. */
export async function* writeStore(database: Database, facts: { store: string; at: Instant }): AsyncGenerator<string> {
  const [main] = await readQuery<{ file: string }>(database.models.boats, "SELECT file FROM pragma_database_list");
  const folder = mkdtempSync(join(tmpdir(), "ravik-everything-"));
  try {
    await copyDatabase(main!.file, join(folder, "ravik.sqlite"));
    const copy = await openDatabase(folder);
    try {
      yield* writeLines(copy, facts);
    } finally {
      await copy.close();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function* writeLines(copy: Database, facts: { store: string; at: Instant }): AsyncGenerator<string> {
  const hash = createHash("sha256");
  const line = (value: object) => {
    const text = `${JSON.stringify(value)}\n`;
    hash.update(text);
    return text;
  };
  yield line({ format: storeFormat, ...facts, migrations: copy.migrationsRun });
  let rows = 0;
  for (const [table, model] of tables(copy.models)) {
    let after = 0;
    for (;;) {
      const found = await readQuery<Row & { rowid: number }>(
        model,
        `SELECT rowid AS "rowid", * FROM "${table}" WHERE rowid > ? ORDER BY rowid LIMIT ${rowsAtOnce}`,
        [after],
      );
      if (found.length === 0) break;
      for (const { rowid, ...row } of found) {
        after = rowid;
        rows += 1;
        const cells = Object.entries(row).filter(([column]) => table !== "users" || !secrets.includes(column as never));
        yield line({ table, row: Object.fromEntries(cells.map(([column, cell]) => [column, writeCell(cell)])) });
      }
    }
  }
  yield `${JSON.stringify({ rows, sha256: hash.digest("hex") })}\n`;
}

/** The lines of a stream of UTF-8. Unlike readline's, none is lost where nobody reads for a while. */
export async function* splitLines(bytes: AsyncIterable<Buffer>): AsyncGenerator<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let open: string[] = [];
  const decode = (chunk?: Buffer) => {
    try {
      return chunk === undefined ? decoder.decode() : decoder.decode(chunk, { stream: true });
    } catch {
      throw new StoreFileRefused("it is not UTF-8 text");
    }
  };
  for await (const chunk of bytes) {
    const [first, ...rest] = decode(chunk).split("\n");
    open.push(first!);
    for (const next of rest) {
      yield open.join("");
      open = [next];
    }
  }
  yield open.join("") + decode();
}

/** A file that is no store, or not a whole one; nothing of it is kept. */
export class StoreFileRefused extends Error {}

/**
 * Puts a store file into an empty database: all of it or nothing. Answers how many rows there were and when it was written. Throws
 * `StoreFileRefused`, in words, for what is no store file, was cut off or changed, or was written by a newer program.
 */
export async function readStore(
  database: Database,
  lines: AsyncIterable<string>,
): Promise<{ rows: number; at: Instant }> {
  const { models } = database;
  const [known] = await readQuery<{ n: number }>(models.users, "SELECT COUNT(*) AS n FROM users");
  if (known!.n > 0) throw new StoreFileRefused("there is a store here already: a store file goes into an empty folder");
  return database.inTransaction(async (transaction) => {
    await models.users.sequelize!.query("PRAGMA defer_foreign_keys=ON", { transaction });
    const taken = await takeLines(models, lines, transaction);
    const broken = await readQuery(models.users, "SELECT * FROM pragma_foreign_key_check", [], transaction);
    if (broken.length > 0) throw new StoreFileRefused("rows in it name others that are not in it");
    return taken;
  });
}

async function takeLines(models: Models, lines: AsyncIterable<string>, transaction: Transaction) {
  const hash = createHash("sha256");
  const byName = new Map(tables(models));
  let end: z.infer<typeof endSchema> | null = null;
  let rows = 0;
  let at: Instant | null = null;
  let waiting: { table: string; rows: Row[] } | null = null;
  const flush = async () => {
    if (waiting !== null)
      await byName.get(waiting.table)!.bulkCreate(waiting.rows as never[], { transaction, validate: false });
    waiting = null;
  };
  for await (const text of lines) {
    if (text === "") continue;
    if (end !== null) throw new StoreFileRefused("there is more after its end");
    const value = parseLine(text, rows);
    const ended = endSchema.safeParse(value);
    if (ended.success) {
      end = ended.data;
      continue;
    }
    hash.update(`${text}\n`);
    if (at === null) {
      at = await checkHead(value, models, transaction);
      continue;
    }
    const { table, row } = parseRow(value, byName, rows);
    rows += 1;
    if (waiting !== null && (waiting.table !== table || waiting.rows.length >= rowsAtOnce)) await flush();
    waiting ??= { table, rows: [] };
    waiting.rows.push(row);
  }
  await flush();
  if (end === null || at === null) throw new StoreFileRefused("it was cut off: its last line is missing");
  if (end.rows !== rows || end.sha256 !== hash.digest("hex"))
    throw new StoreFileRefused("it is not what was written: its last line speaks of other rows");
  return { rows, at };
}

function parseLine(text: string, rows: number): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new StoreFileRefused(`line ${rows + 2} is not JSON`);
  }
}

async function checkHead(value: unknown, models: Models, transaction: Transaction): Promise<Instant> {
  const head = headSchema.safeParse(value);
  if (!head.success) throw new StoreFileRefused(`it does not begin as a ${storeFormat} file`);
  const [ours] = await readQuery<{ n: number }>(models.users, "SELECT COUNT(*) AS n FROM migrations", [], transaction);
  // Rows of an older program lack columns that have a default here; those of a newer one may have what nobody here knows.
  if (head.data.migrations > ours!.n) throw new StoreFileRefused("it was written by a newer Ravik");
  return head.data.at;
}

function parseRow(value: unknown, byName: ReadonlyMap<string, ModelStatic<Model>>, rows: number) {
  const parsed = rowSchema.safeParse(value);
  const model = parsed.success ? byName.get(parsed.data.table) : undefined;
  if (!parsed.success || model === undefined) throw new StoreFileRefused(`line ${rows + 2} is no row of a table`);
  const { table, row } = parsed.data;
  const columns = model.getAttributes() as unknown as Record<string, { type: { key: string } }>;
  const unknown = Object.keys(row).find((column) => !Object.hasOwn(columns, column));
  if (unknown !== undefined) throw new StoreFileRefused(`line ${rows + 2}: "${table}" has no "${unknown}"`);
  const cells = Object.entries(row).map(([column, cell]) => [
    column,
    readCell(cell, columns[column]!.type.key === "BLOB"),
  ]);
  return { table, row: { ...Object.fromEntries(cells), ...(table === "users" ? closeDoor() : {}) } as Row };
}

/** A password that nobody has: a hash of bytes that are nowhere kept. */
const closeDoor = (): Row => ({
  salt: randomBytes(16).toString("hex"),
  hash: randomBytes(32).toString("hex"),
  cost: JSON.stringify(usualCost),
  second: null,
  secondStep: 0,
  recovery: "[]",
});
