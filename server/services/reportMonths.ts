import { addMonths } from "../../core/dates/index.ts";
import type { Span } from "../repositories/reports.ts";

/** The months from the turn of the years on, those without anything too: a gap says something. */
export function listMonths({ turn, to }: Span): string[] {
  const months: string[] = [];
  for (let n = 0; ; n++) {
    const month = addMonths(turn, n).slice(0, 7);
    if (month > to.slice(0, 7)) return months;
    months.push(month);
  }
}
