import { z } from "zod";
import { instantSchema } from "../core/dates/index.ts";
import { recordIdSchema } from "../core/walk/index.ts";

/** How the store's backups stand. */
export const backupSheetSchema = z.strictObject({
  /** Where they go; null where nobody has named a folder, and none are made. */
  folder: z.string().nullable(),
  /** The folder is on the disk that the store is on. */
  isSameDisk: z.boolean(),
  isRunning: z.boolean(),
  /** Why the last try failed; null where it went well. */
  failed: z.strictObject({ at: instantSchema, why: z.string() }).nullable(),
  /** Those that were proved and are kept, the last first. */
  backups: z.array(
    z.strictObject({
      name: z.string(),
      at: instantSchema,
      bytes: z.int(),
      boats: z.int(),
      entries: z.int(),
      /** The store's key is in it, locked by the passphrase. */
      hasKey: z.boolean(),
    }),
  ),
});
export type BackupSheet = z.infer<typeof backupSheetSchema>;

/** A store that was put back from a backup, and what came of it. */
export const restoredSheetSchema = z.strictObject({
  /** Put back from a backup, or found to hold less than it had acknowledged. */
  why: z.enum(["restored", "behind"]),
  at: instantSchema,
  /** When the backup was made: what was entered since comes from the devices that hold it, or is gone. */
  of: instantSchema,
  released: z.strictObject({ at: instantSchema, by: z.string() }).nullable(),
  /** What the server was to do by itself by now. */
  jobs: z.array(
    z.strictObject({
      id: z.string(),
      kind: z.string(),
      boat: recordIdSchema,
      boatName: z.string(),
      dueAtMs: z.number(),
    }),
  ),
  /** Messages that wait for the owner; and those that stood ready in the backup and may have been sent since. */
  messages: z.strictObject({ waiting: z.int(), ready: z.int() }),
  /** Photos that an entry names and that are not here. */
  missingPhotos: z.array(
    z.strictObject({
      photo: z.string(),
      delivery: recordIdSchema,
      boat: recordIdSchema,
      boatName: z.string(),
      topic: z.string().nullable(),
      at: instantSchema,
      by: z.string(),
    }),
  ),
});
export type RestoredSheet = z.infer<typeof restoredSheetSchema>;
