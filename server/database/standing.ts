import { accessSync, constants, statfsSync, statSync } from "node:fs";
import { dirname } from "node:path";

/**
 * Why the store takes nothing just now: its disk is full, may not be written to, is faulty, or the file that was opened is no
 * longer where it was (SQLite would write on into what nobody finds again).
 */
export type StoreFault = "full" | "read-only" | "gone" | "faulty";

const byCode: Readonly<Record<string, StoreFault>> = {
  SQLITE_FULL: "full",
  SQLITE_READONLY: "read-only",
  SQLITE_CANTOPEN: "gone",
  SQLITE_IOERR: "faulty",
};

/** What an error of SQLite says of the disk under it; null where it says nothing of that. */
export function findFaultOf(error: unknown): StoreFault | null {
  const { code, original, parent } = (error ?? {}) as Record<string, { code?: unknown } | undefined> & {
    code?: unknown;
  };
  const said = String(code ?? original?.code ?? parent?.code ?? "");
  return byCode[said] ?? null;
}

/** Watches the file of an open database. */
export function watchFile(file: string) {
  const opened = statSync(file);
  const isThere = () => {
    const now = statSync(file, { throwIfNoEntry: false });
    return now !== undefined && now.ino === opened.ino && now.dev === opened.dev;
  };
  return {
    /** The very file that was opened is still where it was. */
    isThere,
    measure() {
      if (!isThere()) return null;
      const { bsize, bavail, blocks } = statfsSync(file);
      return { freeBytes: bavail * bsize, totalBytes: blocks * bsize };
    },
    /** What is wrong without a write being tried. */
    look(): StoreFault | null {
      if (!isThere()) return "gone";
      try {
        accessSync(dirname(file), constants.W_OK);
        return statfsSync(file).bavail === 0 ? "full" : null;
      } catch (error) {
        return (error as NodeJS.ErrnoException).code === "ENOENT" ? "gone" : "read-only";
      }
    },
  };
}
