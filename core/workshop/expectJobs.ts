import { addDays } from "../dates/index.ts";
import type { HourForecast } from "../hours/index.ts";
import { type ServiceDue, type ServiceItem, seasonStart } from "../service/index.ts";
import type { ExpectedJob, JobKind } from "./load.ts";
import { type WeekGrid, weekIn } from "./weeks.ts";

const usualEarlyDays = 45;
const overdueWeeks = 8;
/** A thousandth of a job in a week is nobody's plan. */
const leastChance = 1e-3;
const idleShare = 1e-9;

/**
 * The chance of each week that an item falls due in it: by hours as the owner is believed to run, by the calendar at the
 * latest. Null where it falls due in none of the weeks.
 */
export function expectJob(
  boat: string,
  scope: string,
  { item, targetH, calendarDate, dueDate, range, isAnyDay, state }: ServiceDue,
  forecast: HourForecast | null,
  grid: WeekGrid,
): ExpectedJob | null {
  if (dueDate === null) return null;
  const count = grid.begins.length;
  const calendarWeek = calendarDate === null ? count : weekIn(grid, calendarDate);
  let firstWeek = 0;
  // Only the weeks that have a chance are kept: there is a job for each item of each engine of a fleet.
  const chances: number[] = [];
  if (item.season !== undefined && calendarDate !== null) {
    // Within its season people come when they like: evenly.
    firstWeek = weekIn(grid, seasonStart(item.season, calendarDate));
    const to = Math.min(count - 1, calendarWeek);
    for (let week = firstWeek; week <= to; week++) chances.push(1 / (calendarWeek - firstWeek + 1));
  } else if (state === "overdue") {
    // What is past due comes when its owner is reached: evenly over the next weeks.
    for (let week = 0; week < Math.min(count, overdueWeeks); week++) chances.push(1 / overdueWeeks);
  } else {
    const readAt = forecast === null ? 0 : grid.season.sumUntil(forecast.last.date);
    const byHours = (week: number) =>
      targetH === null || forecast === null ? 0 : forecast.chanceIn(targetH, grid.sums[week]! - readAt);
    // Hours come ever nearer: what is not reached by the end is reached in no week.
    const last = Math.min(count, calendarWeek) - 1;
    const isInReach = last >= 0 && byHours(last) > leastChance;
    firstWeek = isInReach ? findFirst(last, (week) => byHours(week) > leastChance) : Math.min(count, calendarWeek);
    let before = 0;
    for (let week = firstWeek; week < count && before < 1 - leastChance; week++) {
      // In weeks without a season nothing is run.
      const isIdle = week > firstWeek && grid.sums[week]! - grid.sums[week - 1]! < idleShare;
      const by = week >= calendarWeek ? 1 : isIdle ? before : byHours(week);
      chances.push(Math.max(0, by - before));
      before = Math.max(before, by);
    }
    if (before === 0) return null;
  }
  return {
    boat,
    scope,
    item: item.id,
    title: item.title,
    kind: kindOf(item),
    labourH: item.labourH ?? 1,
    dueDate,
    range,
    isAnyDay,
    earliest: addDays(dueDate, -(item.earlyDays ?? usualEarlyDays)),
    firstWeek,
    chances,
  };
}

/** The first week up to `last` for which `holds` does, which holds for all after it. */
function findFirst(last: number, holds: (week: number) => boolean): number {
  let low = 0;
  let high = last;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

const kindOf = ({ id, season, everyMonths }: ServiceItem): JobKind =>
  id === "first-service"
    ? "first-service"
    : season !== undefined
      ? "season"
      : everyMonths === undefined
        ? "other"
        : "yearly";
