import { forecastEngine, usualTripH } from "./forecast.ts";
import type { ForecastInput, ForecastOutput } from "./forecastContract.ts";
import { believeOwner, describeOwner, findRate, type Interval } from "./owner.ts";
import { createSeason, type Season } from "./season.ts";

/**
 * When will an engine reach so many hours (contract `hours-forecast`)? Dates by which it has with a chance of a tenth, a
 * half and nine tenths, as seen from its last reading; null beyond ten years from today. A target that was read already
 * is reached today. A date may lie before today where the last reading is old: then it has likely been reached.
 *
 * @example an owner read at 30 h after a season where the fleet runs 50 → later dates than the fleet's.
 */
export function forecastHours(input: ForecastInput): ForecastOutput {
  const { readings, today, targetsH, tripMeanH = usualTripH } = input;
  const season = createSeason(input.seasonShare);
  const owner = believeOwner(input.fleetYearH, listIntervals(readings, season), tripMeanH);
  const known = readings.length === 0 ? [{ date: today, hours: 0 }] : readings;
  const forecast = forecastEngine({ readings: known, ...describeOwner(owner), tripMeanH }, season, today);
  return {
    targets: targetsH.map((targetH) => {
      const isRead = targetH <= forecast.last.hours;
      return { targetH, ...(isRead ? { p10: today, p50: today, p90: today } : forecast.datesOf(targetH)) };
    }),
    yearH: { p10: findRate(owner, 0.1), p50: findRate(owner, 0.5), p90: findRate(owner, 0.9) },
  };
}

/** What was run between readings; of one day the last counts. */
export function listIntervals(readings: ForecastInput["readings"], season: Season): Interval[] {
  const intervals: Interval[] = [];
  for (let i = 1; i < readings.length; i++) {
    const before = readings[i - 1]!;
    const { date, hours } = readings[i]!;
    const share = season.between(before.date, date);
    if (share > 0 || hours > before.hours) intervals.push({ share, hours: hours - before.hours });
  }
  return intervals;
}
