import { closeSync, fsyncSync, openSync } from "node:fs";

/** A file or folder is on disk when this returns, not only handed to the system. */
export function syncPath(path: string): void {
  const handle = openSync(path, "r");
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}
