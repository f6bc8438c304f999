import { TZDate } from "@date-fns/tz";
import { dayOfMonth, type LocalDate, monthOf, writeDate, yearOf } from "./localDate.ts";

/**
 * A moment, as ISO 8601 in UTC: `2026-01-31T09:30:00.000Z`. Which day it is then depends on where: `dayOf` says it for a time
 * zone, and nothing else makes a day of it.
 */
export type Instant = `${LocalDate}T${string}Z`;

export const toInstant = (ms: number): Instant => new Date(ms).toISOString() as Instant;

const toMs = (at: Instant | number) => (typeof at === "string" ? Date.parse(at) : at);

/** The day it is at an instant (or ms since 1970) in a time zone (IANA name). */
export function dayOf(at: Instant | number, timeZone: string): LocalDate {
  const local = new TZDate(toMs(at), timeZone);
  return writeDate(local.getFullYear(), local.getMonth() + 1, local.getDate());
}

/** Minutes after midnight at an instant in a time zone: 10:02 is 602. */
export function minutesOfDay(at: Instant | number, timeZone: string): number {
  const local = new TZDate(toMs(at), timeZone);
  return local.getHours() * 60 + local.getMinutes();
}

/** When it is so many minutes after midnight of a day in a time zone, in ms; clock changes are reckoned in. */
export function msAt(date: LocalDate, minutes: number, timeZone: string): number {
  const hours = Math.floor(minutes / 60);
  return new TZDate(yearOf(date), monthOf(date) - 1, dayOfMonth(date), hours, minutes % 60, 0, timeZone).getTime();
}
