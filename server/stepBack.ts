import { setPriority } from "node:os";

/**
 * Called in a thread that works for long: it lets the one that stores marks go first. On Linux a priority is the thread's own;
 * elsewhere it is the whole process's, so there it stays as it is.
 */
export function stepBack(): void {
  if (process.platform === "linux") setPriority(10);
}
