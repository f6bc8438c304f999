import { ask, Refused } from "../app/client.ts";

/** A difference below this is the way there and back, not a clock that is wrong. */
const toleranceMs = 3000;
const againAfterMs = 10 * 60_000;
let known: { behindMs: number; atMs: number } | null = null;

/**
 * By how many milliseconds this device's clock is behind the server's (ahead: negative); 0 where it is about right. Asked
 * at most every ten minutes, by the clock that nobody sets. Throws Refused without signal, as every question does.
 */
export async function measureClock(): Promise<number> {
  const beforeMs = performance.now();
  if (known !== null && beforeMs - known.atMs < againAfterMs) return known.behindMs;
  const { nowMs } = await ask("clock");
  if (typeof nowMs !== "number") throw new Refused({ code: "unexpected" });
  const wayMs = (performance.now() - beforeMs) / 2;
  const offMs = Math.round(nowMs + wayMs - Date.now());
  known = { behindMs: Math.abs(offMs) < toleranceMs ? 0 : offMs, atMs: performance.now() };
  return known.behindMs;
}

/** What was measured is forgotten, as when a device wakes. */
export function forgetClock(): void {
  known = null;
}
