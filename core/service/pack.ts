import { z } from "zod";
import { addDays, addMonths, type LocalDate, startOfMonth, writeDate, yearOf } from "../dates/index.ts";
import { plainText } from "../rig/index.ts";
import { dueItemSchema } from "./dueContract.ts";

const itemSchema = dueItemSchema.extend({
  title: plainText(60),
  work: z.array(plainText(80)).min(1),
  parts: z.array(plainText(80)).optional(),
  labourH: z.number().min(0).max(100).optional(),
  /** What the store asks for it, where it has filled that in; in hundredths of its currency. */
  priceCents: z.int().min(0).max(100_000_000).optional(),
  /** How many days before it falls due it may be done along with something else. */
  earlyDays: z.int().min(0).max(365).optional(),
  /** Done once a year within these months, 1 to 12, whatever the hours; may go over the turn of the year. */
  season: z.strictObject({ fromMonth: z.int().min(1).max(12), toMonth: z.int().min(1).max(12) }).optional(),
  /** A boat has it only with one of these. */
  needs: z.enum(["trailer", "flooded-battery"]).optional(),
});

/** A service pack as it is kept: what a store saved before a rule was made is read all the same. */
export const keptServicePackSchema = z.strictObject({
  id: z.string(),
  title: plainText(80),
  basis: plainText(200),
  items: z.array(itemSchema).min(1),
});

/**
 * What falls due in an engine's life. Hours are engine hours; the maker's schedule comes first where it differs. Refused
 * are items that never fall due, those of a season that name hours too, and ids that are there twice.
 */
export const servicePackSchema = keptServicePackSchema.superRefine(({ items }, check) => {
  const blame = (i: number, message: string) => check.addIssue({ code: "custom", path: ["items", i], message });
  const seen = new Set<string>();
  for (const [i, { id, title, season, firstH, everyH, firstMonths, everyMonths }] of items.entries()) {
    const isTimed = [firstH, everyH, firstMonths, everyMonths].some((value) => value !== undefined);
    if (season === undefined && !isTimed) blame(i, `"${title}" never falls due: give it hours, months or a season`);
    if (season !== undefined && (firstH !== undefined || everyH !== undefined))
      blame(i, `"${title}" has a season and hours: of the two only one can count`);
    if (seen.has(id)) blame(i, `"${id}" is there twice`);
    seen.add(id);
  }
});
export type ServicePack = z.infer<typeof servicePackSchema>;
export type ServiceItem = ServicePack["items"][number];

/**
 * The items of a pack that can come on a boat. What is done once only, such as the first service, lies behind a used one,
 * unless this store did it itself (`wasDone`).
 */
export function listComing(
  items: readonly ServiceItem[],
  isUsed: boolean,
  wasDone: (item: string) => boolean,
): ServiceItem[] {
  const isOnce = ({ everyH, everyMonths }: ServiceItem) => everyH === undefined && everyMonths === undefined;
  return items.filter((item) => !isUsed || !isOnce(item) || wasDone(item.id));
}

/** The first day of the season that ends on `end`. (October to November, `2026-11-30`) → `2026-10-01`. */
export function seasonStart(
  season: { readonly fromMonth: number; readonly toMonth: number },
  end: LocalDate,
): LocalDate {
  const first = addMonths(startOfMonth(end), -((season.toMonth - season.fromMonth + 12) % 12));
  return startOfMonth(first);
}

/** The last day of the season on or after which `date` falls: of this year's, or the next one's. */
export function seasonEnd(
  season: { readonly fromMonth: number; readonly toMonth: number },
  date: LocalDate,
): LocalDate {
  const ofYear = (year: number) => addDays(addMonths(writeDate(year, season.toMonth, 1), 1), -1);
  const year = yearOf(date);
  return ofYear(year) >= date ? ofYear(year) : ofYear(year + 1);
}

/** The end of the season in which something is to be done next, on `today` or later, that was done last on `last`. */
export function nextSeasonEnd(
  season: { readonly fromMonth: number; readonly toMonth: number },
  last: LocalDate,
  today: LocalDate,
): LocalDate {
  let end = seasonEnd(season, today);
  while (seasonStart(season, end) <= last) end = addMonths(end, 12);
  return end;
}
