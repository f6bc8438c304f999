import { addDays, daysInMonth, fromDayNumber, type IsoDate, toDayNumber } from "../dates/index.ts";

/** The hours expected on each day from `today` for `days` days, and the first day on which so many are reached. */
export function createHoursLine(hoursNow: number, today: IsoDate, monthlyHours: readonly number[], days: number) {
  const first = toDayNumber(today);
  const hours = new Float64Array(days + 1);
  hours[0] = hoursNow;
  let day = 1;
  while (day <= days) {
    const date = fromDayNumber(first + day);
    const month = +date.slice(5, 7);
    const inMonth = daysInMonth(+date.slice(0, 4), month);
    const perDay = (monthlyHours[month - 1] ?? 0) / inMonth;
    for (let dom = +date.slice(8, 10); dom <= inMonth && day <= days; dom++, day++)
      hours[day] = hours[day - 1]! + perDay;
  }
  return {
    /** Today's at the earliest, those of the last day at the latest. */
    hoursOn: (date: IsoDate) => hours[Math.max(0, Math.min(days, toDayNumber(date) - first))]!,
    /** Today when they are reached already; null when they are not by the last day. */
    dateOf(target: number): IsoDate | null {
      if (hours[days]! < target) return null;
      let low = 0;
      let high = days;
      while (low < high) {
        const middle = (low + high) >> 1;
        if (hours[middle]! >= target) high = middle;
        else low = middle + 1;
      }
      return addDays(today, low);
    },
  };
}
