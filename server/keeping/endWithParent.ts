/** Set for a command that a server starts and that is to end with it. */
export const withParentKey = "RAVIK_WITH_PARENT";

/** Ends this process as soon as the one that started it has: its end of our input closes then, however it ended. */
export function endWithParent(): void {
  if (process.env[withParentKey] !== "1") return;
  process.stdin.on("end", () => process.exit(1)).on("error", () => process.exit(1));
  process.stdin.resume();
  // Nobody waits for an input that says nothing.
  (process.stdin as { unref?: () => void }).unref?.();
}
