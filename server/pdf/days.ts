import type { LocalDate } from "../../core/dates/index.ts";
import { formatDate, type Region } from "../../core/region/index.ts";

export interface Days {
  /** 13 June 2026, in the store's order. */
  readonly printDay: (date: LocalDate) => string;
  /** 13 Jun 2026, for a table. */
  readonly printShortDay: (date: LocalDate) => string;
}

/** Days as the store writes them. */
export const createDays = ({ dateOrder }: Pick<Region, "dateOrder">): Days => ({
  printDay: (date) => formatDate(date, "printed", dateOrder),
  printShortDay: (date) => formatDate(date, "dated", dateOrder),
});
