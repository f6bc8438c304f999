import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { instantSchema } from "../../core/dates/index.ts";
import { StartRefused } from "../startRefused.ts";

/** A backup is a folder of this: the database, the heads of its chain, what it is, and, with a passphrase, the locked key. */
export const databaseFile = "ravik.sqlite";
export const aboutFile = "about.json";
export const keyFile = "store-key.locked.json";
const namePattern = /^\d{4}-\d{2}-\d{2}T\d{6}$/;

const aboutSchema = z.strictObject({
  format: z.literal("ravik.backup/1"),
  at: instantSchema,
  bytes: z.int(),
  /** Of the database file. */
  sha256: z.string(),
  /** Rows by table, as they were found in the copy. */
  counts: z.record(z.string(), z.int()),
});
export type BackupAbout = z.infer<typeof aboutSchema>;

/** Backups of a folder, the last first; what was begun and never got its name is none. */
export const listBackups = (to: string): string[] =>
  existsSync(to)
    ? readdirSync(to)
        .filter((name) => namePattern.test(name))
        .toSorted()
        .toReversed()
    : [];

export function readAbout(backup: string): BackupAbout {
  const file = join(backup, aboutFile);
  const parsed = existsSync(file) ? aboutSchema.safeParse(JSON.parse(readFileSync(file, "utf8"))) : null;
  if (parsed === null || !parsed.success) throw new StartRefused(`${backup} is no backup of Ravik's`);
  return parsed.data;
}
