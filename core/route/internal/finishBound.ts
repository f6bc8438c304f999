import type { Block } from "./blocks.ts";
import { createClosings } from "./closings.ts";
import { createKnownBounds } from "./knownBounds.ts";
import { createShortestRounds } from "./shortestRounds.ts";

/** Stations the bound looks at: their rounds fill a table of 2^14·14, and two closings each fit a 32-bit key. */
const mostStations = 14;
/** Answers remembered; past it the quick bound stands in for the sharp one. */
const mostKnown = 400_000;
const keyBits = 4;
const tolerance = 1e-9;

/**
 * Lower bounds on the minutes still to walk with the blocks of `told[at..]` told, standing at station `from`, where all that
 * is ready has been told.
 */
export interface FinishBound {
  /** The shortest round through the stations with something left. */
  quick(from: number, told: Uint32Array, at: number): number;
  /** The answer with blocks merged into openings and closings, if under `limit`; else something from `limit` up. */
  sharp(from: number, told: Uint32Array, at: number, limit: number): number;
}

/**
 * Bounds for the search of `searchVisits`. Leaving stations out and merging blocks (`createClosings`) can only make a walk
 * shorter, so the cheapest walk of that smaller problem is a bound for the real one (an abstraction heuristic, as the
 * pattern databases of Culberson and Schaeffer 1998). It is solved depth first, below a limit, and remembered.
 */
export function createFinishBound(
  blocks: readonly Block[],
  moves: readonly (readonly number[])[],
  end: number | null,
): FinishBound {
  const stations = chooseStations(blocks);
  const m = stations.length;
  const placeOf = new Int32Array(moves.length).fill(-1);
  stations.forEach((s, i) => {
    placeOf[s] = i;
  });
  const rounds = createShortestRounds(moves, stations, end);
  const closings = createClosings(blocks, stations);
  const needs = Int32Array.from(closings.map((closing) => closing.needs.reduce((mask, c) => mask | (1 << c), 0)));
  const bitsAt = stations.map((s) => closings.flatMap((closing, c) => (closing.station === s ? [c] : [])));
  const maskAt = Int32Array.from(bitsAt.map((bits) => bits.reduce((mask, c) => mask | (1 << c), 0)));
  const full = maskAt.reduce((all, mask) => all | mask, 0);
  const known = createKnownBounds(mostKnown);
  const readDone = createReader(
    blocks.length,
    closings.map((closing) => closing.members),
  );
  const readOpen = (done: number) => {
    let open = 0;
    for (let i = 0; i < m; i++) if ((maskAt[i]! & ~done) !== 0) open |= 1 << i;
    return open;
  };
  const arrive = (done: number, i: number) => {
    const bits = bitsAt[i]!;
    let next = done;
    for (let j = 0; j < bits.length; j++) if ((needs[bits[j]!]! & ~done) === 0) next |= 1 << bits[j]!;
    return next;
  };
  // The candidates of each depth, best first; every step does at least one closing, so none is deeper than they are many.
  const least = new Float64Array((closings.length + 2) * m);
  const place = new Int32Array(least.length);
  const after = new Int32Array(least.length);

  /** `row` are the moves from where one stands, to be found under `key` (-1: not remembered). */
  const solve = (done: number, row: readonly number[], here: number, limit: number, depth: number): number => {
    if (done === full) return here >= 0 ? rounds.from(here, 0) : end === null ? 0 : row[end]!;
    const key = here >= 0 ? (done << keyBits) | here : -1;
    if (key !== -1) {
      const seen = known.read(key, limit);
      if (seen >= 0) return seen;
    }
    const open = readOpen(done);
    const first = depth * m;
    let last = first;
    for (let i = 0; i < m; i++) {
      if (i === here || (open & (1 << i)) === 0) continue;
      const next = arrive(done, i);
      if (next === done) continue;
      const left = (maskAt[i]! & ~next) === 0 ? open ^ (1 << i) : open;
      const bound = row[stations[i]!]! + rounds.from(i, left);
      let at = last++;
      for (; at > first && least[at - 1]! > bound; at--) {
        least[at] = least[at - 1]!;
        place[at] = place[at - 1]!;
        after[at] = after[at - 1]!;
      }
      least[at] = bound;
      place[at] = i;
      after[at] = next;
    }
    if (known.isFull()) return least[first]!;
    let best = Number.POSITIVE_INFINITY;
    for (let at = first; at < last; at++) {
      const cut = Math.min(best, limit);
      if (least[at]! >= cut - tolerance) {
        if (least[at]! < best) best = least[at]!;
        break;
      }
      const i = place[at]!;
      const move = row[stations[i]!]!;
      const total = move + solve(after[at]!, moves[stations[i]!]!, i, cut - move, depth + 1);
      if (total < best) best = total;
    }
    if (key !== -1) known.write(key, best, best < limit - tolerance);
    return best;
  };
  return {
    quick(from, told, at) {
      const open = readOpen(readDone(told, at));
      const here = placeOf[from]!;
      if (here >= 0) return rounds.from(here, open);
      const row = moves[from]!;
      let best = Number.POSITIVE_INFINITY;
      if (open === 0) best = end === null ? 0 : row[end]!;
      for (let i = 0; i < m; i++)
        if ((open & (1 << i)) !== 0) best = Math.min(best, row[stations[i]!]! + rounds.from(i, open ^ (1 << i)));
      return best;
    },
    sharp(from, told, at, limit) {
      const here = placeOf[from]!;
      const done = readDone(told, at);
      // Merged, a closing may be ready before its blocks are; done at once, the bound stays one.
      return solve(here < 0 ? done : arrive(done, here), moves[from]!, here, limit, 0);
    },
  };
}

/** The stations whose blocks wait for most, at most `mostStations`. */
function chooseStations(blocks: readonly Block[]): number[] {
  const waits = new Map<number, number>();
  for (const block of blocks) waits.set(block.station, (waits.get(block.station) ?? 0) + block.needs.length);
  const stations = [...waits.keys()].sort((a, b) => waits.get(b)! - waits.get(a)!);
  return stations.slice(0, mostStations).sort((a, b) => a - b);
}

/** Reads a set of blocks as the set of closings whose members are all in it. */
function createReader(blockCount: number, members: readonly (readonly number[])[]) {
  const words = Math.ceil(blockCount / 32);
  const masks = new Uint32Array(members.length * words);
  members.forEach((list, c) => {
    for (const b of list) masks[c * words + (b >>> 5)]! |= 1 << (b & 31);
  });
  return (told: Uint32Array, at: number): number => {
    let done = 0;
    for (let c = 0; c < members.length; c++) {
      let w = 0;
      while (w < words && (masks[c * words + w]! & ~told[at + w]!) === 0) w++;
      if (w === words) done |= 1 << c;
    }
    return done;
  };
}
