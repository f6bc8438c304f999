import { addDays, addMonths, type LocalDate } from "../dates/index.ts";

/** An engine's first service as its pack asks for it, and what became of it. Engine hours. */
export interface FirstService {
  readonly inService: LocalDate;
  readonly firstH: number | null;
  readonly firstMonths: number | null;
  /** When and at how many hours it was done, and whether elsewhere; null: not yet. */
  readonly done: { readonly date: LocalDate; readonly hours: number; readonly isElsewhere: boolean } | null;
  /** Hours the engine is believed to have today. */
  readonly likelyNowH: number | null;
}

export const firstServiceFates = ["kept", "late", "lost", "open"] as const;
export type FirstServiceFate = (typeof firstServiceFates)[number];

/** Ours: a shop books a week or two ahead, and an outing or two more does no harm. */
const graceDays = 30;
const graceH = 5;
/** After so long, or at twice its hours, nobody counts on it any more. */
const lostDays = 120;

/**
 * Kept: done here by its day or hours with a grace of 30 days and 5 h. Late: done here after that, or overdue and not done.
 * Lost: done elsewhere, or not done 120 days past its day or at twice its hours. Open: its day is still to come.
 */
export function judgeFirstService(service: FirstService, today: LocalDate): FirstServiceFate {
  const { inService, firstH, firstMonths, done, likelyNowH } = service;
  const day = firstMonths === null ? null : addMonths(inService, firstMonths);
  const isPast = (date: LocalDate, hours: number | null, days: number, most: number | null) =>
    (day !== null && date > addDays(day, days)) || (most !== null && hours !== null && hours > most);
  const withGraceH = firstH === null ? null : firstH + graceH;
  if (done !== null) {
    if (done.isElsewhere) return "lost";
    return isPast(done.date, done.hours, graceDays, withGraceH) ? "late" : "kept";
  }
  if (isPast(today, likelyNowH, lostDays, firstH === null ? null : firstH * 2)) return "lost";
  return isPast(today, likelyNowH, graceDays, withGraceH) ? "late" : "open";
}
