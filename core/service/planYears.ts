import { z } from "zod";
import { addDays, addMonths, differenceDays, type IsoDate, isoDateSchema } from "../dates/index.ts";
import { createHoursLine } from "./hoursLine.ts";
import { type ServiceItem, seasonEnd, seasonStart } from "./pack.ts";
import { visits } from "./visits.ts";

export const years = 5;
const usualEarlyDays = 45;
/** What is overdue is wanted within this time. */
const overdueDays = 14;

/** An engine with its pack, or the boat itself (`boat`) with what falls due by the calendar alone. */
export interface Scope {
  readonly id: string;
  readonly label: string;
  /** Hours likely now, and expected in each month from January; none for the boat itself. */
  readonly hoursNow: number;
  readonly monthlyHours: readonly number[];
  readonly items: readonly ServiceItem[];
  /** From when what was never done counts by the calendar, where that is not the day of the handover: a used engine. */
  readonly since?: IsoDate;
  /** What was done or skipped, in engine hours. */
  readonly done: readonly { readonly item: string; readonly date: IsoDate; readonly hours: number }[];
}

/** Gear aboard that goes out of date on a day. */
export interface Dated {
  readonly id: string;
  readonly title: string;
  readonly date: IsoDate;
}
const ofGear = {
  scope: "boat",
  label: "Gear",
  work: ["Changed, or looked over by somebody who may"] as string[],
  parts: [] as string[],
  labourH: 0.2,
  priceCents: null,
  by: "calendar" as const,
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
  dueDate: isoDateSchema,
  by: z.enum(["hours", "calendar", "season"]),
  isOverdue: z.boolean(),
});
export type PlannedItem = z.infer<typeof plannedItemSchema>;
export const plannedVisitSchema = z.strictObject({
  date: isoDateSchema,
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
export function planYears(
  inService: IsoDate,
  today: IsoDate,
  scopes: readonly Scope[],
  dated: readonly Dated[] = [],
): PlannedVisit[] {
  const until = addMonths(today, 12 * years);
  const found: { id: string; earliest: IsoDate; latest: IsoDate; planned: PlannedItem }[] = [];
  for (const scope of scopes)
    for (const item of scope.items)
      for (const { dueDate, by } of listOccurrences(scope, item, inService, today, until)) {
        const isOverdue = dueDate < today;
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

type Season = NonNullable<ServiceItem["season"]>;

interface Occurrence {
  readonly dueDate: IsoDate;
  readonly by: PlannedItem["by"];
}

function listOccurrences(
  scope: Scope,
  item: ServiceItem,
  inService: IsoDate,
  today: IsoDate,
  until: IsoDate,
): Occurrence[] {
  const done = scope.done.filter((each) => each.item === item.id).sort((a, b) => (a.date < b.date ? -1 : 1));
  let last = done.at(-1) ?? null;
  if (item.season !== undefined) return listSeasons(item.season, last?.date ?? inService, today, until);
  const line = createHoursLine(scope.hoursNow, today, scope.monthlyHours, differenceDays(until, today));
  const found: Occurrence[] = [];
  for (;;) {
    const stepH = last === null ? (item.firstH ?? item.everyH) : item.everyH;
    const stepMonths = last === null ? (item.firstMonths ?? item.everyMonths) : item.everyMonths;
    const byHours = stepH === undefined ? null : line.dateOf((last?.hours ?? 0) + stepH);
    const byCalendar = stepMonths === undefined ? null : addMonths(last?.date ?? scope.since ?? inService, stepMonths);
    const isCalendar = byCalendar !== null && (byHours === null || byCalendar <= byHours);
    const dueDate = isCalendar ? byCalendar : byHours;
    if (dueDate === null || dueDate > until) return found;
    found.push({ dueDate, by: isCalendar ? "calendar" : "hours" });
    // Served when due; what is overdue is served now.
    const servedOn = dueDate < today ? today : dueDate;
    last = { item: item.id, date: servedOn, hours: line.hoursOn(servedOn) };
  }
}

/** The ends of the seasons in which it is still to be done, the one going on now included. */
function listSeasons(season: Season, lastDone: IsoDate, today: IsoDate, until: IsoDate): Occurrence[] {
  const found: Occurrence[] = [];
  for (let dueDate = seasonEnd(season, today); dueDate <= until; dueDate = addMonths(dueDate, 12))
    if (seasonStart(season, dueDate) > lastDone) found.push({ dueDate, by: "season" });
  return found;
}
