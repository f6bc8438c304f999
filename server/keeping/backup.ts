import { createHash } from "node:crypto";
import {
  copyFileSync,
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import sqlite3 from "sqlite3";
import { dayOf, type Instant, type LocalDate, minutesOfDay } from "../../core/dates/index.ts";
import { createClock } from "../clock.ts";
import { createServices } from "../createServices.ts";
import { openDatabase } from "../database/open.ts";
import { makeFolder } from "../dataFolder.ts";
import { headsFile, readHeadsFile } from "../sealHeads.ts";
import { hashBytes } from "../services/bundleFile.ts";
import { StartRefused } from "../startRefused.ts";
import { publicKeyFile, readPublicKey, storeKeyFile } from "../storeKey.ts";
import { type Expected, verifyStore } from "../verifyStore.ts";
import { aboutFile, type BackupAbout, databaseFile, keyFile, listBackups, readAbout } from "./backupFolder.ts";
import { chooseKept } from "./chooseKept.ts";
import { copyDatabase } from "./copyDatabase.ts";
import { beginEpoch } from "./epoch.ts";
import { lockKey, unlockKey } from "./sealKey.ts";
import { syncPath } from "./syncPath.ts";

/** What is counted before and in the copy: nothing of these is ever taken away, so the copy has at least as many. */
const counted = ["boats", "deliveries", "entries", "chain", "photos", "audit"] as const;
/** Room that is wanted beside what is there, as a share of the store's size; and what a disk is never filled beyond. */
const roomShare = 1.2;
const leftFreeShare = 0.1;
/** All backups together take at most so large a share of their disk, the last one in any case. */
const mostOfDisk = 0.5;
/** What is begun has this name until it is proved. */
const begunPattern = /^\d{4}-\d{2}-\d{2}T\d{6}\.part$/;
const begunMs = 86_400_000;

interface BackUpOptions {
  readonly dataFolder: string;
  /** Where backups go, a folder each. */
  readonly to: string;
  readonly now: Instant;
  /** The store's: a backup is named after its day and time there. */
  readonly timeZone: string;
  /** Locks the store's key into the backup; without one the key is left out. */
  readonly passphrase: string | null;
  /** So large a share of the disk is left free. */
  readonly leftFree?: number;
  /** All of them together take at most so large a share of it. */
  readonly mostShare?: number;
  readonly tell?: TellStep;
}

/** How far it has come: what is done now and, of a copy, how many of how many bytes. */
export type TellStep = (step: string, bytes?: { readonly done: number; readonly of: number }) => void;
const tellNobody: TellStep = () => undefined;

/**
 * Copies a store that may be in use into a new folder of `to`, proves the copy (it opens, it is sound, it holds what was
 * there, its seal chain is what was sealed), and only then gives it its name; then old ones go (`chooseKept`). Throws
 * `StartRefused`, in words, where there is no store, no folder or no room, and for a copy that does not prove itself.
 */
export async function backUp(options: BackUpOptions) {
  const {
    dataFolder,
    to,
    now,
    timeZone,
    passphrase,
    leftFree = leftFreeShare,
    mostShare = mostOfDisk,
    tell = tellNobody,
  } = options;
  const source = join(dataFolder, databaseFile);
  if (!existsSync(source)) throw new StartRefused(`there is no store in ${dataFolder}`);
  checkRoom(source, to, leftFree);
  const name = nameAt(now, timeZone);
  removeBegun(to, Date.now());
  const part = join(to, `${name}.part`);
  rmSync(part, { recursive: true, force: true });
  mkdirSync(part);
  try {
    const before = await countRows(source);
    // Heads first: what is sealed meanwhile is in the copy and in no head, and never the other way round.
    const heads = join(dataFolder, headsFile);
    if (existsSync(heads)) copyFileSync(heads, join(part, headsFile));
    const publicKey = join(dataFolder, publicKeyFile);
    if (existsSync(publicKey)) copyFileSync(publicKey, join(part, publicKeyFile));
    await copyTelling(source, join(part, databaseFile), "Copying the store", tell);
    const about = await prove(part, now, before, tell);
    writeFileSync(join(part, aboutFile), `${JSON.stringify(about, null, 2)}\n`);
    const key = join(dataFolder, storeKeyFile);
    if (passphrase !== null && existsSync(key))
      writeFileSync(join(part, keyFile), lockKey(readFileSync(key, "utf8"), passphrase), { mode: 0o600 });
    for (const file of readdirSync(part)) syncPath(join(part, file));
    renameSync(part, join(to, name));
    syncPath(to);
    return {
      name,
      about,
      removed: removeOld(to, dayOf(now, timeZone), mostShare),
      isSameDisk: statSync(to).dev === statSync(dataFolder).dev,
    };
  } finally {
    rmSync(part, { recursive: true, force: true });
  }
}

const lookEveryMs = 500;

/** Copies a database and says how much of it is there, as far as its size tells. */
async function copyTelling(from: string, to: string, step: string, tell: TellStep) {
  const of = statSync(from).size;
  const look = () => tell(step, { done: Math.min(of, statSync(to, { throwIfNoEntry: false })?.size ?? 0), of });
  look();
  const timer = setInterval(look, lookEveryMs);
  try {
    await copyDatabase(from, to);
  } finally {
    clearInterval(timer);
  }
}

/** 2026-11-29T031542: sorted by name, backups are sorted by time. */
function nameAt(now: Instant, timeZone: string): string {
  const minutes = minutesOfDay(now, timeZone);
  const seconds = Math.floor(Date.parse(now) / 1000) % 60;
  const clock = [Math.floor(minutes / 60), Math.floor(minutes % 60), seconds];
  return `${dayOf(now, timeZone)}T${clock.map((part) => String(part).padStart(2, "0")).join("")}`;
}

/** What was begun by a process that was killed stays behind without a name; one that is being made is younger. */
function removeBegun(to: string, nowMs: number) {
  for (const name of readdirSync(to))
    if (begunPattern.test(name) && nowMs - statSync(join(to, name)).mtimeMs > begunMs)
      rmSync(join(to, name), { recursive: true, force: true });
}

function checkRoom(source: string, to: string, leftFree: number) {
  try {
    makeFolder(to);
  } catch (error) {
    throw new StartRefused(`${to} cannot be written to (${(error as Error).message})`);
  }
  const wanted = statSync(source).size * roomShare;
  const hasRoom = () => {
    const { bsize, bavail, blocks } = statfsSync(to);
    return bavail * bsize - wanted >= blocks * bsize * leftFree;
  };
  // Old ones make room for a new one; the last stays until that is proved.
  const old = listBackups(to).slice(1);
  while (!hasRoom() && old.length > 0) rmSync(join(to, old.pop()!), { recursive: true });
  if (!hasRoom())
    throw new StartRefused(
      `there is too little room in ${to}: a backup wants ${Math.ceil(wanted / 1e6)} MB, and ${leftFree * 100} % of the disk are left free`,
    );
}

/** What the copy is, once it has proved itself. */
async function prove(
  part: string,
  at: Instant,
  before: Readonly<Record<string, number>>,
  tell: TellStep,
): Promise<BackupAbout> {
  const file = join(part, databaseFile);
  tell("Checking that the copy is sound and whole");
  const [sound] = await ask<{ integrity_check: string }>(file, "PRAGMA integrity_check");
  if (sound?.integrity_check !== "ok") throw new StartRefused(`the copy is not sound: ${sound?.integrity_check}`);
  const counts = await countRows(file);
  for (const table of counted)
    if (counts[table]! < before[table]!) throw new StartRefused(`the copy lacks rows of ${table}`);
  tell("Walking its seal chain, handovers and photos");
  const database = await openDatabase(part);
  try {
    const services = createServices(database, createClock("UTC"), null);
    const { faults } = await verifyStore({ ...services, hashBytes }, expectOf(part));
    if (faults.length > 0) throw new StartRefused(`what was sealed does not verify: ${faults[0]}`);
  } finally {
    await database.close();
  }
  for (const ending of ["-wal", "-shm"]) rmSync(file + ending, { force: true });
  return { format: "ravik.backup/1", at, bytes: statSync(file).size, sha256: await hashFile(file), counts };
}

async function countRows(file: string): Promise<Record<string, number>> {
  const parts = counted.map((table) => `(SELECT COUNT(*) FROM "${table}") AS "${table}"`);
  const [row] = await ask<Record<string, number>>(file, `SELECT ${parts.join(", ")}`);
  return row!;
}

function ask<R>(file: string, sql: string): Promise<R[]> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, sqlite3.OPEN_READONLY, (error) => {
      if (error) return reject(error);
      database.all<R>(sql, (failed, rows) => database.close(() => (failed ? reject(failed) : resolve(rows))));
    });
  });
}

