import type { LocalDate } from "../../core/dates/index.ts";

const long = new Intl.DateTimeFormat("en-GB", { timeZone: "UTC", day: "numeric", month: "long", year: "numeric" });
const short = new Intl.DateTimeFormat("en-GB", { timeZone: "UTC", day: "numeric", month: "short", year: "numeric" });
/** A calendar day has no time zone: noon UTC is that day everywhere it is printed. */
const atNoon = (date: LocalDate) => new Date(`${date}T12:00:00Z`);

/** 13 June 2026. */
export const printDay = (date: LocalDate): string => long.format(atNoon(date));
/** 13 Jun 2026, for a table. */
export const printShortDay = (date: LocalDate): string => short.format(atNoon(date));
