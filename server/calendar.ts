import { createEvents, type EventAttributes } from "ics";
import { addDays, type LocalDate } from "../core/dates/index.ts";

/** Something in a calendar: a whole day, or a span from an instant on. */
export interface CalendarEvent {
  /** Stays the same however often it is written, so that taking the calendar in again updates it. */
  readonly uid: string;
  /** Goes up with every change. */
  readonly sequence: number;
  readonly title: string;
  readonly says: string;
  readonly when: { readonly day: LocalDate } | { readonly fromMs: number; readonly minutes: number };
}

/** Line ends as the writer escapes them; a bare CR would begin a line of its own. */
const endLines = (text: string) => text.replace(/\r\n?/g, "\n");

const toParts = (day: LocalDate) => day.split("-").map(Number) as [number, number, number];

/** A calendar (RFC 5545). Instants are written in UTC, so that they are right in any zone and across clock changes. */
export function writeCalendar(name: string, events: readonly CalendarEvent[], nowMs: number): string {
  const rows = events.map(({ uid, sequence, title, says, when }): EventAttributes => {
    const base = {
      uid,
      sequence,
      title: endLines(title),
      description: endLines(says),
      productId: "-//ravik//boats//EN",
      timestamp: nowMs,
      method: "PUBLISH" as const,
    };
    if ("day" in when) {
      // Until the next day, which is not in it: a whole day by RFC 5545, 3.6.1.
      return { ...base, start: toParts(when.day), end: toParts(addDays(when.day, 1)) };
    }
    return {
      ...base,
      start: when.fromMs,
      startInputType: "utc",
      startOutputType: "utc",
      duration: { hours: Math.floor(when.minutes / 60), minutes: when.minutes % 60 },
    };
  });
  const { error, value } = createEvents(rows, {
    calName: endLines(name),
    productId: "-//ravik//boats//EN",
    method: "PUBLISH",
  });
  if (error) throw error;
  return value!;
}
