import type { Instant } from "../dates/index.ts";

const minuteMs = 60_000;
const dayMs = 24 * 60 * minuteMs;
/** A device's clock is put right to within seconds: what lies further ahead is not so. Ours. */
const mostAheadMs = 10 * minuteMs;
/** So long an entry may have waited on a tablet for signal, and be believed. Ours. */
const mostBehindMs = 60 * dayMs;

/**
 * Whether the time an entry bears is out of reason, beside when the store received it: then it is shown as what the device
 * says. Of an entry whose receipt was not noted nothing is doubted.
 *
 * @example ("2099-01-01T00:00:00Z", "2026-06-01T10:00:00Z") → true
 */
export function isTimeDoubtful(at: Instant, receivedAt: Instant | null): boolean {
  if (receivedAt === null) return false;
  const behindMs = Date.parse(receivedAt) - Date.parse(at);
  return behindMs < -mostAheadMs || behindMs > mostBehindMs;
}
