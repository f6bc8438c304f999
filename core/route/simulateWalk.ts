import type { createRandom } from "../random.ts";

/** How walks vary about their plan: our own estimate. Shares are spreads of the logarithm. */
export const walkSpread = { topic: 0.45, people: 0.16, move: 0.25 } as const;

export interface WalkTimes {
  /** Half of the walks take no longer. */
  readonly p50Min: number;
  /** Four in five take no longer. */
  readonly p80Min: number;
}

/**
 * How long may the whole walk take? Minutes of topics and moves drawn as lognormal with the planned minutes as mean, topics
 * each on their own and all of them together by how these people are. `walks` simulated walks; randomness comes in.
 */
export function simulateWalk(
  topicMin: readonly number[],
  moveMin: number,
  walks: number,
  random: ReturnType<typeof createRandom>,
): WalkTimes {
  const totals = new Float64Array(walks);
  const draw = createLognormal(random);
  const pool = createPool(draw, walkSpread.topic);
  for (let w = 0; w < walks; w++) {
    let topics = 0;
    for (let i = 0; i < topicMin.length; i++) topics += topicMin[i]! * pool[(random() * poolSize) | 0]!;
    totals[w] = topics * draw(walkSpread.people) + moveMin * draw(walkSpread.move);
  }
  totals.sort();
  const at = (share: number) => totals[Math.min(walks - 1, Math.floor(share * walks))]!;
  return { p50Min: at(0.5), p80Min: at(0.8) };
}

/** A power of two, so that a place in the pool is cheap to draw. */
const poolSize = 16_384;

/**
 * A pool of lognormal numbers with the given spread, scaled to a mean of exactly 1: topics, of which a walk has hundreds,
 * draw from it, which costs a tenth of making each number and moves no quantile by a tenth of a minute.
 */
function createPool(draw: (spread: number) => number, spread: number): Float64Array {
  const pool = Float64Array.from({ length: poolSize }, () => draw(spread));
  const mean = pool.reduce((sum, value) => sum + value, 0) / poolSize;
  return pool.map((value) => value / mean);
}

/** Numbers with mean 1 and the given spread of their logarithm; normal ones by Marsaglia's polar method (1964), in pairs. */
function createLognormal(random: () => number): (spread: number) => number {
  let spare: number | null = null;
  const normal = () => {
    if (spare !== null) {
      const value = spare;
      spare = null;
      return value;
    }
    for (;;) {
      const u = random() * 2 - 1;
      const v = random() * 2 - 1;
      const s = u * u + v * v;
      if (s >= 1 || s === 0) continue;
      const scale = Math.sqrt((-2 * Math.log(s)) / s);
      spare = v * scale;
      return u * scale;
    }
  };
  return (spread) => Math.exp(normal() * spread - (spread * spread) / 2);
}
