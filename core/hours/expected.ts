import { z } from "zod";
import { type LocalDate, localDateSchema } from "../dates/index.ts";
import type { DatesThen } from "./forecast.ts";

/** From a chance of a tenth to one of nine tenths; `to` is null beyond ten years. */
export const dayRangeSchema = z.strictObject({ from: localDateSchema, to: localDateSchema.nullable() });
export type DayRange = z.infer<typeof dayRangeSchema>;

/** A day that is a forecast, as screens and papers say it. */
export const expectedDaySchema = z.strictObject({
  /** The middle; null beyond ten years. */
  date: localDateSchema.nullable(),
  /** Null where the day is known. */
  range: dayRangeSchema.nullable(),
  /** It may have come already: then no day is said. */
  isAnyDay: z.boolean(),
});
export type ExpectedDay = z.infer<typeof expectedDaySchema>;

export function describeExpected({ p10, p50, p90 }: DatesThen, today: LocalDate): ExpectedDay {
  const range = p10 === null || p10 === p90 ? null : { from: p10, to: p90 };
  return { date: p50, range, isAnyDay: range !== null && range.from < today && (p50 === null || p50 >= today) };
}
