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

/** The Monday of the week a day is in. `2026-06-03` → `2026-06-01`. */
export function startOfWeek(date: LocalDate): LocalDate {
  const day = toDayNumber(date);
  // 1970-01-01 was a Thursday.
  return fromDayNumber(day - ((day + 3) % daysPerWeek));
}

/** The Mondays of `count` weeks, that of `today` first. */
export function listWeeks(today: LocalDate, count: number): LocalDate[] {
  const first = startOfWeek(today);
  return Array.from({ length: count }, (_, i) => addDays(first, i * daysPerWeek));
}

/** Which of the weeks a day is in, 0 for the first and all before it; the number of weeks for all after. */
export function weekOf(date: LocalDate, firstMonday: LocalDate): number {
  return Math.max(0, Math.floor((toDayNumber(date) - toDayNumber(firstMonday)) / daysPerWeek));
}

/** The weeks of a forecast, worked out once for all boats: their Mondays, and the season (`sumUntil`) at the end of each. */
export interface WeekGrid {
  readonly mondays: readonly LocalDate[];
  readonly firstDay: number;
  readonly sums: readonly number[];
  readonly season: Season;
}
export function createWeekGrid(today: LocalDate, count: number, season: Season): WeekGrid {
  const mondays = listWeeks(today, count);
  const sums = mondays.map((monday) => season.sumUntil(addDays(monday, daysPerWeek - 1)));
  return { mondays, firstDay: toDayNumber(mondays[0]!), sums, season };
}

/** `weekOf` on a grid. */
export function weekIn({ firstDay }: WeekGrid, date: LocalDate): number {
  return Math.max(0, Math.floor((toDayNumber(date) - firstDay) / daysPerWeek));
}

/** Labour hours of a day, and of the week that begins on a Monday; closed days have none. */
export function capacityOfDay({ hoursPerDay, closed }: Workshop, date: LocalDate): number {
  if (closed.some(({ from, to }) => from <= date && date <= to)) return 0;
  return hoursPerDay[(toDayNumber(date) + 3) % daysPerWeek]!;
}
export function capacityOfWeek(workshop: Workshop, monday: LocalDate): number {
  return Array.from({ length: daysPerWeek }, (_, i) => capacityOfDay(workshop, addDays(monday, i))).reduce(
    (a, b) => a + b,
    0,
  );
}
