import { ask, Refused } from "../app/client.ts";

/** A difference below this is the way there and back, not a clock that is wrong. */
const toleranceMs = 3000;
const againAfterMs = 10 * 60_000;
let known: { behindMs: number; epoch: string; atMs: number } | null = null;

/**
 * By how many milliseconds this device's clock is behind the server's (ahead: negative; 0 where it is about right), and
 * which epoch the store is in. Asked at most every ten minutes, by the clock that nobody sets. Throws Refused without
 * signal, as every question does.
 */
export async function readServer(): Promise<{ readonly behindMs: number; readonly epoch: string }> {
  const beforeMs = performance.now();
  if (known !== null && beforeMs - known.atMs < againAfterMs) return known;
  const { nowMs, epoch } = await ask("clock");
  if (typeof nowMs !== "number" || typeof epoch !== "string") throw new Refused({ code: "unexpected" });
  const wayMs = (performance.now() - beforeMs) / 2;
  const offMs = Math.round(nowMs + wayMs - Date.now());
  known = { behindMs: Math.abs(offMs) < toleranceMs ? 0 : offMs, epoch, atMs: performance.now() };
  return known;
}

/** What was read is forgotten, as when a device wakes or the server was out of reach. */
export function forgetServer(): void {
  known = null;
}
