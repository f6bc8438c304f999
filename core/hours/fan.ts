import { z } from "zod";
import { addMonths, type IsoDate, isoDateSchema } from "../dates/index.ts";
import { sumSeason } from "./internal/season.ts";
import { describeOwner, type Owner } from "./owner.ts";

export const fanSchema = z.array(
  z.strictObject({ date: isoDateSchema, p10: z.number(), p50: z.number(), p90: z.number() }),
);
export type Fan = z.infer<typeof fanSchema>;

/** Hours run while a share of the season passes: mean and variance of the owner's trips, their rate not known for sure. */
export function measureRun(meanH: number, varianceH2: number, share: number, tripMeanH: number) {
  return { meanH: meanH * share, varianceH2: 2 * tripMeanH * meanH * share + varianceH2 * share ** 2 };
}

/** Standard normal deviate of 0.9. */
const deviate90 = 1.2816;

/**
 * A quantile of hours with this mean and variance taken as gamma, by the cube-root normal of Wilson and Hilferty (1931).
 * Good to a percent where some trips are expected; below that it is 0 for the lower ones, as it is in truth.
 */
export function gammaQuantile(meanH: number, varianceH2: number, deviate: number): number {
  if (meanH <= 0) return 0;
  const shape = meanH ** 2 / varianceH2;
  const root = 1 - 1 / (9 * shape) + deviate / (3 * Math.sqrt(shape));
  return meanH * Math.max(0, root) ** 3;
}

/** Chance that hours with this mean and variance, taken as gamma, come to `hours` or more (Wilson and Hilferty). */
export function chanceOfReaching(meanH: number, varianceH2: number, hours: number): number {
  if (hours <= 0) return 1;
  if (meanH <= 0) return 0;
  const shape = meanH ** 2 / varianceH2;
  const z = (Math.cbrt(hours / meanH) - (1 - 1 / (9 * shape))) * 3 * Math.sqrt(shape);
  return 1 - normalShare(z);
}

/** Share of the standard normal below z. Abramowitz and Stegun 26.2.17, error under 1e-7. */
function normalShare(z: number): number {
  const x = Math.abs(z);
  const t = 1 / (1 + 0.2316419 * x);
  const tail =
    0.3989423 *
    Math.exp((-x * x) / 2) *
    t *
    (0.3193815 + t * (-0.3565638 + t * (1.781478 + t * (-1.821256 + t * 1.330274))));
  return z > 0 ? 1 - tail : tail;
}

/** Hours an engine will likely show at the end of each of the next months: tenth, half and nine tenths. */
export function fanHours(
  owner: Owner,
  last: { readonly date: IsoDate; readonly hours: number },
  today: IsoDate,
  seasonShare: readonly number[],
  tripMeanH: number,
  months = 14,
): Fan {
  const { meanH, varianceH2 } = describeOwner(owner);
  return Array.from({ length: months + 1 }, (_, i) => {
    const date = i === 0 && today > last.date ? today : addMonths(today, i);
    const run = measureRun(meanH, varianceH2, sumSeason(last.date, date, seasonShare), tripMeanH);
    const at = (deviate: number) =>
      last.hours + (run.meanH <= 0 ? 0 : gammaQuantile(run.meanH, run.varianceH2, deviate));
    return { date, p10: at(-deviate90), p50: at(0), p90: at(deviate90) };
  });
}