async function hashFile(file: string): Promise<string> {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest("hex");
}

function removeOld(to: string, today: LocalDate, mostShare: number): string[] {
  const names = listBackups(to);
  const kept = chooseKept(names, today);
  const { bsize, blocks } = statfsSync(to);
  const most = blocks * bsize * mostShare;
  let bytes = 0;
  const old = names.filter((name, i) => {
    if (!kept.has(name)) return true;
    bytes += statSync(join(to, name, databaseFile), { throwIfNoEntry: false })?.size ?? 0;
    return i > 0 && bytes > most;
  });
  for (const name of old) rmSync(join(to, name), { recursive: true });
  return old;
}

interface RestoreOptions {
  readonly backup: string;
  readonly dataFolder: string;
  readonly now: Instant;
  readonly timeZone: string;
  /** Somebody has said that the store that is there goes aside. */
  readonly isOver: boolean;
  readonly passphrase: string | null;
  readonly tell?: TellStep;
}

/**
 * Puts a backup where the store is, after its file was found to be what was written, in a new epoch (`beginEpoch`). A store
 * that is there is moved aside, and only where somebody has said so. Answers what became of the store's key and where the old store is. The folder is
 * the caller's alone meanwhile (`lockFolder`). Throws `StartRefused`, in words.
 */
