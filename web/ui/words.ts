import { fromClock, type Instant, type LocalDate } from "../../core/dates/index.ts";
import { formatDate, formatTime as timeOf } from "../../core/region/index.ts";
import { storeMinutes, storeRegion } from "./storeTime.ts";
import { plainReader, type Reader } from "./tell.ts";

/** Numbers and days as the screens say them. */

/** 58 min; 1 h 58 min. */
export function formatMinutes(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole} min`;
  return whole % 60 === 0 ? `${whole / 60} h` : `${Math.floor(whole / 60)} h ${whole % 60} min`;
}

const atNoon = (date: LocalDate) => new Date(`${date}T12:00:00Z`);

/** Tue 17 Jun, in the store's order. */
export const formatDay = (date: LocalDate, { language }: Pick<Reader, "language"> = plainReader) =>
  formatDate(date, "short", storeRegion().dateOrder, language);
/** Saturday 14 June, in the store's order. */
export const formatLongDay = (date: LocalDate) => formatDate(date, "long", storeRegion().dateOrder);
/** 17 Jun 2026, in the store's order. */
export const formatDayAndYear = (date: LocalDate, { language }: Pick<Reader, "language"> = plainReader) =>
  formatDate(date, "dated", storeRegion().dateOrder, language);

/** 10:02 or 10:02 am, of whole minutes after midnight, by the store's clock. */
export const formatTime = (minuteOfDay: number, { language }: Pick<Reader, "language"> = plainReader) =>
  timeOf(minuteOfDay, storeRegion().clock, language);
/** 10:02 or 10:02 am, at the store. */
export const formatClock = (at: Instant | number, reader: Pick<Reader, "language"> = plainReader) =>
  formatTime(storeMinutes(at), reader);
/** A full hour along a chart: 10:00 or 10 am. */
export const formatHour = (minuteOfDay: number, reader: Pick<Reader, "language"> = plainReader) =>
  formatTime(minuteOfDay, reader).replace(":00\u00a0", "\u00a0");
/** The same of a time as it is kept: "13:30" → 1:30 pm. */
export const formatTimeOf = (clock: string, reader: Pick<Reader, "language"> = plainReader) =>
  formatTime(fromClock(clock), reader);

/** Engine hours where a break-in by tanks may make any number of them: 9.7; 10. */
export const formatHours = (hours: number) => String(Math.round(hours * 10) / 10);

/** 2 days ago; today; in 3 days; in 10 months. */
export function formatDistance(date: LocalDate, today: LocalDate, { tell }: Reader = plainReader): string {
  const days = Math.round((atNoon(date).getTime() - atNoon(today).getTime()) / 86_400_000);
  if (days === 0) return tell("today");
  if (days === 1) return tell("tomorrow");
  if (days === -1) return tell("yesterday");
  const size = Math.abs(days);
  const span =
    size < 60
      ? tell("{0} days", size)
      : size < 720
        ? tell("{0} months", Math.round(size / 30.4))
        : tell("{0} years", (size / 365).toFixed(1));
  return days < 0 ? tell("{0} ago", span) : tell("in {0}", span);
}

export const monthNames = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
] as const;

/** `, Ilse Varnholt` behind a name; nothing where there is nobody. */
export const afterComma = (text: string): string => (text === "" ? "" : `, ${text}`);

/** A number with the word that goes with it. (1, "thing is", "things are") → "1 thing is". */
export const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;
