import { addMonths, daysInMonth, fromDayNumber, type LocalDate, toDayNumber } from "../dates/index.ts";
import type { DueInput, DueOutput, DueState } from "./dueContract.ts";
import { findLast, findTarget } from "./targets.ts";

const defaults = { soonH: 5, soonDays: 30 } as const;
const horizonMonths = 240;

/**
 * Which service falls due when, by engine hours or by calendar, whichever comes first (contract `due`)?
 *
 * Hours in engine hours, months clamped to the month's end. The hours date is the first day on which the hours expected
 * from `monthlyHours` reach the target; none within 20 years is null. A tie of the two dates goes to the calendar.
 *
 * @example in service 2024-01-31, item { firstMonths: 1 } → calendarDate `2024-02-29`.
 */
export function due(input: DueInput): DueOutput {
  const soonH = input.soonH ?? defaults.soonH;
  const soonDays = input.soonDays ?? defaults.soonDays;
  const todayNumber = toDayNumber(input.today);
  const targets = input.items.map((item) => findTarget(item, findLast(input.done, item.id), input.inService));
  const hoursDates = reachDates(
    input,
    targets.map((target) => target?.hours ?? null),
  );
  return {
    items: input.items.map((item, i) => {
      const target = targets[i]!;
      if (target === null) {
        return {
          id: item.id,
          targetH: null,
          hoursDate: null,
          calendarDate: null,
          dueDate: null,
          by: null,
          state: "finished",
        };
      }
      const { hours, date } = target;
      const hoursDate = hoursDates[i]!;
      const byCalendar = date !== null && (hoursDate === null || date <= hoursDate);
      const dueDate = byCalendar ? date : hoursDate;
      const overdue = (date !== null && input.today > date) || (hours !== null && input.hoursNow > hours);
      const soon =
        (dueDate !== null && toDayNumber(dueDate) - todayNumber <= soonDays) ||
        (hours !== null && hours - input.hoursNow <= soonH);
      const state: DueState = overdue ? "overdue" : soon ? "soon" : "ahead";
      return {
        id: item.id,
        targetH: hours,
        hoursDate,
        calendarDate: date,
        dueDate,
        by: dueDate === null ? null : byCalendar ? "calendar" : "hours",
        state,
      };
    }),
  };
}

/** The first day on which each target is reached, in one pass over the days of 20 years. */
function reachDates(input: DueInput, targets: readonly (number | null)[]): (LocalDate | null)[] {
  const dates: (LocalDate | null)[] = targets.map(() => null);
  const waiting = targets
    .flatMap((hours, i) => (hours === null ? [] : [{ hours, i }]))
    .sort((a, b) => b.hours - a.hours);
  let hours = input.hoursNow;
  const settle = (date: LocalDate) => {
    while (waiting.length > 0 && waiting.at(-1)!.hours <= hours) dates[waiting.pop()!.i] = date;
  };
  settle(input.today);
  const lastDay = toDayNumber(addMonths(input.today, horizonMonths));
  let day = toDayNumber(input.today) + 1;
  while (waiting.length > 0 && day <= lastDay) {
    const date = fromDayNumber(day);
    const year = +date.slice(0, 4);
    const month = +date.slice(5, 7);
    const inMonth = daysInMonth(year, month);
    const perDay = input.monthlyHours[month - 1]! / inMonth;
    for (let dom = +date.slice(8, 10); dom <= inMonth && day <= lastDay; dom++, day++) {
      hours += perDay;
      if (waiting.length > 0 && waiting.at(-1)!.hours <= hours) settle(fromDayNumber(day));
    }
  }
  return dates;
}
