import { z } from "zod";
import { addDays, fromDayNumber, type LocalDate, localDateSchema, toDayNumber } from "../dates/index.ts";
import type { Season } from "../hours/index.ts";

/** What the workshop can do. `hoursPerDay`: labour hours from Monday to Sunday; `closed`: days without any, both inclusive. */
export const workshopSchema = z.strictObject({
  hoursPerDay: z.array(z.number().min(0).max(500)).length(7),
  closed: z
    .array(
      z
        .strictObject({ from: localDateSchema, to: localDateSchema, why: z.string().max(80) })
        .refine(({ from, to }) => from <= to, { path: ["to"], message: "must not be before the first day" }),
    )
    .max(100),
});
export type Workshop = z.infer<typeof workshopSchema>;

const daysPerWeek = 7;

/** 0 Monday to 6 Sunday. 1970-01-01 was a Thursday. */
const weekdayOf = (day: number): number => (day + 3) % daysPerWeek;

/**
 * The first day of the week a day is in, where weeks begin on `weekStart` (0 Monday, as in ISO 8601, to 6 Sunday).
 * (`2026-06-03`, 0) → `2026-06-01`; (`2026-06-03`, 6) → `2026-05-31`.
 */
export function startOfWeek(date: LocalDate, weekStart: number): LocalDate {
  const day = toDayNumber(date);
  return fromDayNumber(day - ((weekdayOf(day) - weekStart + daysPerWeek) % daysPerWeek));
}

/** The first days of `count` weeks, that of `today` first. */
export function listWeeks(today: LocalDate, count: number, weekStart: number): LocalDate[] {
  const first = startOfWeek(today, weekStart);
  return Array.from({ length: count }, (_, i) => addDays(first, i * daysPerWeek));
}

/** Which of the weeks a day is in, 0 for the first and all before it; the number of weeks for all after. */
export function weekOf(date: LocalDate, firstBegins: LocalDate): number {
  return Math.max(0, Math.floor((toDayNumber(date) - toDayNumber(firstBegins)) / daysPerWeek));
}

/** The weeks of a forecast, worked out once for all boats: their first days, and the season (`sumUntil`) at the end of each. */
export interface WeekGrid {
  readonly begins: readonly LocalDate[];
  readonly firstDay: number;
  readonly sums: readonly number[];
  readonly season: Season;
}
export function createWeekGrid(today: LocalDate, count: number, season: Season, weekStart: number): WeekGrid {
  const begins = listWeeks(today, count, weekStart);
  const sums = begins.map((begins) => season.sumUntil(addDays(begins, daysPerWeek - 1)));
  return { begins, firstDay: toDayNumber(begins[0]!), sums, season };
}

/** `weekOf` on a grid. */
export function weekIn({ firstDay }: WeekGrid, date: LocalDate): number {
  return Math.max(0, Math.floor((toDayNumber(date) - firstDay) / daysPerWeek));
}

/** Labour hours of a day, and of the week that begins on it; closed days have none. */
export function capacityOfDay({ hoursPerDay, closed }: Workshop, date: LocalDate): number {
  if (closed.some(({ from, to }) => from <= date && date <= to)) return 0;
  return hoursPerDay[weekdayOf(toDayNumber(date))]!;
}
/** A workshop that is closed for longer names its own day. */
const mostClosedDays = 60;
/** That day, or the next on which the workshop works; that day where there is none soon. */
export function findOpenDay(workshop: Workshop, day: LocalDate): LocalDate {
  for (let i = 0; i < mostClosedDays; i++) if (capacityOfDay(workshop, addDays(day, i)) > 0) return addDays(day, i);
  return day;
}
export function capacityOfWeek(workshop: Workshop, begins: LocalDate): number {
  return Array.from({ length: daysPerWeek }, (_, i) => capacityOfDay(workshop, addDays(begins, i))).reduce(
    (a, b) => a + b,
    0,
  );
}
