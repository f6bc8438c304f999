import { z } from "zod";
import { instantSchema } from "../core/dates/index.ts";

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
    }),
  ),
});
export type BackupSheet = z.infer<typeof backupSheetSchema>;
