import { addDays, daysInMonth, fromDayNumber, type IsoDate, toDayNumber } from "../dates/index.ts";

/**
 * The hours expected on each day from `today` for `days` days, and the first day on which so many are reached. Within a
 * month hours come evenly, so that only the ends of months are kept.
 */
export function createHoursLine(hoursNow: number, today: IsoDate, monthlyHours: readonly number[], days: number) {
  const first = toDayNumber(today);
  /** Days after today at which each stretch ends, and the hours then; the first stretch is today itself. */
  const ends = [0];
  const hours = [hoursNow];
  const perDay = [0];
  let year = +today.slice(0, 4);
  let month = +today.slice(5, 7);
  let left = daysInMonth(year, month) - +today.slice(8, 10);
  while (ends.at(-1)! < days) {
    const span = Math.min(left, days - ends.at(-1)!);
    const each = (monthlyHours[month - 1] ?? 0) / daysInMonth(year, month);
    if (span > 0) {
      ends.push(ends.at(-1)! + span);
      hours.push(hours.at(-1)! + each * span);
      perDay.push(each);
    }
    month = month === 12 ? 1 : month + 1;
    if (month === 1) year++;
    left = daysInMonth(year, month);
  }
  const last = ends.length - 1;
  return {
    /** Today's at the earliest, those of the last day at the latest. */
    hoursOn(date: IsoDate): number {
      const day = Math.max(0, Math.min(days, toDayNumber(date) - first));
      const stretch = ends.findIndex((end) => end >= day);
      return stretch <= 0 ? hoursNow : hours[stretch - 1]! + perDay[stretch]! * (day - ends[stretch - 1]!);
    },
    /** Today when they are reached already; null when they are not by the last day. */
    dateOf(target: number): IsoDate | null {
      if (target <= hoursNow) return today;
      if (hours[last]! < target) return null;
      const stretch = hours.findIndex((end) => end >= target);
      const from = ends[stretch - 1]!;
      // Division may fall short of the day by a rounding.
      let day = Math.max(1, Math.ceil((target - hours[stretch - 1]!) / perDay[stretch]! - 1e-9));
      while (hours[stretch - 1]! + perDay[stretch]! * day < target && from + day < ends[stretch]!) day++;
      return addDays(fromDayNumber(first), from + day);
    },
  };
}
