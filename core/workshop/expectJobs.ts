import { addDays, type IsoDate } from "../dates/index.ts";
import { chanceOfReaching, measureRun } from "../hours/index.ts";
import { type ServiceItem, seasonStart } from "../service/index.ts";
import type { ExpectedJob, JobKind } from "./load.ts";
import { type WeekGrid, weekIn } from "./weeks.ts";

/** One engine's hours as believed: where it stood when last read, and the owner's yearly rate. */
export interface EngineBelief {
  readonly lastH: number;
  readonly meanH: number;
  readonly varianceH2: number;
  readonly tripMeanH: number;
}

/** What falls due next of an item: by hours, by calendar, or within a season; null for what does not hold. */
export interface NextTarget {
  readonly item: ServiceItem;
  readonly targetH: number | null;
  readonly calendarDate: IsoDate | null;
  readonly likelyDate: IsoDate;
  readonly isOverdue: boolean;
}

const usualEarlyDays = 45;
const overdueWeeks = 8;
const leastChance = 1e-4;

/**
 * The chance of each week that an item falls due in it: by hours as the owner is believed to run, by the calendar at the
 * latest. `massBy[w]`: share of a year's hours that falls between the last reading and the end of week w. Null where it
 * falls due in none of the weeks.
 */
export function expectJob(
  boat: string,
  scope: string,
  { item, targetH, calendarDate, likelyDate, isOverdue }: NextTarget,
  belief: EngineBelief | null,
  massBy: readonly number[],
  grid: WeekGrid,
): ExpectedJob | null {
  const count = grid.mondays.length;
  const calendarWeek = calendarDate === null ? count : weekIn(grid, calendarDate);
  let firstWeek = 0;
  // Only the weeks that have a chance are kept: there is a job for each item of each engine of a fleet.
  const chances: number[] = [];
  if (item.season !== undefined && calendarDate !== null) {
    // Within its season people come when they like: evenly.
    firstWeek = weekIn(grid, seasonStart(item.season, calendarDate));
    const to = Math.min(count - 1, calendarWeek);
    for (let week = firstWeek; week <= to; week++) chances.push(1 / (calendarWeek - firstWeek + 1));
  } else if (isOverdue) {
    // What is past due comes when its owner is reached: evenly over the next weeks.
    for (let week = 0; week < Math.min(count, overdueWeeks); week++) chances.push(1 / overdueWeeks);
  } else {
    const leftH = targetH === null || belief === null ? 0 : targetH - belief.lastH;
    const byHours = (week: number) => {
      if (targetH === null || belief === null) return 0;
      const run = measureRun(belief.meanH, belief.varianceH2, massBy[week]!, belief.tripMeanH);
      return chanceOfReaching(run.meanH, run.varianceH2, leftH);
    };
    // Hours come ever nearer: what is not reached by the end is reached in no week.
    const last = Math.min(count, calendarWeek) - 1;
    const isInReach = last >= 0 && byHours(last) > leastChance;
    firstWeek = isInReach ? findFirst(last, (week) => byHours(week) > leastChance) : Math.min(count, calendarWeek);
    let before = 0;
    for (let week = firstWeek; week < count && before < 1 - leastChance; week++) {
      const by = week >= calendarWeek ? 1 : byHours(week);
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
    dueDate: likelyDate,
    earliest: addDays(likelyDate, -(item.earlyDays ?? usualEarlyDays)),
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
