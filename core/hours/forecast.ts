import { addMonths, type LocalDate } from "../dates/index.ts";
import type { Season } from "./season.ts";

/** Hours of a trip, in the mean. */
export const usualTripH = 2.5;
const mostYears = 100;
const horizonMonths = 120;
/** Standard normal deviate of 0.9. */
const deviate90 = 1.2816;
/** Of yearly hours more spread than those of any fleet the cube root says nothing. */
const mostSpread = 0.5;
const hoursResolution = 1e-4;

/** What is believed of one engine: the engine hours that were read, and its owner's yearly hours. */
export interface Belief {
  /** By day, never falling; at least one. */
  readonly readings: readonly { readonly date: LocalDate; readonly hours: number }[];
  readonly meanH: number;
  readonly varianceH2: number;
  readonly tripMeanH?: number;
}

export interface HoursThen {
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
}

/** Dates by which so many hours are reached with a chance of a tenth, a half and nine tenths; null beyond the horizon. */
export interface DatesThen {
  readonly p10: LocalDate | null;
  readonly p50: LocalDate | null;
  readonly p90: LocalDate | null;
}

/** The one forecast of an engine's hours: all dates, curves and chances on screens and papers are its. */
export interface HourForecast {
  readonly last: Belief["readings"][number];
  /** The hours run by a day, as seen from the last reading; those of the reading itself before it. */
  hoursOn(date: LocalDate): HoursThen;
  /** The middle of `hoursOn`. */
  likelyOn(date: LocalDate): number;
  /**
   * When `hours` are reached, null beyond ten years from today. Those that were read are known: then it is the day on which
   * they were likely passed between the two readings about them.
   */
  datesOf(hours: number): DatesThen;
  /** The middle of `datesOf`. */
  dateOf(hours: number): LocalDate | null;
  /** Chance that `hours` are reached while this share of a year's season passes after the last reading. */
  chanceIn(hours: number, share: number): number;
}

/**
 * When will an engine have run so many hours? Trips are a Poisson process that follows the season, each exponential with
 * mean `tripMeanH`; the owner's yearly rate R is taken as gamma with the mean and variance believed. Then h hours are run
 * after 1 + K trips with K Poisson of x = h / tripMeanH, so that the season it takes is (Y tripMeanH) / R, Y of mean x + 1
 * and variance 2x + 1. With Y as gamma too (exactly so for the first trip), that is a ratio of gammas, whose quantiles
 * Paulson's cube-root normal gives (Annals of Mathematical Statistics 13, 1942). Dates, hours on a day and chances are
 * the same statement three ways, and in closed form, so that a fleet is forecast as quickly as one engine.
 */
export function forecastEngine(belief: Belief, season: Season, today: LocalDate): HourForecast {
  const { readings, meanH, varianceH2, tripMeanH = usualTripH } = belief;
  const last = readings.at(-1)!;
  const until = addMonths(today, horizonMonths);
  const ofRate = Math.min(mostSpread, varianceH2 / (9 * meanH ** 2));
  const ofTrips = (hours: number) => {
    const x = hours / tripMeanH;
    return { spread: (2 * x + 1) / (9 * (x + 1) ** 2), usualShare: (tripMeanH * (x + 1)) / meanH };
  };
  /** The share of a season by which `hours` more are run, with the chance whose standard normal deviate is `z`. */
  const shareOf = (hours: number, z: number): number => {
    const { spread, usualShare } = ofTrips(hours);
    // The root of ((1 - ofRate) u - (1 - spread))² = z² (ofRate u² + spread) on the side of z.
    const a = (1 - ofRate) ** 2 - z ** 2 * ofRate;
    const b = (1 - ofRate) * (1 - spread);
    const c = (1 - spread) ** 2 - z ** 2 * spread;
    const root = Math.sqrt(Math.max(0, b ** 2 - a * c));
    // So unsure of the rate that no season is enough for that chance.
    if (a <= 0 && z > 0) return Number.POSITIVE_INFINITY;
    const u = z >= 0 ? (b + root) / a : c / (b + root);
    return usualShare * Math.max(0, u) ** 3;
  };
  const chanceAfter = (hours: number, share: number): number => {
    if (share <= 0) return 0;
    const { spread, usualShare } = ofTrips(hours);
    const u = Math.cbrt(share / usualShare);
    return normalShare(((1 - ofRate) * u - (1 - spread)) / Math.sqrt(ofRate * u ** 2 + spread));
  };
  const dayOf = (hours: number, deviate: number): LocalDate | null => {
    if (hours <= last.hours) return passedOn(readings, hours, season);
    const share = shareOf(hours - last.hours, deviate);
    const date = share > mostYears ? null : season.dayOf(last.date, share);
    return date === null || date > until ? null : date;
  };
  /** The hours that are run or passed within a share of the season with that chance; 0 where no trip is as likely. */
  const hoursIn = (share: number, z: number): number => {
    if (shareOf(0, z) >= share) return 0;
    let low = 0;
    let high = tripMeanH;
    while (shareOf(high, z) < share) high *= 2;
    while (high - low > hoursResolution) {
      const middle = (low + high) / 2;
      if (shareOf(middle, z) < share) low = middle;
      else high = middle;
    }
    return low;
  };
  /** Asked for today by every item of a pack. */
  let asked: { readonly date: LocalDate; readonly hours: number } | null = null;
  return {
    last,
    hoursOn(date) {
      const share = season.between(last.date, date);
      const at = (deviate: number) => last.hours + hoursIn(share, deviate);
      return { p10: at(deviate90), p50: at(0), p90: at(-deviate90) };
    },
    likelyOn(date) {
      if (asked?.date !== date) asked = { date, hours: last.hours + hoursIn(season.between(last.date, date), 0) };
      return asked.hours;
    },
    datesOf: (hours) => ({ p10: dayOf(hours, -deviate90), p50: dayOf(hours, 0), p90: dayOf(hours, deviate90) }),
    dateOf: (hours) => dayOf(hours, 0),
    chanceIn: (hours, share) => (hours <= last.hours ? 1 : chanceAfter(hours - last.hours, share)),
  };
}

/** The day on which hours that were read were passed: between two readings by the season, that of the first at the earliest. */
function passedOn(readings: Belief["readings"], hours: number, season: Season): LocalDate {
  const at = readings.findIndex((reading) => reading.hours >= hours);
  const [before, after] = [readings[at - 1], readings[at]!];
  if (before === undefined) return after.date;
  const share = season.between(before.date, after.date) * ((hours - before.hours) / (after.hours - before.hours));
  const date = season.dayOf(before.date, share);
  return date === null || date > after.date ? after.date : date;
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
