import { TZDate } from "@date-fns/tz";
import { format } from "date-fns";
import type { IsoDate } from "../core/dates/index.ts";

/** The instant at which it is so many minutes after midnight of a day in a time zone; clock changes are reckoned in. */
export function instantOf(date: IsoDate, minutes: number, timeZone: string): number {
  const [year, month, day] = [+date.slice(0, 4), +date.slice(5, 7), +date.slice(8, 10)];
  return new TZDate(year, month - 1, day, Math.floor(minutes / 60), minutes % 60, 0, timeZone).getTime();
}

/** The day it is at an instant (ISO 8601 or ms) in a time zone. */
export const dayOf = (instant: string | number, timeZone: string): IsoDate =>
  format(new TZDate(typeof instant === "string" ? Date.parse(instant) : instant, timeZone), "yyyy-MM-dd");

/** The hour of the day, 0 to 23, in a time zone. */
export const hourOf = (nowMs: number, timeZone: string): number => new TZDate(nowMs, timeZone).getHours();
