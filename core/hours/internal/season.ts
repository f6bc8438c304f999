import { daysInMonth, fromDayNumber, type IsoDate, toDayNumber } from "../../dates/index.ts";

/** The days after `after` until `untilDay`, one by one, with the share of a year's hours on each, until `note` says enough. */
export function eachDay(
  after: IsoDate,
  untilDay: number,
  share: readonly number[],
  note: (day: number, share: number) => boolean,
) {
  let day = toDayNumber(after) + 1;
  while (day <= untilDay) {
    const date = fromDayNumber(day);
    const month = +date.slice(5, 7);
    const inMonth = daysInMonth(+date.slice(0, 4), month);
    const perDay = share[month - 1]! / inMonth;
    for (let dom = +date.slice(8, 10); dom <= inMonth && day <= untilDay; dom++, day++) if (note(day, perDay)) return;
  }
}

/** How much of a year's hours falls on the days after `after` until `until`; 1 for a whole year. */
export function sumSeason(after: IsoDate, until: IsoDate, share: readonly number[]): number {
  const last = toDayNumber(until);
  let day = toDayNumber(after) + 1;
  let sum = 0;
  while (day <= last) {
    const date = fromDayNumber(day);
    const month = +date.slice(5, 7);
    const inMonth = daysInMonth(+date.slice(0, 4), month);
    const days = Math.min(inMonth - +date.slice(8, 10), last - day) + 1;
    sum += (share[month - 1]! / inMonth) * days;
    day += days;
  }
  return sum;
}

/** The first day after `after` by which this much of a year's hours has fallen; null when that is after `untilDay`. */
export function findSeasonDay(
  after: IsoDate,
  untilDay: number,
  share: readonly number[],
  mass: number,
): IsoDate | null {
  let sum = 0;
  let found: IsoDate | null = null;
  eachDay(after, untilDay, share, (day, perDay) => {
    sum += perDay;
    // What is summed day by day falls short of the sum of whole months by a rounding.
    if (sum < mass - 1e-12) return false;
    found = fromDayNumber(day);
    return true;
  });
  return found;
}

/** Sums of the season between any two days from `from` on, looked up instead of added up. */
export function createSeasonLine(from: IsoDate, days: number, share: readonly number[]) {
  const first = toDayNumber(from);
  const sums = new Float64Array(days + 1);
  eachDay(from, first + days, share, (day, perDay) => {
    sums[day - first] = sums[day - first - 1]! + perDay;
    return false;
  });
  const at = (dayNumber: number) => sums[Math.max(0, Math.min(days, dayNumber - first))]!;
  /** The share of a year's hours that falls on the days after one day number until another. */
  return (afterDay: number, untilDay: number): number => Math.max(0, at(untilDay) - at(afterDay));
}
