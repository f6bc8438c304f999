import type { FleetYear } from "./forecastContract.ts";
import { logBesselI1 } from "./internal/bessel.ts";

/** What is believed of one owner's yearly hours: rates and how likely each is, likelihoods summing to 1. */
export interface Owner {
  readonly ratesH: readonly number[];
  readonly likelihood: readonly number[];
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
  const reported = intervals.reduce((sum, { hours }) => sum + hours, 0);
  const passed = Math.max(
    leastShare,
    intervals.reduce((sum, { share }) => sum + share, 0),
  );
  // Wide enough for the fleet and for what this owner has shown.
  const lowest =
    Math.log(Math.min(fleet.mean, reported > 0 ? reported / passed : fleet.mean)) - Math.min(8, 0.1 + 6 * fleet.cv);
  const highest = Math.log(Math.max(fleet.mean, reported / passed)) + Math.min(3, 0.1 + 2.5 * fleet.cv);
  // This is done for each engine of a fleet: logarithms are taken once where they can be, and arrays are plain ones, which
  // are made and cleared away faster than typed ones of this size.
  const step = (highest - lowest) / gridSize;
  const perStep = Math.exp(step);
  const ratesH: number[] = [Math.exp(lowest + step / 2)];
  const logs: number[] = [];
  for (let i = 0; i < gridSize; i++) {
    const rate = ratesH[i]!;
    // The density in the logarithm of the rate: one power more.
    logs.push(shape * (lowest + step * (i + 0.5)) - rate / scale);
    if (i < gridSize - 1) ratesH.push(rate * perStep);
  }
  for (const { share, hours } of intervals) {
    const perRate = Math.max(share, hours > 0 ? leastShare : 0) / tripMeanH;
    const x = hours / tripMeanH;
    const logRoot = hours > 0 ? 0.5 * (lowest + step / 2 + Math.log(perRate / x)) : 0;
    for (let i = 0; i < gridSize; i++) {
      const trips = ratesH[i]! * perRate;
      logs[i]! -= trips;
      if (hours > 0) logs[i]! += logRoot + 0.5 * step * i + logBesselI1(2 * Math.sqrt(trips * x)) - x;
    }
  }
  let most = Number.NEGATIVE_INFINITY;
  for (const log of logs) most = Math.max(most, log);
  let sum = 0;
  for (let i = 0; i < gridSize; i++) sum += logs[i] = Math.exp(logs[i]! - most);
  for (let i = 0; i < gridSize; i++) logs[i]! /= sum;
  return { ratesH, likelihood: logs };
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
