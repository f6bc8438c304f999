import { spawn } from "node:child_process";
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { setPriority } from "node:os";
import { join } from "node:path";
import { z } from "zod";
import type { BackupSheet } from "../../api/index.ts";
import { dayOf, type Instant, instantSchema } from "../../core/dates/index.ts";
import type { Clock } from "../clock.ts";
import { listBackups, readAbout } from "./backupFolder.ts";

/** Why the last try failed; gone once one went well. In the data folder, so that a start does not forget it. */
const failureFile = "backup-failed.json";
const failureSchema = z.strictObject({ at: instantSchema, why: z.string() });
const mostListed = 30;
/** A backup older than that is late: a night was missed. */
const lateAfterMs = 36 * 3_600_000;
const longestWhy = 500;
/** After a try that failed. */
const againAfterMs = 3_600_000;

export interface Keeper {
  read(): BackupSheet;
  /** "late": none for a day and a half; "none": there is none at all. */
  judge(): "good" | "late" | "none";
  /** Makes one where there is none of today; where the last try failed, not before an hour has gone by. */
  runIfDue(): Promise<void>;
  /** Makes a backup beside the server; one at a time. Resolves when it is there or has failed, which `read` says. */
  run(): Promise<void>;
}

/** Where nobody has named a folder. */
export const noKeeper: Keeper = {
  read: () => ({ folder: null, isSameDisk: false, isRunning: false, failed: null, backups: [] }),
  judge: () => "none",
  runIfDue: async () => undefined,
  run: async () => undefined,
};

interface KeeperParts {
  readonly dataFolder: string;
  /** Where backups go, a folder each. */
  readonly to: string;
  readonly clock: Clock;
  /** What makes one: a command, so that a large store is copied and proved in a process of its own. */
  readonly command: readonly [program: string, ...args: string[]];
  readonly log?: { error(facts: object, words: string): void };
}

/** Backups of a running store: makes them, and says how they stand. */
export function createKeeper({ dataFolder, to, clock, command: [program, ...args], log }: KeeperParts): Keeper {
  const failurePath = join(dataFolder, failureFile);
  let running: Promise<void> | null = null;
  const fail = (why: string) => {
    log?.error({ why }, "backup failed");
    const at: Instant = clock.now();
    try {
      writeFileSync(failurePath, JSON.stringify({ at, why: why.slice(0, longestWhy) }));
    } catch {
      // A disk that is full takes not even this; the log has it.
    }
  };
  const start = () =>
    new Promise<void>((resolve) => {
      const child = spawn(program, args, { stdio: ["ignore", "ignore", "pipe"] });
      let said = "";
      child.stderr.on("data", (bytes: Buffer) => {
        said = (said + bytes.toString("utf8")).slice(-4000);
      });
      child.once("spawn", () => {
        // Those at work go first.
        if (process.platform === "linux" && child.pid !== undefined) setPriority(child.pid, 10);
      });
      child.once("error", (error) => {
        fail(error.message);
        resolve();
      });
      child.once("close", (status) => {
        if (status === 0) rmSync(failurePath, { force: true });
        else fail(said.trim().replace(/^ravik: /, "") || `it ended with ${status}`);
        resolve();
      });
    });
  const list = () =>
    listBackups(to)
      .slice(0, mostListed)
      .flatMap((name) => {
        try {
          const { at, bytes, counts } = readAbout(join(to, name));
          return [{ name, at, bytes, boats: counts.boats ?? 0, entries: counts.entries ?? 0 }];
        } catch {
          // A folder somebody emptied is no backup.
          return [];
        }
      });
  const run = () => {
    running ??= start().finally(() => {
      running = null;
    });
    return running;
  };
  const findFailure = () => (existsSync(failurePath) ? readFailure(failurePath) : null);
  return {
    read: () => ({
      folder: to,
      isSameDisk: existsSync(to) && statSync(to).dev === statSync(dataFolder).dev,
      isRunning: running !== null,
      failed: findFailure(),
      backups: list(),
    }),
    judge() {
      const [last] = list();
      if (last === undefined) return "none";
      return clock.nowMs() - Date.parse(last.at) > lateAfterMs ? "late" : "good";
    },
    async runIfDue() {
      const [last] = list();
      if (last !== undefined && dayOf(last.at, clock.timeZone) === clock.today()) return;
      const failure = findFailure();
      if (failure !== null && clock.nowMs() - Date.parse(failure.at) < againAfterMs) return;
      await run();
    },
    run,
  };
}

function readFailure(path: string): z.infer<typeof failureSchema> | null {
  try {
    return failureSchema.parse(JSON.parse(readFileSync(path, "utf8")));
  } catch {
    return null;
  }
}
