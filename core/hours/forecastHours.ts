import { addMonths, type IsoDate, toDayNumber } from "../dates/index.ts";
import type { ForecastInput, ForecastOutput } from "./forecastContract.ts";
import { findSeasonDay, sumSeason } from "./internal/season.ts";
import { believeOwner, findRate, type Interval, type Owner } from "./owner.ts";
import { findShares } from "./reach.ts";

const horizonMonths = 120;
const mostYears = 12;
export const usualTripH = 2.5;
const shares = [0.1, 0.5, 0.9] as const;

/**
 * When will an engine reach so many hours (contract `hours-forecast`)? Dates by which it has with a chance of a tenth, a
 * half and nine tenths, as seen from its last reading; null beyond ten years from today. A target that was read already
 * is reached today. A date may lie before today where the last reading is old: then it has likely been reached.
 *
 * @example an owner read at 30 h after a season where the fleet runs 50 → later dates than the fleet's.
 */
export function forecastHours(input: ForecastInput): ForecastOutput {
  const { readings, seasonShare, today, targetsH } = input;
  const tripMeanH = input.tripMeanH ?? usualTripH;
  const owner = believeOwner(input.fleetYearH, listIntervals(readings, seasonShare), tripMeanH);
  const last = readings.at(-1) ?? { date: today, hours: 0 };
  const untilDay = toDayNumber(addMonths(today, horizonMonths));
  const known = new Map<number, ForecastOutput["targets"][number]>();
  const targets = targetsH.map((targetH) => {
    const before = known.get(targetH);
    if (before !== undefined) return before;
    const [p10, p50, p90] =
      targetH <= last.hours
        ? [today, today, today]
        : findDates(owner, last, targetH, { seasonShare, tripMeanH, untilDay });
    const target = { targetH, p10: p10 ?? null, p50: p50 ?? null, p90: p90 ?? null };
    known.set(targetH, target);
    return target;
  });
  return {
    targets,
    yearH: { p10: findRate(owner, 0.1), p50: findRate(owner, 0.5), p90: findRate(owner, 0.9) },
  };
}

interface Waters {
  readonly seasonShare: readonly number[];
  readonly tripMeanH: number;
  readonly untilDay: number;
}

function findDates(owner: Owner, last: { date: IsoDate; hours: number }, targetH: number, waters: Waters) {
  const { seasonShare, tripMeanH, untilDay } = waters;
  return findShares(owner, targetH - last.hours, tripMeanH, shares, mostYears).map((mass) =>
    Number.isFinite(mass) ? findSeasonDay(last.date, untilDay, seasonShare, mass) : null,
  );
}

/** What was run between readings; of one day the last counts. */
export function listIntervals(readings: ForecastInput["readings"], seasonShare: readonly number[]): Interval[] {
  const intervals: Interval[] = [];
  for (let i = 1; i < readings.length; i++) {
    const before = readings[i - 1]!;
    const { date, hours } = readings[i]!;
    const share = sumSeason(before.date, date, seasonShare);
    if (share > 0 || hours > before.hours) intervals.push({ share, hours: hours - before.hours });
  }
  return intervals;
}
