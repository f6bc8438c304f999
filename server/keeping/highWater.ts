import { closeSync, existsSync, fdatasyncSync, openSync, readFileSync, renameSync, writeSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import type { Acknowledged } from "../../api/index.ts";
import type { Instant } from "../../core/dates/index.ts";
import { isSignedWith } from "../../core/signature/index.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import { readQuery } from "../database/rows.ts";
import type { StoreKey } from "../storeKey.ts";
import type { Epochs } from "./epoch.ts";

/** Beside the database: the highest number an entry had that was acknowledged. */
export const highWaterFile = "high-water.json";
/** Written at most so often: what a kill leaves unwritten is less than what is there, and never looks like a loss. */
const writeEveryMs = 1000;

const markSchema = z.strictObject({
  format: z.literal("ravik.high-water/1"),
  epoch: z.string(),
  number: z.int().min(0),
});
type Mark = z.infer<typeof markSchema>;

interface Parts {
  readonly database: Database;
  readonly epochs: Epochs;
  readonly storeKey: StoreKey;
  readonly clock: Clock;
  readonly log: { warn(facts: object, message: string): void } | undefined;
}

/**
 * Whether this store still holds what it acknowledged. An older copy of its folder, or a log that was cut, opens as if nothing was
 * missing: the mark beside the database says otherwise, and where the mark went with the folder the devices do, which keep what was
 * acknowledged to them under the store's signature. Behind either, another epoch begins: its owner is told, and devices send
 * again what is missing.
 */
export function createHighWater({ database, epochs, storeKey, clock, log }: Parts) {
  const { models } = database;
  let number = 0;
  let epoch = "";
  let folder: string | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  const readFirst = async () => {
    const [row] = await readQuery<{ number: number | null; at: Instant | null }>(
      models.entries,
      "SELECT number, receivedAt AS at FROM entries ORDER BY number DESC LIMIT 1",
    );
    number = Math.max(number, row?.number ?? 0);
    epoch = await epochs.findId();
    return row?.at ?? null;
  };
  let first: Promise<Instant | null> | null = null;
  /** When the last entry came, once number and epoch are known: read when somebody first asks. */
  const ready = () => {
    first ??= readFirst();
    return first;
  };
  const write = () => {
    if (timer !== null) clearTimeout(timer);
    timer = null;
    if (folder !== null) writeMark(folder, { format: "ravik.high-water/1", epoch, number });
  };
  const begin = async (acknowledged: number, whence: string) => {
    const last = await ready();
    log?.warn(
      { acknowledged, here: number, whence },
      "the store holds less than it acknowledged: another epoch begins",
    );
    await database.inTransaction(async (t) => {
      const now = clock.now();
      // Asked by two at once, it begins once.
      if ((await epochs.findId(t)) === epoch) await epochs.begin({ at: now, of: last ?? now, why: "behind" }, t);
      epoch = await epochs.findId(t);
    });
    write();
  };
  const writeProof = (at: Pick<Acknowledged, "epoch" | "number">) => `ravik.acknowledged/1 ${at.epoch} ${at.number}`;
  return {
    /** Holds the store against the mark in its folder, and keeps the mark from then on. */
    async open(at: string): Promise<void> {
      await ready();
      const mark = readMark(at);
      folder = at;
      // A mark of another epoch is of what was there before the store was put back.
      if (mark !== null && mark.epoch === epoch && mark.number > number) await begin(mark.number, highWaterFile);
      else write();
    },
    /** Entries up to this number are on disk. */
    note(stored: number): void {
      number = Math.max(number, stored);
      if (folder === null || timer !== null) return;
      timer = setTimeout(write, writeEveryMs);
      timer.unref();
    },
    /** What a device may hold against a store that has lost something: this number, under the store's signature. */
    async prove(stored: number): Promise<Acknowledged> {
      await ready();
      const at = { epoch, number: stored };
      return { ...at, proof: storeKey.sign(writeProof(at)) };
    },
    /** Where a device was acknowledged more than is here, another epoch begins; what was not signed by this store says nothing. */
    async check(told: Acknowledged): Promise<void> {
      await ready();
      if (told.epoch !== epoch || told.number <= number) return;
      if (isSignedWith(storeKey.publicKey, writeProof(told), told.proof)) await begin(told.number, "a device");
    },
    close: write,
  };
}

export type HighWater = ReturnType<typeof createHighWater>;

function readMark(folder: string): Mark | null {
  const path = join(folder, highWaterFile);
  if (!existsSync(path)) return null;
  try {
    return markSchema.parse(JSON.parse(readFileSync(path, "utf8")));
  } catch {
    // What cannot be read says nothing; devices still do.
    return null;
  }
}

/** Whole or not at all, and on disk. */
function writeMark(folder: string, mark: Mark): void {
  const path = join(folder, highWaterFile);
  const part = `${path}.part`;
  try {
    const file = openSync(part, "w");
    try {
      writeSync(file, `${JSON.stringify(mark)}\n`);
      fdatasyncSync(file);
    } finally {
      closeSync(file);
    }
    renameSync(part, path);
  } catch {
    // A disk that takes nothing is said where something is stored; an older mark is no false one.
  }
}
