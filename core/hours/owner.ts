import type { FleetYear } from "./forecastContract.ts";
import { logBesselI1 } from "./internal/bessel.ts";

/** What is believed of one owner's yearly hours: rates and how likely each is, likelihoods summing to 1. */
export interface Owner {
  readonly ratesH: Float64Array;
  readonly likelihood: Float64Array;
}

/** Hours run while this share of a year's season passed. */
export interface Interval {
  readonly share: number;
  readonly hours: number;
}

const gridSize = 64;
/** In a month without a season some go out all the same: hours there do not make an owner impossible. */
const leastShare = 1e-4;

/**
 * The yearly hours of an owner as believed after what was read. Owners' rates are gamma distributed with the fleet's mean
 * and spread; trips are a Poisson process that follows the season, each of exponential length, so that the hours of an
 * interval have the density e^(-λ-x) √(λ/x) I1(2√(λx)), with λ trips expected and x = hours / tripMeanH, and are 0 with
 * e^(-λ). Bayes' rule on a grid of rates, even in the logarithm.
 */
export function believeOwner(fleet: FleetYear, intervals: readonly Interval[], tripMeanH: number): Owner {
  const shape = 1 / fleet.cv ** 2;
  const scale = fleet.mean * fleet.cv ** 2;
  const told = intervals.reduce((sum, { hours }) => sum + hours, 0);
  const passed = Math.max(
    leastShare,
    intervals.reduce((sum, { share }) => sum + share, 0),
  );
  // Wide enough for the fleet and for what this owner has shown.
  const lowest =
    Math.log(Math.min(fleet.mean, told > 0 ? told / passed : fleet.mean)) - Math.min(8, 0.1 + 6 * fleet.cv);
  const highest = Math.log(Math.max(fleet.mean, told / passed)) + Math.min(3, 0.1 + 2.5 * fleet.cv);
  const ratesH = new Float64Array(gridSize);
  const logs = new Float64Array(gridSize);
  let most = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < gridSize; i++) {
    const logRate = lowest + ((highest - lowest) * (i + 0.5)) / gridSize;
    const rate = Math.exp(logRate);
    ratesH[i] = rate;
    // The density in the logarithm of the rate: one power more.
    let log = shape * logRate - rate / scale;
    for (const { share, hours } of intervals) {
      const trips = (rate * Math.max(share, hours > 0 ? leastShare : 0)) / tripMeanH;
      log -= trips;
      if (hours > 0) {
        const x = hours / tripMeanH;
        log += 0.5 * Math.log(trips / x) + logBesselI1(2 * Math.sqrt(trips * x)) - x;
      }
    }
    logs[i] = log;
    most = Math.max(most, log);
  }
  // In place: this is done for each engine of a fleet.
  const likelihood = logs;
  let sum = 0;
  for (let i = 0; i < gridSize; i++) {
    likelihood[i] = Math.exp(logs[i]! - most);
    sum += likelihood[i]!;
  }
  for (let i = 0; i < gridSize; i++) likelihood[i] = likelihood[i]! / sum;
  return { ratesH, likelihood };
}

/** The yearly hours below which this owner's stay with a chance of `share`. */
export function findRate({ ratesH, likelihood }: Owner, share: number): number {
  let before = 0;
  for (let i = 0; i < ratesH.length; i++) {
    const after = before + likelihood[i]!;
    if (after >= share) {
      // Likelihood lies evenly about each rate of the grid, in the logarithm.
      const step = Math.log(ratesH[1]!) - Math.log(ratesH[0]!);
      return ratesH[i]! * Math.exp(step * ((share - before) / likelihood[i]! - 0.5));
    }
    before = after;
  }
  return ratesH.at(-1)!;
}

/** Mean and variance of the yearly hours as believed. */
export function describeOwner({ ratesH, likelihood }: Owner): { meanH: number; varianceH2: number } {
  let meanH = 0;
  let squares = 0;
  for (let i = 0; i < ratesH.length; i++) {
    meanH += ratesH[i]! * likelihood[i]!;
    squares += ratesH[i]! ** 2 * likelihood[i]!;
  }
  return { meanH, varianceH2: Math.max(0, squares - meanH ** 2) };
}
