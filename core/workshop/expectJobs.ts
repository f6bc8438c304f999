import { addDays, type IsoDate } from "../dates/index.ts";
import { chanceOfReaching, measureRun } from "../hours/index.ts";
import { type ServiceItem, seasonStart } from "../service/index.ts";
import type { ExpectedJob, JobKind } from "./load.ts";
import { type WeekGrid, weekOf } from "./weeks.ts";

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
 * latest. `massBy[w]`: share of a year's hours that falls between the last reading and the end of week w.
 */
export function expectJob(
  boat: string,
  scope: string,
  { item, targetH, calendarDate, likelyDate, isOverdue }: NextTarget,
  belief: EngineBelief | null,
  massBy: Float64Array,
  grid: WeekGrid,
): ExpectedJob | null {
  const count = grid.mondays.length;
  const firstMonday = grid.mondays[0]!;
  const chances = new Float64Array(count);
  const calendarWeek = calendarDate === null ? count : weekOf(calendarDate, firstMonday);
  if (item.season !== undefined && calendarDate !== null) {
    // Within its season people come when they like: evenly.
    const from = weekOf(seasonStart(item.season, calendarDate), firstMonday);
    const to = Math.min(count - 1, calendarWeek);
    for (let week = from; week <= to; week++) chances[week] = 1 / (calendarWeek - from + 1);
  } else if (isOverdue) {
    // What is past due comes when its owner is reached: evenly over the next weeks.
    for (let week = 0; week < Math.min(count, overdueWeeks); week++) chances[week] = 1 / overdueWeeks;
  } else {
    const byHours = (week: number) => {
      if (targetH === null || belief === null) return 0;
      const run = measureRun(belief.meanH, belief.varianceH2, massBy[week]!, belief.tripMeanH);
      return chanceOfReaching(run.meanH, run.varianceH2, targetH - belief.lastH);
    };
    // Hours come ever nearer: what is not reached by the end is reached in no week.
    const last = Math.min(count, calendarWeek) - 1;
    const isInReach = last >= 0 && byHours(last) > leastChance;
    let before = 0;
    for (let week = isInReach ? 0 : Math.min(count, calendarWeek); week < count && before < 1 - leastChance; week++) {
      const by = week >= calendarWeek ? 1 : byHours(week);
      chances[week] = Math.max(0, by - before);
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
    chances,
  };
}

const kindOf = ({ id, season, everyMonths }: ServiceItem): JobKind =>
  id === "first-service"
    ? "first-service"
    : season !== undefined
      ? "season"
      : everyMonths === undefined
        ? "other"
        : "yearly";
