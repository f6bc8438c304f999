import { z } from "zod";
import { differenceDays, type LocalDate, localDateSchema } from "../dates/index.ts";
import { dayRangeSchema, type HourForecast } from "../hours/index.ts";
import { dueStateSchema } from "./dueContract.ts";
import { nextSeasonEnd, type ServiceItem } from "./pack.ts";
import { type Done, findLast, findTarget } from "./targets.ts";

const soonH = 5;
const soonDays = 30;

/** An engine with its pack, or the boat itself (`boat`) with what falls due by the calendar alone. */
export interface Scope {
  readonly id: string;
  readonly label: string;
  /** Of the engine's hours; null for the boat itself. */
  readonly forecast: HourForecast | null;
  readonly items: readonly ServiceItem[];
  /** From when what was never done counts. */
  readonly since: LocalDate;
  readonly done: readonly Done[];
}

/** When something falls due next. Everywhere it is shown, it is this. */
export const dueDaySchema = z.strictObject({
  /** In engine hours, and the day on which they are likely reached; null where hours do not count, or are far off. */
  targetH: z.number().nullable(),
  hoursDate: localDateSchema.nullable(),
  calendarDate: localDateSchema.nullable(),
  /** The calendar's day or the middle of the forecast, whichever is earlier; of a season its end. Null when finished or far off. */
  dueDate: localDateSchema.nullable(),
  by: z.enum(["hours", "calendar", "season"]).nullable(),
  /** Where the day is a forecast: from a chance of a tenth to nine tenths, the calendar's day at the latest. */
  range: dayRangeSchema.nullable(),
  state: dueStateSchema,
  /** A forecast that may have come true already. */
  isAnyDay: z.boolean(),
});
export type DueDay = z.infer<typeof dueDaySchema>;

export interface ServiceDue extends DueDay {
  readonly item: ServiceItem;
}

/** What falls due next of each item of a scope, in the order of its pack. What is overdue keeps the day on which it fell due. */
export function listDue(scope: Scope, today: LocalDate): ServiceDue[] {
  return scope.items.map((item) => findDue(scope, item, findLast(scope.done, item.id), today));
}

/** `listDue` for one item that was done last as said. */
export function findDue(
  scope: Scope,
  item: ServiceItem,
  last: Omit<Done, "item"> | null,
  today: LocalDate,
): ServiceDue {
  // Each answer in one piece: this is asked a hundred thousand times for a large fleet.
  const isAnyDay = false;
  if (item.season !== undefined) {
    const end = nextSeasonEnd(item.season, last?.date ?? scope.since, today);
    const state = isNear(end, today) ? "soon" : "ahead";
    const ofHours = { targetH: null, hoursDate: null, range: null, isAnyDay };
    return { item, calendarDate: end, dueDate: end, by: "season", state, ...ofHours };
  }
  const target = findTarget(item, last, scope.since);
  const targetH = target?.hours ?? null;
  const calendarDate = target?.date ?? null;
  const hoursDate = targetH === null || scope.forecast === null ? null : scope.forecast.dateOf(targetH);
  const isByHours = hoursDate !== null && (calendarDate === null || hoursDate < calendarDate);
  const dueDate = isByHours ? hoursDate : calendarDate;
  if (dueDate === null) {
    const state = target === null ? "finished" : "ahead";
    return { item, targetH, hoursDate, calendarDate, dueDate, by: null, range: null, state, isAnyDay };
  }
  const range = isByHours ? findRange(scope.forecast!, targetH!, calendarDate) : null;
  const isOverdue = dueDate < today;
  const isSoon = isOverdue || isNear(dueDate, today) || isNearByHours(scope, targetH, today);
  return {
    item,
    targetH,
    hoursDate,
    calendarDate,
    dueDate,
    by: isByHours ? "hours" : "calendar",
    range,
    state: isOverdue ? "overdue" : isSoon ? "soon" : "ahead",
    isAnyDay: range !== null && !isOverdue && range.from < today,
  };
}

/** From when to when hours are likely reached, the calendar's day at the latest; null where they were read. */
function findRange(forecast: HourForecast, targetH: number, calendarDate: LocalDate | null): DueDay["range"] {
  if (targetH <= forecast.last.hours) return null;
  const { p10, p90 } = forecast.datesOf(targetH);
  return { from: p10!, to: earlier(p90, calendarDate) };
}

/** Whether no more than a few hours are left, as is likely by now. */
const isNearByHours = ({ forecast }: Scope, targetH: number | null, today: LocalDate): boolean =>
  targetH !== null && forecast !== null && targetH - forecast.likelyOn(today) <= soonH;

/** Which of two comes first; what falls due on no day comes last. */
export const compareDue = (a: Pick<ServiceDue, "dueDate">, b: Pick<ServiceDue, "dueDate">): number =>
  a.dueDate === b.dueDate ? 0 : a.dueDate !== null && (b.dueDate === null || a.dueDate < b.dueDate) ? -1 : 1;

const isNear = (date: LocalDate, today: LocalDate) => differenceDays(date, today) <= soonDays;
const earlier = (a: LocalDate | null, b: LocalDate | null) => (a === null || (b !== null && b < a) ? b : a);
