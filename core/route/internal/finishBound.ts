import type { Block } from "./blocks.ts";

/** Blocks the bound keeps: a table of 2^16 sets is the most that is filled within the time of one answer. */
const mostKept = 16;

/** Least minutes still to walk with the blocks of `told[at..]` told, standing at `from`. */
export type FinishBound = (from: number, told: Uint32Array, at: number) => number;

/**
 * A lower bound on the minutes still to walk: the exact answer to the same problem with only a few of the blocks kept
 * (a pattern database, Culberson and Schaeffer 1998), for leaving blocks out can only make a walk shorter. Kept are the
 * block of each station that waits for most, then those with most before and after them, which is what forces a return.
 * Filled in as asked.
 */
export function createFinishBound(
  blocks: readonly Block[],
  moves: readonly (readonly number[])[],
  end: number | null,
): FinishBound {
  const kept = chooseKept(blocks);
  const k = kept.length;
  const n = moves.length;
  const bitOf = new Map(kept.map((b, bit) => [b, bit]));
  const needs = kept.map((b) =>
    blocks[b]!.needs.reduce((mask, a) => (bitOf.has(a) ? mask | (1 << bitOf.get(a)!) : mask), 0),
  );
  const stations = [...new Set(kept.map((b) => blocks[b]!.station))];
  const bitsAt = stations.map((s) => kept.flatMap((b, bit) => (blocks[b]!.station === s ? [bit] : [])));
  const nearest = moves.map((row) => stations.map((_, i) => i).sort((a, b) => row[stations[a]!]! - row[stations[b]!]!));
  const full = (1 << k) - 1;
  // known[told * n + from] is the bound plus 1; 0 is not yet known.
  const known = new Float64Array((1 << k) * n);
  const solve = (told: number, from: number): number => {
    const at = told * n + from;
    const seen = known[at]!;
    if (seen !== 0) return seen - 1;
    const row = moves[from]!;
    const order = nearest[from]!;
    let least = Number.POSITIVE_INFINITY;
    if (told === full) least = end === null ? 0 : row[end]!;
    else {
      for (let o = 0; o < order.length; o++) {
        const i = order[o]!;
        const to = stations[i]!;
        const move = row[to]!;
        if (move >= least) break;
        let next = told;
        const bits = bitsAt[i]!;
        for (let j = 0; j < bits.length; j++) {
          const bit = bits[j]!;
          if ((told & (1 << bit)) === 0 && (needs[bit]! & ~told) === 0) next |= 1 << bit;
        }
        if (next === told) continue;
        const total = move + solve(next, to);
        if (total < least) least = total;
      }
    }
    known[at] = least + 1;
    return least;
  };
  const wordOf = kept.map((b) => b >>> 5);
  const maskOf = kept.map((b) => 1 << (b & 31));
  return (from, pool, at) => {
    let told = 0;
    for (let bit = 0; bit < k; bit++) if ((pool[at + wordOf[bit]!]! & maskOf[bit]!) !== 0) told |= 1 << bit;
    return solve(told, from);
  };
}

function chooseKept(blocks: readonly Block[]): number[] {
  const followers = blocks.map(() => 0);
  for (const block of blocks) for (const a of block.needs) followers[a]!++;
  const weight = (b: number) => (blocks[b]!.needs.length + 0.5) * (followers[b]! + 0.5);
  const lastAt = new Map<number, number>();
  blocks.forEach((block, b) => {
    const rival = lastAt.get(block.station);
    if (rival === undefined || block.needs.length > blocks[rival]!.needs.length) lastAt.set(block.station, b);
  });
  const kept = [...lastAt.values()]
    .sort((a, b) => blocks[b]!.needs.length - blocks[a]!.needs.length)
    .slice(0, mostKept);
  const rest = blocks
    .map((_, b) => b)
    .filter((b) => !kept.includes(b))
    .sort((a, b) => weight(b) - weight(a));
  return [...kept, ...rest].slice(0, mostKept);
}
