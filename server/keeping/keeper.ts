import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { setPriority } from "node:os";
import { join } from "node:path";
import { z } from "zod";
import type { BackupSheet } from "../../api/index.ts";
import { dayOf, type Instant, instantSchema } from "../../core/dates/index.ts";
import type { Clock } from "../clock.ts";
import { keyFile, listBackups, readAbout } from "./backupFolder.ts";
import { withParentKey } from "./endWithParent.ts";

/** Why the last try failed; gone once one went well. In the data folder, so that a start does not forget it. */
const failureFile = "backup-failed.json";
const failureSchema = z.strictObject({ at: instantSchema, why: z.string() });
const mostListed = 30;
/** A backup older than that is late: a night was missed. */
const lateAfterMs = 36 * 3_600_000;
const longestWhy = 500;
/** Longer than any store takes: a child that goes on for so long waits for a disk that does not answer. */
const longestMs = 2 * 3_600_000;
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
  /** Ends the one that is being made. */
  close(): void;
}

/** Where nobody has named a folder. */
export const noKeeper: Keeper = {
  read: () => ({ folder: null, isSameDisk: false, isRunning: false, failed: null, backups: [] }),
  judge: () => "none",
  runIfDue: async () => undefined,
  run: async () => undefined,
  close: () => undefined,
};

interface KeeperParts {
  readonly dataFolder: string;
  /** Where backups go, a folder each. */
  readonly to: string;
  readonly clock: Clock;
  /** What makes one: a command, so that a large store is copied and proved in a process of its own. */
  readonly command: readonly [program: string, ...args: string[]];
  readonly log?: { error(facts: object, words: string): void };
  /** After so long one that is being made is ended. */
  readonly mostMs?: number;
}

/** Backups of a running store: makes them, and says how they stand. */
export function createKeeper(parts: KeeperParts): Keeper {
  const { dataFolder, to, clock, command, log, mostMs = longestMs } = parts;
  const [program, ...args] = command;
  const failurePath = join(dataFolder, failureFile);
  let running: Promise<void> | null = null;
  let child: ChildProcess | null = null;
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
      // Its input ends with this process, however that ends, and it with its input.
      const made = spawn(program, args, {
        stdio: ["pipe", "ignore", "pipe"],
        env: { ...process.env, [withParentKey]: "1" },
      });
      child = made;
      let said = "";
      const timer = setTimeout(() => {
        said = `it was not done after ${Math.round(mostMs / 60_000)} minutes: does the disk of ${to} answer?`;
        made.stderr.removeAllListeners("data");
        made.kill("SIGKILL");
      }, mostMs);
      made.stdin.on("error", () => undefined);
      made.stderr.on("data", (bytes: Buffer) => {
        said = (said + bytes.toString("utf8")).slice(-4000);
      });
      made.once("spawn", () => {
        // Those at work go first.
        if (process.platform === "linux" && made.pid !== undefined) setPriority(made.pid, 10);
      });
      made.once("error", (error) => {
        clearTimeout(timer);
        fail(error.message);
        resolve();
      });
      made.once("close", (status) => {
        clearTimeout(timer);
        child = null;
        if (status === 0) rmSync(failurePath, { force: true });
        else fail(said.trim().replace(/^ravik: /, "") || `it ended with ${status}`);
        resolve();
      });
    });
  /** Why the folder cannot be looked into; null where it can, or is not there yet. */
  const findUnread = (): string | null => {
    try {
      listBackups(to);
      return null;
    } catch (error) {
      return `${to} cannot be read (${(error as Error).message})`;
    }
  };
  const list = () =>
    (findUnread() === null ? listBackups(to) : []).slice(0, mostListed).flatMap((name) => {
      try {
        const { at, bytes, counts } = readAbout(join(to, name));
        const hasKey = existsSync(join(to, name, keyFile));
        return [{ name, at, bytes, boats: counts.boats ?? 0, entries: counts.entries ?? 0, hasKey }];
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
  const findFailure = () => {
    const unread = findUnread();
    if (unread !== null) return { at: clock.now(), why: unread };
    return existsSync(failurePath) ? readFailure(failurePath) : null;
  };
  return {
    read: () => ({
      folder: to,
      isSameDisk: isSameDisk(to, dataFolder),
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
    close() {
      child?.kill("SIGKILL");
    },
  };
}

const isSameDisk = (one: string, other: string) =>
  statSync(one, { throwIfNoEntry: false })?.dev === statSync(other).dev;

function readFailure(path: string): z.infer<typeof failureSchema> | null {
  try {
    return failureSchema.parse(JSON.parse(readFileSync(path, "utf8")));
  } catch {
    return null;
  }
}
