import { type LocalDate, toClock } from "../dates/index.ts";
import { type Language, locales } from "../language/index.ts";
import type { Region } from "./regionSchema.ts";

/**
 * How much of a day is said. short: Tue 17 Jun. long: Saturday 14 June. dated: 17 Jun 2026. printed: 17 June 2026; each in the
 * store's order (Tue Jun 17; Saturday June 14; Jun 17, 2026; June 17, 2026).
 */
export type DayStyle = "short" | "long" | "dated" | "printed";

const shapes: Record<DayStyle, Intl.DateTimeFormatOptions> = {
  short: { weekday: "short", day: "numeric", month: "short" },
  long: { weekday: "long", day: "numeric", month: "long" },
  dated: { day: "numeric", month: "short", year: "numeric" },
  printed: { day: "numeric", month: "long", year: "numeric" },
};
// Names of days and months are those of British English: "Sept" where it is short, as on screen until now.
const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(language: Language, style: DayStyle): Intl.DateTimeFormat {
  const key = `${language} ${style}`;
  const made = formats.get(key) ?? new Intl.DateTimeFormat(locales[language], { ...shapes[style], timeZone: "UTC" });
  formats.set(key, made);
  return made;
}

/** A day as the store writes it; in another language in the order of that language, unless the year stands first. A calendar day has no time zone: noon UTC is that day everywhere it is shown. */
export function formatDate(
  date: LocalDate,
  style: DayStyle,
  order: Region["dateOrder"],
  language: Language = "en",
): string {
  const noon = new Date(`${date}T12:00:00Z`);
  if (language !== "en" && order !== "ymd") return formatOf(language, style).format(noon);
  const parts = formatOf(language, style).formatToParts(noon);
  const find = (type: string) => parts.find((part) => part.type === type)?.value ?? "";
  const [weekday, day, month, year] = ["weekday", "day", "month", "year"].map(find);
  const said =
    order === "dmy"
      ? [weekday, day, month, year]
      : order === "mdy"
        ? [weekday, month, year === "" ? day : `${day},`, year]
        : [weekday, year, month, day];
  return said.filter((part) => part !== "").join(" ");
}

/**
 * A time of day as the store writes it, of whole minutes after midnight: (545, "24") → `09:05`, (545, "12") → `9:05 am`; noon is
 * 12:00 pm and midnight 12:00 am, past it the next day's time, in one piece where a line breaks. In another language by that language's clock of 24 hours.
 */
export function formatTime(minuteOfDay: number, clock: Region["clock"], language: Language = "en"): string {
  if (clock === "24" || language !== "en") return toClock(minuteOfDay);
  const hour = Math.floor(minuteOfDay / 60) % 24;
  const minute = String(minuteOfDay % 60).padStart(2, "0");
  return `${hour % 12 === 0 ? 12 : hour % 12}:${minute}\u00a0${hour < 12 ? "am" : "pm"}`;
}

/** An amount of money in hundredths, as the store writes it: $312.40; £312.40; €312.40. */
export function formatMoney(cents: number, { currency, spelling }: Pick<Region, "currency" | "spelling">): string {
  const locale = spelling === "us" ? "en-US" : "en-GB";
  try {
    return new Intl.NumberFormat(locale, { style: "currency", currency, currencyDisplay: "narrowSymbol" }).format(
      cents / 100,
    );
  } catch {
    return `${currency} ${(cents / 100).toFixed(2)}`;
  }
}
