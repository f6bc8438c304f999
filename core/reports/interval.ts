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
