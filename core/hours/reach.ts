import type { Owner } from "./owner.ts";

/**
 * How likely hours of trips come to `x` mean trips or more where `trips` are expected: trips are Poisson, their lengths
 * exponential, so the sum stays below x just when the Poisson count of x is no smaller than that of the trips.
 *
 * `below[n]`: chance that a Poisson count of x is n or more (`countsOf`).
 */
function reaches(trips: number, below: Float64Array): number {
  if (trips <= 0) return 0;
  // From the likeliest count both ways, so that nothing underflows.
  const mode = Math.floor(trips);
  const atMode = Math.exp(mode * Math.log(trips) - trips - logFactorial(mode));
  let short = 0;
  let chance = atMode;
  for (let n = mode; n < below.length && chance > 1e-14; n++) {
    short += chance * below[n]!;
    chance *= trips / (n + 1);
  }
  chance = (atMode * mode) / trips;
  for (let n = mode - 1; n >= 0 && chance > 1e-14; n--) {
    short += chance * (n < below.length ? below[n]! : 0);
    chance *= n / trips;
  }
  return Math.max(0, 1 - short);
}

/** Chances that a Poisson count with mean `x` is n or more, for n from 0 until they vanish. */
function countsOf(x: number): Float64Array {
  const size = Math.ceil(x + 10 * Math.sqrt(x) + 20);
  const chance = new Float64Array(size);
  const mode = Math.min(size - 1, Math.floor(x));
  chance[mode] = Math.exp(mode * Math.log(x) - x - logFactorial(mode));
  for (let n = mode + 1; n < size; n++) chance[n] = (chance[n - 1]! * x) / n;
  for (let n = mode - 1; n >= 0; n--) chance[n] = (chance[n + 1]! * (n + 1)) / x;
  const below = new Float64Array(size);
  let sum = 0;
  for (let n = size - 1; n >= 0; n--) {
    sum += chance[n]!;
    below[n] = Math.min(1, sum);
  }
  below[0] = 1;
  return below;
}

/** ln n!, by Stirling's series above 20 (error under 1e-10). */
function logFactorial(n: number): number {
  if (n < 20) {
    let product = 1;
    for (let i = 2; i <= n; i++) product *= i;
    return Math.log(product);
  }
  const m = n + 1;
  return (m - 0.5) * Math.log(m) - m + 0.5 * Math.log(2 * Math.PI) + 1 / (12 * m) - 1 / (360 * m ** 3);
}

/**
 * How much of a year's season must pass until this owner has run `hours` more with each chance of `shares`; more than
 * `mostYears` is Infinity.
 */
export function findShares(
  { ratesH, likelihood }: Owner,
  hours: number,
  tripMeanH: number,
  shares: readonly number[],
  mostYears: number,
): number[] {
  const below = countsOf(hours / tripMeanH);
  const chanceBy = (years: number) => {
    let sum = 0;
    for (let i = 0; i < ratesH.length; i++)
      if (likelihood[i]! > 1e-7) sum += likelihood[i]! * reaches((ratesH[i]! * years) / tripMeanH, below);
    return sum;
  };
  return shares.map((share) => {
    if (chanceBy(mostYears) < share) return Number.POSITIVE_INFINITY;
    let low = 0;
    let high = mostYears;
    // To a thousandth of a day.
    while (high - low > 1e-6) {
      const middle = (low + high) / 2;
      if (chanceBy(middle) < share) low = middle;
      else high = middle;
    }
    return high;
  });
}
