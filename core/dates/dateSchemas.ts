import { z } from "zod";
import type { Instant } from "./instant.ts";
import { datePattern, hasThisDay, type LocalDate } from "./localDate.ts";

// Apart from what reckons with days, so that a page that only shows them does not carry the schemas' library.

export const instantSchema = z.iso.datetime({
  error: "must be an instant such as 2026-01-31T09:30:00.000Z",
}) as unknown as z.ZodType<Instant, Instant>;

/** A calendar day that exists. 2023-02-29 is refused. */
export const localDateSchema = z
  .string()
  .regex(datePattern, "must be a date written YYYY-MM-DD")
  .refine((text) => !datePattern.test(text) || hasThisDay(text), "is not a day that exists") as unknown as z.ZodType<
  LocalDate,
  LocalDate
>;
