import { accessSync, constants, existsSync, mkdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { StartRefused } from "./startRefused.ts";

/**
 * A folder and those it stands in, one by one: asked for all of them at once Node tries for ever where a file system has
 * folders and lets nobody make any. Throws what the system says.
 */
export function makeFolder(folder: string) {
  if (existsSync(folder)) return;
  makeFolder(dirname(folder));
  mkdirSync(folder);
}

const cannotWrite = (folder: string, why: string) =>
  new StartRefused(
    `${folder} cannot be written to (${why}): let whoever runs Ravik write there, or name another folder in RAVIK_DATA`,
  );

/** Makes a store's folder where there is none. Throws `StartRefused`, in words, where it, or the store in it, cannot be written to. */
export function openDataFolder(folder: string, storeFile: string) {
  try {
    makeFolder(folder);
    accessSync(folder, constants.W_OK | constants.X_OK);
    const file = join(folder, storeFile);
    if (existsSync(file)) accessSync(file, constants.R_OK | constants.W_OK);
  } catch (error) {
    throw cannotWrite(folder, (error as Error).message);
  }
}

/** What SQLite says where it may not open or make a file in `folder`, in words; any other error as it is. */
export function explainUnopened(error: Error, folder: string): Error {
  const { code } = error as { code?: string };
  return code === "SQLITE_CANTOPEN" || code === "SQLITE_READONLY" ? cannotWrite(folder, error.message) : error;
}
