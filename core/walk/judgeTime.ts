import type { Instant } from "../dates/index.ts";
import type { Entry } from "./entry.ts";

const minuteMs = 60_000;
const dayMs = 24 * 60 * minuteMs;
/** A device's clock is put right to within seconds and a post takes seconds: what differs by less is the same time. Ours. */
const sameMs = 5 * minuteMs;
/** So long an entry may have waited on a tablet for signal, and be believed. Ours. */
const mostBehindMs = 60 * dayMs;

/** What the store knows of when an entry came. */
export interface TimeReceipt {
  /** Null of an entry that came before the store noted it. */
  readonly receivedAt: Instant | null;
  /** By how many milliseconds the clock of the device that sent it was behind the server's; left out where it did not say. */
  readonly offsetMs?: number | undefined;
}

/**
 * What the time an entry bears is, beside its receipt: `fits`; `offline`, where it waited on its device, as it may without
 * signal; or `off`, where the device's own clock says something else, or it lies after its receipt or 60 days before it. Of one
 * whose receipt was not noted nothing is doubted.
 *
 * @example ({ at: "2099-01-01T00:00:00.000Z" }, { receivedAt: "2026-06-01T10:00:00.000Z" }) → "off"
 */
export function judgeTime(
  { at, clockMs = 0 }: Pick<Entry, "at" | "clockMs">,
  { receivedAt, offsetMs = clockMs }: TimeReceipt,
): "fits" | "offline" | "off" {
  if (receivedAt === null) return "fits";
  const atMs = Date.parse(at);
  // As the device had it, put right by what was measured when it was sent.
  const measuredMs = atMs - clockMs + offsetMs;
  const behindMs = Date.parse(receivedAt) - measuredMs;
  if (Math.abs(measuredMs - atMs) > sameMs || behindMs < -sameMs || behindMs > mostBehindMs) return "off";
  return behindMs > sameMs ? "offline" : "fits";
}
