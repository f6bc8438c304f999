import type { LocalDate } from "../core/dates/index.ts";
import type { Language } from "../core/language/index.ts";
import { formatDate, type Region } from "../core/region/index.ts";

export interface Days {
  /** 13 June 2026, in the store's order. */
  readonly printDay: (date: LocalDate) => string;
  /** 13 Jun 2026, for a table. */
  readonly printShortDay: (date: LocalDate) => string;
}

/** Days as the store writes them; in another language as that language does. */
export const createDays = ({ dateOrder }: Pick<Region, "dateOrder">, language: Language = "en"): Days => ({
  printDay: (date) => formatDate(date, "printed", dateOrder, language),
  printShortDay: (date) => formatDate(date, "dated", dateOrder, language),
});
