/** How a day is written. */
export const datePattern = /^(\d{4})-(\d{2})-(\d{2})$/;
const daysPerEra = 146_097;
const daysBefore1970 = 719_468;

/**
 * A calendar day, `YYYY-MM-DD`, as the store's wall calendar has it. A type of its own: what is cut out of an instant with
 * `slice` is any text and does not fit; `dayOf` says which day it is at an instant.
 */
export type LocalDate = `${number}-${number}-${number}`;

/** Whether a text is a day that exists, written as one. */
export const isLocalDate = (text: string): text is LocalDate => datePattern.test(text) && hasThisDay(text);

/** Two digits of a day as a number; read digit by digit, for this runs for each boat of a fleet many times over. */
const two = (date: LocalDate, at: number) => date.charCodeAt(at) * 10 + date.charCodeAt(at + 1) - 528;
/** Year, month (1..12) and day (1..31) of an existing day. */
export const yearOf = (date: LocalDate): number => two(date, 0) * 100 + two(date, 2);
export const monthOf = (date: LocalDate): number => two(date, 5);
export const dayOfMonth = (date: LocalDate): number => two(date, 8);

/** Days since 1970-01-01 of an existing day. `2020-01-02` → 18263. */
export function toDayNumber(date: LocalDate): number {
  // Years are counted from March, so that the day of a leap year comes last; eras of 400 years repeat. This runs for each
  // boat of a fleet many times over, and a Date for each would take most of the time (Fliegel and Van Flandern, 1968).
  const month = monthOf(date);
  const year = yearOf(date) - (month <= 2 ? 1 : 0);
  const era = Math.floor(year / 400);
  const yearOfEra = year - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + dayOfMonth(date) - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * daysPerEra + dayOfEra - daysBefore1970;
}

/** The day that is `dayNumber` days after 1970-01-01. 18263 → `2020-01-02`. */
export function fromDayNumber(dayNumber: number): LocalDate {
  const days = dayNumber + daysBefore1970;
  const era = Math.floor(days / daysPerEra);
  const dayOfEra = days - era * daysPerEra;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36_524) - Math.floor(dayOfEra / 146_096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const fromMarch = Math.floor((5 * dayOfYear + 2) / 153);
  const day = dayOfYear - Math.floor((153 * fromMarch + 2) / 5) + 1;
  const month = fromMarch < 10 ? fromMarch + 3 : fromMarch - 9;
  const year = yearOfEra + era * 400 + (month <= 2 ? 1 : 0);
  return writeDate(year, month, day);
}

/** The date `days` later (negative: earlier). (`2020-02-28`, 2) → `2020-03-01`. */
export function addDays(date: LocalDate, days: number): LocalDate {
  return fromDayNumber(toDayNumber(date) + days);
}

/** `later` minus `earlier` in days. (`2020-03-01`, `2020-02-28`) → 2. */
export function differenceDays(later: LocalDate, earlier: LocalDate): number {
  return toDayNumber(later) - toDayNumber(earlier);
}

/** The first day of the month. `2026-11-30` → `2026-11-01`. */
export const startOfMonth = (date: LocalDate): LocalDate => writeDate(yearOf(date), monthOf(date), 1);

/** How many days `month` (1..12) of `year` has. (2020, 2) → 29. */
export function daysInMonth(year: number, month: number): number {
  if (month === 2) return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28;
  return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31;
}

/** The same day `months` later, clamped to the month's end. (`2020-02-29`, 12) → `2021-02-28`. */
export function addMonths(date: LocalDate, months: number): LocalDate {
  const index = yearOf(date) * 12 + (monthOf(date) - 1) + months;
  const year = Math.floor(index / 12);
  const month = (index % 12) + 1;
  const day = Math.min(dayOfMonth(date), daysInMonth(year, month));
  return writeDate(year, month, day);
}

/** Of year, month (1..12) and day (1..31). */
export const writeDate = (year: number, month: number, day: number) =>
  `${String(year).padStart(4, "0")}-${month < 10 ? "0" : ""}${month}-${day < 10 ? "0" : ""}${day}` as LocalDate;

export function hasThisDay(text: string): boolean {
  const month = +text.slice(5, 7);
  const day = +text.slice(8, 10);
  return month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(+text.slice(0, 4), month);
}
