import { join } from "node:path";
import sqlite3 from "sqlite3";
import { explainUnopened, openDataFolder } from "./dataFolder.ts";
import { databaseFile } from "./keeping/backupFolder.ts";
import { StartRefused } from "./startRefused.ts";

/**
 * Holds a store's folder for this server alone: an exclusive transaction on `lock.sqlite` beside the store, which a kill
 * frees. Backup and verify need none. Throws, in words, where another server has it or the folder cannot be written to. Answers what frees it.
 */
export function lockFolder(folder: string): Promise<() => Promise<void>> {
  openDataFolder(folder, databaseFile);
  return new Promise((resolve, reject) => {
    const lock = new sqlite3.Database(join(folder, "lock.sqlite"), (opened) => {
      if (opened !== null) return reject(explainUnopened(opened, folder));
      lock.exec("PRAGMA busy_timeout=200; BEGIN EXCLUSIVE", (error) => {
        if (error === null) return resolve(() => new Promise((freed) => lock.close(() => freed())));
        lock.close();
        const explained = explainUnopened(error, folder);
        if (explained !== error) return reject(explained);
        reject(
          new StartRefused(`another Ravik runs on ${folder}: stop it first, or start this one with another RAVIK_DATA`),
        );
      });
    });
  });
}
