import {
  dayOfMonth,
  daysInMonth,
  fromDayNumber,
  type LocalDate,
  monthOf,
  toDayNumber,
  writeDate,
  yearOf,
} from "../dates/index.ts";

/** A year's hours as they fall on its days: the share of each month, January first, evenly over its days. */
export interface Season {
  readonly share: readonly number[];
  /** A year's hours that fall on all days until the end of this one, counted in years from the year 0 on. */
  sumUntil(date: LocalDate): number;
  /** How much of a year's hours falls on the days after `after` until `until`; 1 for a whole year, 0 where it is no later. */
  between(after: LocalDate, until: LocalDate): number;
  /** The first day after `after` by which this much of a year's hours has fallen. Infinity has none: null. */
  dayOf(after: LocalDate, mass: number): LocalDate | null;
}

/** Sums of shares fall short of what they stand for by a rounding; a day's share is a hundred thousand times as much. */
const rounding = 1e-9;

export function createSeason(share: readonly number[]): Season {
  const before = [0];
  for (const each of share) before.push(before.at(-1)! + each);
  const year = before[12]!;
  /** Of all years from the first on until the end of a day. */
  const sumUntil = (date: LocalDate) => {
    const month = monthOf(date);
    const whole = yearOf(date);
    return whole * year + before[month - 1]! + (share[month - 1]! * dayOfMonth(date)) / daysInMonth(whole, month);
  };
  return {
    share,
    sumUntil,
    between: (after, until) => (until <= after ? 0 : sumUntil(until) - sumUntil(after)),
    dayOf(after, mass) {
      if (!Number.isFinite(mass)) return null;
      const wanted = sumUntil(after) + mass - rounding;
      let whole = Math.floor(wanted / year);
      let month = 1;
      while (month <= 12 && whole * year + before[month]! < wanted) month++;
      if (month > 12) {
        whole++;
        month = 1;
        while (share[month - 1] === 0) month++;
      }
      const inMonth = daysInMonth(whole, month);
      const left = wanted - whole * year - before[month - 1]!;
      const day = Math.min(inMonth, Math.max(1, Math.ceil((left / share[month - 1]!) * inMonth)));
      const date = writeDate(whole, month, day);
      return date > after ? date : fromDayNumber(toDayNumber(after) + 1);
    },
  };
}
