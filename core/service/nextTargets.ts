import { addDays, addMonths, differenceDays, type IsoDate } from "../dates/index.ts";
import { createHoursLine } from "./hoursLine.ts";
import { type ServiceItem, seasonEnd, seasonStart } from "./pack.ts";
import type { Scope } from "./planYears.ts";

/** What falls due next of an item: by hours, by the calendar, in a season. */
export interface ItemTarget {
  readonly item: ServiceItem;
  readonly targetH: number | null;
  readonly calendarDate: IsoDate | null;
  /** The earlier of the calendar and the day on which the hours are expected. */
  readonly likelyDate: IsoDate;
  readonly isOverdue: boolean;
}

const horizonYears = 3;

/** The next target of each item of a scope that falls within three years; items finished or further off are left out. */
export function nextTargets(inService: IsoDate, today: IsoDate, scope: Scope): ItemTarget[] {
  const until = addMonths(today, 12 * horizonYears);
  const runs = scope.monthlyHours.length > 0;
  const line = runs ? createHoursLine(scope.hoursNow, today, scope.monthlyHours, differenceDays(until, today)) : null;
  return scope.items.flatMap((item): ItemTarget[] => {
    const last = findLast(scope, item.id);
    if (item.season !== undefined) {
      const since = last?.date ?? inService;
      let end = seasonEnd(item.season, today);
      while (seasonStart(item.season, end) <= since) end = addMonths(end, 12);
      return [{ item, targetH: null, calendarDate: end, likelyDate: end, isOverdue: false }];
    }
    const stepH = last === null ? (item.firstH ?? item.everyH) : item.everyH;
    const stepMonths = last === null ? (item.firstMonths ?? item.everyMonths) : item.everyMonths;
    const targetH = stepH === undefined ? null : (last?.hours ?? 0) + stepH;
    const hoursDate = targetH === null || line === null ? null : line.dateOf(targetH);
    const since = last?.date ?? scope.since ?? inService;
    const calendarDate = stepMonths === undefined ? null : addMonths(since, stepMonths);
    const isByHours = hoursDate !== null && (calendarDate === null || hoursDate < calendarDate);
    const likelyDate = isByHours ? hoursDate : calendarDate;
    if (likelyDate === null || likelyDate > until) return [];
    const isOverdue = (calendarDate !== null && calendarDate < today) || (targetH !== null && scope.hoursNow > targetH);
    // Hours passed long ago say only today; so that the more overdue comes first, it is the calendar where that is earlier.
    return [
      {
        item,
        targetH,
        calendarDate,
        likelyDate: isOverdue && likelyDate >= today ? addDays(today, -1) : likelyDate,
        isOverdue,
      },
    ];
  });
}

/** The last time an item was done or skipped; null for never. */
export function findLast(scope: Pick<Scope, "done">, item: string) {
  let last: Scope["done"][number] | null = null;
  for (const done of scope.done)
    if (
      done.item === item &&
      (last === null || done.date > last.date || (done.date === last.date && done.hours > last.hours))
    )
      last = done;
  return last;
}
