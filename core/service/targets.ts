import { addMonths, type LocalDate } from "../dates/index.ts";
import type { DueItem } from "./dueContract.ts";

/** A service that was done or skipped, in engine hours. */
export interface Done {
  readonly item: string;
  readonly date: LocalDate;
  readonly hours: number;
}

/** The last time an item was done or skipped; null for never. */
export function findLast<D extends Done>(done: readonly D[], item: string): D | null {
  let last: D | null = null;
  for (const each of done)
    if (
      each.item === item &&
      (last === null || each.date > last.date || (each.date === last.date && each.hours > last.hours))
    )
      last = each;
  return last;
}

/**
 * Where an item stands next, in engine hours and by the calendar, after it was done last, or counted from `since` where it
 * never was; null when it is finished (contract `due`). Months are added with the day clamped to the month's end.
 */
export function findTarget(
  item: DueItem,
  last: Omit<Done, "item"> | null,
  since: LocalDate,
): { hours: number | null; date: LocalDate | null } | null {
  const stepH = last === null ? (item.firstH ?? item.everyH) : item.everyH;
  const stepMonths = last === null ? (item.firstMonths ?? item.everyMonths) : item.everyMonths;
  if (stepH === undefined && stepMonths === undefined) return null;
  return {
    hours: stepH === undefined ? null : (last?.hours ?? 0) + stepH,
    date: stepMonths === undefined ? null : addMonths(last?.date ?? since, stepMonths),
  };
}