export async function restore(options: RestoreOptions) {
  const { backup, dataFolder, now, timeZone, isOver, passphrase, tell = tellNobody } = options;
  tell("Checking that the backup is what was written");
  const about = readAbout(backup);
  if ((await hashFile(join(backup, databaseFile))) !== about.sha256)
    throw new StartRefused(`${backup} is not what was written: take another backup`);
  const key = findKey(backup, dataFolder, passphrase);
  const target = join(dataFolder, databaseFile);
  const isThere = existsSync(target);
  if (isThere && !isOver)
    throw new StartRefused(
      `${dataFolder} holds a store. This backup is of ${about.at}: what was entered since is not in it. To put it in its place, say --over; the store that is there is kept beside it`,
    );
  const aside = isThere ? `ravik-before-restore-${nameAt(now, timeZone)}.sqlite` : null;
  if (aside !== null) {
    // All of it into one file: what still stands in the log belongs to it.
    await copyTelling(target, join(dataFolder, aside), "Putting the store that is there aside", tell);
    for (const ending of ["", "-wal", "-shm"]) rmSync(target + ending, { force: true });
  }
  const part = `${target}.part`;
  tell("Copying the backup");
  copyFileSync(join(backup, databaseFile), part);
  // Before it has its name: a store that was put back never stands there as if nothing was missing.
  await beginEpoch(part, { at: now, of: about.at });
  syncPath(part);
  renameSync(part, target);
  const heads = join(backup, headsFile);
  if (existsSync(heads)) copyFileSync(heads, join(dataFolder, headsFile));
  if (key.pem !== null) writeFileSync(join(dataFolder, storeKeyFile), key.pem, { mode: 0o600 });
  return { about, aside, key: key.is };
}

/** What a folder says of its own store; one that no server of this version has run on yet keeps neither heads of each seal nor its key. */
const expectOf = (folder: string): Expected => {
  const key = readPublicKey(folder);
  return { heads: readHeadsFile(folder), key, isOlder: key === null };
};

/** The key that is there stays; else the backup's, where the passphrase opens it; else the store makes a new one, and its chain says so. */
function findKey(
  backup: string,
  dataFolder: string,
  passphrase: string | null,
): { readonly is: "stays" | "restored" | "new"; readonly pem: string | null } {
  if (existsSync(join(dataFolder, storeKeyFile))) return { is: "stays", pem: null };
  const locked = join(backup, keyFile);
  if (passphrase === null || !existsSync(locked)) return { is: "new", pem: null };
  const pem = unlockKey(readFileSync(locked, "utf8"), passphrase);
  if (pem === null) throw new StartRefused("the passphrase does not open the store's key in this backup");
  return { is: "restored", pem };
}
