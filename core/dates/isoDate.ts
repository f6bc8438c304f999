import { z } from "zod";

const pattern = /^(\d{4})-(\d{2})-(\d{2})$/;
const millisPerDay = 86_400_000;

/** A calendar day that exists, `YYYY-MM-DD`, in the store's time zone. 2023-02-29 is refused. */
export const isoDateSchema = z
  .string()
  .regex(pattern, "must be a date written YYYY-MM-DD")
  .refine((text) => !pattern.test(text) || hasThisDay(text), "is not a day that exists");

export type IsoDate = z.infer<typeof isoDateSchema>;

/** Days since 1970-01-01 of an existing day. `2020-01-02` → 18263. */
export function toDayNumber(date: IsoDate): number {
  return Date.UTC(+date.slice(0, 4), +date.slice(5, 7) - 1, +date.slice(8, 10)) / millisPerDay;
}

/** The day that is `dayNumber` days after 1970-01-01. 18263 → `2020-01-02`. */
export function fromDayNumber(dayNumber: number): IsoDate {
  return new Date(dayNumber * millisPerDay).toISOString().slice(0, 10);
}

/** The date `days` later (negative: earlier). (`2020-02-28`, 2) → `2020-03-01`. */
export function addDays(date: IsoDate, days: number): IsoDate {
  return fromDayNumber(toDayNumber(date) + days);
}

/** `later` minus `earlier` in days. (`2020-03-01`, `2020-02-28`) → 2. */
export function differenceDays(later: IsoDate, earlier: IsoDate): number {
  return toDayNumber(later) - toDayNumber(earlier);
}

/** How many days `month` (1..12) of `year` has. (2020, 2) → 29. */
export function daysInMonth(year: number, month: number): number {
  return new Date(Date.UTC(year, month, 0)).getUTCDate();
}

/** The same day `months` later, clamped to the month's end. (`2020-02-29`, 12) → `2021-02-28`. */
export function addMonths(date: IsoDate, months: number): IsoDate {
  const index = +date.slice(0, 4) * 12 + (+date.slice(5, 7) - 1) + months;
  const year = Math.floor(index / 12);
  const month = (index % 12) + 1;
  const day = Math.min(+date.slice(8, 10), daysInMonth(year, month));
  return `${String(year).padStart(4, "0")}-${String(month).padStart(2, "0")}-${String(day).padStart(2, "0")}`;
}

function hasThisDay(text: string): boolean {
  const month = +text.slice(5, 7);
  const day = +text.slice(8, 10);
  return month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(+text.slice(0, 4), month);
}
