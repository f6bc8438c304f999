import { z } from "zod";
import { localDateSchema } from "../dates/index.ts";

const hoursSchema = z.number().min(0).max(1e6);

/** What share of a year's hours falls in each month, January first. */
export const seasonShareSchema = z
  .array(z.number().min(0).max(1))
  .length(12)
  .refine((shares) => Math.abs(shares.reduce((sum, share) => sum + share, 0) - 1) < 1e-6, "must sum to 1");

export const fleetYearSchema = z.strictObject({
  /** Engine hours of a year. */
  mean: z.number().positive().max(8784),
  /** Spread between owners: standard deviation over mean. */
  cv: z.number().positive().max(5),
});
export type FleetYear = z.infer<typeof fleetYearSchema>;

/** Input of the contract `hours-forecast`. Hours are engine hours. */
export const forecastInputSchema = z
  .strictObject({
    readings: z.array(z.strictObject({ date: localDateSchema, hours: hoursSchema })).max(10_000),
    seasonShare: seasonShareSchema,
    fleetYearH: fleetYearSchema,
    today: localDateSchema,
    targetsH: z.array(hoursSchema).max(1000),
    /** Hours of a trip, in the mean. */
    tripMeanH: z.number().positive().max(240).optional(),
  })
  .superRefine(({ readings, today }, check) => {
    readings.forEach(({ date, hours }, i) => {
      const last = readings[i - 1];
      if (last !== undefined && date < last.date)
        check.addIssue({ code: "custom", path: ["readings", i, "date"], message: "must not be before the last" });
      if (last !== undefined && hours < last.hours)
        check.addIssue({ code: "custom", path: ["readings", i, "hours"], message: "must not fall" });
      if (date > today)
        check.addIssue({ code: "custom", path: ["readings", i, "date"], message: "must not be after today" });
    });
  });
export type ForecastInput = z.infer<typeof forecastInputSchema>;

const quantileDatesSchema = z.strictObject({
  targetH: z.number(),
  p10: localDateSchema.nullable(),
  p50: localDateSchema.nullable(),
  p90: localDateSchema.nullable(),
});
export const forecastOutputSchema = z.strictObject({
  targets: z.array(quantileDatesSchema),
  yearH: z.strictObject({ p10: z.number(), p50: z.number(), p90: z.number() }),
});
export type ForecastOutput = z.infer<typeof forecastOutputSchema>;
