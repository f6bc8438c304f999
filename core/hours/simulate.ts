import { addDays, type LocalDate } from "../dates/index.ts";
import { usualTripH } from "./forecast.ts";
import type { FleetYear } from "./forecastContract.ts";
import { createSeason } from "./season.ts";

/** A year's hours of an owner drawn from the fleet: gamma, by Marsaglia and Tsang (2000), with the boost for shapes below 1. */
export function drawYearH({ mean, cv }: FleetYear, random: () => number): number {
  const shape = 1 / cv ** 2;
  const scale = mean * cv ** 2;
  const boost = shape < 1 ? random() ** (1 / shape) : 1;
  const d = (shape < 1 ? shape + 1 : shape) - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const v = (1 + c * normal) ** 3;
    if (v > 0 && Math.log(1 - random()) < 0.5 * normal ** 2 + d - d * v + d * Math.log(v)) return boost * d * v * scale;
  }
}

/** The hours an owner runs on each day after `from`, for `days` days: trips as a Poisson process that follows the season. */
export function drawDays(
  yearH: number,
  from: LocalDate,
  days: number,
  seasonShare: readonly number[],
  random: () => number,
  tripMeanH = usualTripH,
): Float64Array {
  const hours = new Float64Array(days);
  const { sumUntil } = createSeason(seasonShare);
  let before = sumUntil(from);
  for (let day = 0; day < days; day++) {
    const until = sumUntil(addDays(from, day + 1));
    // Poisson by its gaps: exponential times until more than the day's share of trips is used up.
    let left = (yearH * (until - before)) / tripMeanH + Math.log(1 - random());
    while (left > 0) {
      hours[day]! -= Math.log(1 - random()) * tripMeanH;
      left += Math.log(1 - random());
    }
    before = until;
  }
  return hours;
}
