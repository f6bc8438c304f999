/** A figure with the span it may be in nineteen times of twenty, and how many it was made from. */
export interface Estimate {
  readonly n: number;
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** Two-sided 95 % of the normal distribution. */
const z = 1.959964;
/** Under so many a mean has no span worth showing. */
export const leastForMean = 5;

/** A share k of n with its Wilson score interval (E. B. Wilson, 1927); null of none. 0 ≤ k ≤ n, else throws. */
export function estimateShare(k: number, n: number): Estimate | null {
  if (!(k >= 0 && k <= n)) throw new Error(`estimateShare: expected 0 <= k <= n, got ${k} of ${n}`);
  if (n === 0) return null;
  const share = k / n;
  const middle = (share + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((share * (1 - share)) / n + (z * z) / (4 * n * n));
  return { n, value: share, low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}

/**
 * A mean with its 95 % interval, from count, sum and sum of squares; null of fewer than five. Student's factor is taken as
 * 1.96 + 2.4 / (n − 1) + 4 / (n − 1)², within 3 % of the table from n = 5 on.
 */
export function estimateMean(n: number, sum: number, sumOfSquares: number): Estimate | null {
  if (n < leastForMean) return null;
  const value = sum / n;
  const variance = Math.max(0, (sumOfSquares - n * value * value) / (n - 1));
  const factor = z + 2.4 / (n - 1) + 4 / (n - 1) ** 2;
  const half = factor * Math.sqrt(variance / n);
  return { n, value, low: value - half, high: value + half };
}

/** Whether two estimates differ by more than chance would explain: their spans do not meet. */
export const areApart = (a: Estimate | null, b: Estimate | null): boolean =>
  a !== null && b !== null && (a.low > b.high || b.low > a.high);

/**
 * So many events over so many handovers (or whatever they are counted over), for each of them, with Byar's 95 % limits of a
 * Poisson count (Breslow and Day, 1987, p. 69); null over none. k a whole number, else throws.
 */
export function estimateRate(k: number, n: number): Estimate | null {
  if (!(k >= 0 && Number.isInteger(k))) throw new Error(`estimateRate: expected a whole k >= 0, got ${k}`);
  if (n === 0) return null;
  const limit = (count: number, side: number) =>
    count * (1 - 1 / (9 * count) + (side * z) / (3 * Math.sqrt(count))) ** 3;
  return { n, value: k / n, low: k === 0 ? 0 : Math.max(0, limit(k, -1)) / n, high: limit(k + 1, 1) / n };
}

/** Under so many no two values hold the middle in nineteen times of twenty. */
const leastForMedian = 6;
/** Beyond it two to the power of minus n is no number any more, and the normal approximation is as good. */
const mostExact = 500;

/**
 * The middle value with the two values between which it is in nineteen times of twenty, whatever the distribution: the order
 * statistics r and n + 1 − r with the largest r for which P(X < r) ≤ 0.025, X binomial with n and 1/2; null of fewer than six.
 */
export function estimateMedian(values: readonly number[]): Estimate | null {
  const n = values.length;
  if (n < leastForMedian) return null;
  const sorted = values.toSorted((a, b) => a - b);
  const rank = findRank(n);
  const value = (sorted[Math.floor((n - 1) / 2)]! + sorted[Math.ceil((n - 1) / 2)]!) / 2;
  return { n, value, low: sorted[rank - 1]!, high: sorted[n - rank]! };
}

function findRank(n: number): number {
  if (n > mostExact) return Math.floor((n - z * Math.sqrt(n)) / 2);
  let chance = 0.5 ** n;
  let rank = 0;
  for (let below = chance; below <= 0.025; below += chance) {
    rank++;
    chance *= (n - rank + 1) / rank;
  }
  return rank;
}
