import { z } from "zod";
import { addMonths, type LocalDate, localDateSchema } from "../dates/index.ts";
import type { HourForecast } from "./forecast.ts";

export const fanSchema = z.array(
  z.strictObject({ date: localDateSchema, p10: z.number(), p50: z.number(), p90: z.number() }),
);
export type Fan = z.infer<typeof fanSchema>;

const usualMonths = 14;

/** Hours an engine will likely show today and at the end of each of the next months: tenth, half and nine tenths. */
export function fanHours(forecast: HourForecast, today: LocalDate, months = usualMonths): Fan {
  return Array.from({ length: months + 1 }, (_, i) => {
    const date = addMonths(today, i);
    return { date, ...forecast.hoursOn(date) };
  });
}
