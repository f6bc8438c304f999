import { z } from "zod";
import { addDays, addMonths, type LocalDate, localDateSchema } from "../dates/index.ts";
import { dayRangeSchema } from "../hours/index.ts";
import { findDue, type Scope, type ServiceDue } from "./listDue.ts";
import { type ServiceItem, seasonStart } from "./pack.ts";
import { type Done, findLast } from "./targets.ts";
import { visits } from "./visits.ts";

export const years = 5;
const usualEarlyDays = 45;
/** What is overdue is wanted within this time. */
const overdueDays = 14;

/** Gear aboard that goes out of date on a day. */
export interface Dated {
  readonly id: string;
  readonly title: string;
  readonly date: LocalDate;
}
const ofGear = {
  scope: "boat",
  label: "Gear",
  work: ["Changed, or looked over by somebody who may"] as string[],
  parts: [] as string[],
  labourH: 0.2,
  priceCents: null,
  by: "calendar" as const,
  range: null,
  isAnyDay: false,
};

export const plannedItemSchema = z.strictObject({
  scope: z.string(),
  label: z.string(),
  item: z.string(),
  title: z.string(),
  work: z.array(z.string()),
  parts: z.array(z.string()),
  labourH: z.number(),
  /** As the store has filled it in; null where it has not. */
  priceCents: z.int().nullable(),
  dueDate: localDateSchema,
  by: z.enum(["hours", "calendar", "season"]),
  /** As of `ServiceDue`. */
  range: dayRangeSchema.nullable(),
  isAnyDay: z.boolean(),
  isOverdue: z.boolean(),
});
export type PlannedItem = z.infer<typeof plannedItemSchema>;
export const plannedVisitSchema = z.strictObject({
  date: localDateSchema,
  labourH: z.number(),
  /** Of the items that have a price; null where none has. */
  priceCents: z.int().nullable(),
  items: z.array(plannedItemSchema),
});
export type PlannedVisit = z.infer<typeof plannedVisitSchema>;

/**
 * The next five years of a boat as visits to the workshop, as few as can be: each item from when it may be done early
 * until it falls due. Hours are those expected; what falls due again after a visit is counted from that due date.
 */
export function planYears(today: LocalDate, scopes: readonly Scope[], dated: readonly Dated[] = []): PlannedVisit[] {
  const until = addMonths(today, 12 * years);
  const found: { id: string; earliest: LocalDate; latest: LocalDate; planned: PlannedItem }[] = [];
  for (const scope of scopes)
    for (const item of scope.items)
      for (const next of listOccurrences(scope, item, today, until)) {
        const { dueDate, by, range, isAnyDay } = next as ServiceDue & { dueDate: LocalDate; by: PlannedItem["by"] };
        const isOverdue = next.state === "overdue";
        const earliest = addDays(dueDate, -(item.earlyDays ?? usualEarlyDays));
        found.push({
          id: `${scope.id} ${item.id} ${found.length}`,
          earliest: by === "season" ? seasonStart(item.season!, dueDate) : earliest,
          latest: isOverdue ? addDays(today, overdueDays) : dueDate,
          planned: {
            scope: scope.id,
            label: scope.label,
            item: item.id,
            title: item.title,
            work: item.work,
            parts: item.parts ?? [],
            labourH: item.labourH ?? 0,
            priceCents: item.priceCents ?? null,
            dueDate,
            by,
            range,
            isAnyDay,
            isOverdue,
          },
        });
      }
  for (const { id, title, date } of dated) {
    if (date > until) continue;
    const planned = { ...ofGear, item: id, title, dueDate: date, isOverdue: date < today };
    const latest = date < today ? addDays(today, overdueDays) : date;
    found.push({ id: `gear ${id}`, earliest: addDays(date, -usualEarlyDays), latest, planned });
  }
  const windows = found.map(({ id, earliest, latest }) => ({
    id,
    earliest: earliest < today ? today : earliest,
    latest: latest < today ? today : latest,
  }));
  const byId = new Map(found.map(({ id, planned }) => [id, planned]));
  return visits({ windows }).visits.map(({ date, items }) => {
    const planned = items.map((id) => byId.get(id)!);
    const prices = planned.flatMap(({ priceCents }) => priceCents ?? []);
    return {
      date,
      labourH: planned.reduce((sum, { labourH }) => sum + labourH, 0),
      priceCents: prices.length === 0 ? null : prices.reduce((sum, cents) => sum + cents, 0),
      items: planned,
    };
  });
}

/** Each time an item falls due until then; what falls due again is counted from the due date before it. */
function listOccurrences(scope: Scope, item: ServiceItem, today: LocalDate, until: LocalDate): ServiceDue[] {
  const found: ServiceDue[] = [];
  let last: Omit<Done, "item"> | null = findLast(scope.done, item.id);
  for (;;) {
    const next = findDue(scope, item, last, today);
    if (next.dueDate === null || next.dueDate > until) return found;
    found.push(next);
    // Served when due; what is overdue is served now.
    const date = next.dueDate < today ? today : next.dueDate;
    last = { date, hours: scope.forecast?.likelyOn(date) ?? 0 };
  }
}
