import type { Block } from "./blocks.ts";
import { type Closing, createClosings } from "./closings.ts";
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
  const { freeAt, waitingAt, waitsFor } = readWaits(closings, placeOf, m);
  const full = closings.reduce((all, _, c) => all | (1 << c), 0);
  const direct = Float64Array.from(stations.flatMap((a) => stations.map((b) => moves[a]![b]!)));
  const known = createKnownBounds(mostKnown);
  const readDone = createReader(
    blocks.length,
    closings.map((closing) => closing.members),
  );
  const readOpen = (done: number) => {
    let open = 0;
    for (let i = 0; i < m; i++) if (((freeAt[i]! | waitingAt[i]!) & ~done) !== 0) open |= 1 << i;
    return open;
  };
  const arrive = (done: number, i: number) => done | freeAt[i]! | ((waitsFor[i]! & ~done) === 0 ? waitingAt[i]! : 0);
  // The candidates of each depth, best first; every step does at least one closing, so none is deeper than they are many.
  const least = new Float64Array((closings.length + 2) * m);
  const place = new Int32Array(least.length);
  const after = new Int32Array(least.length);

  const solve = (done: number, here: number, limit: number, depth: number): number => {
    if (done === full) return rounds.from(here, 0);
    const key = (done << keyBits) | here;
    const seen = known.read(key, limit);
    if (seen >= 0) return seen;
    const open = readOpen(done);
    const first = depth * m;
    let last = first;
    for (let rest = open & ~(1 << here); rest !== 0; rest &= rest - 1) {
      const i = 31 - Math.clz32(rest & -rest);
      const next = arrive(done, i);
      if (next === done) continue;
      const left = ((freeAt[i]! | waitingAt[i]!) & ~next) === 0 ? open ^ (1 << i) : open;
      const bound = direct[here * m + i]! + rounds.from(i, left);
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
        best = Math.min(best, least[at]!);
        break;
      }
      const i = place[at]!;
      const move = direct[here * m + i]!;
      const total = move + solve(after[at]!, i, cut - move, depth + 1);
      if (total < best) best = total;
    }
    known.write(key, best, best < limit - tolerance);
    return best;
  };
  const quick = (from: number, done: number) => {
    const open = readOpen(done);
    const here = placeOf[from]!;
    if (here >= 0) return rounds.from(here, open);
    const row = moves[from]!;
    if (open === 0) return end === null ? 0 : row[end]!;
    let best = Number.POSITIVE_INFINITY;
    for (let i = 0; i < m; i++)
      if ((open & (1 << i)) !== 0) best = Math.min(best, row[stations[i]!]! + rounds.from(i, open ^ (1 << i)));
    return best;
  };
  return {
    quick: (from, told, at) => quick(from, readDone(told, at)),
    sharp(from, told, at, limit) {
      const here = placeOf[from]!;
      const done = readDone(told, at);
      // From a station without a place only the quick bound is known; merged, a closing may be ready before its blocks are,
      // and is then done at once, so that the bound stays one.
      return here < 0 ? quick(from, done) : solve(arrive(done, here), here, limit, 0);
    },
  };
}

/** Per station: the closings that wait for nothing, the one that waits, and what it waits for, as sets of bits. */
function readWaits(closings: readonly Closing[], placeOf: Int32Array, m: number) {
  const freeAt = new Int32Array(m);
  const waitingAt = new Int32Array(m);
  const waitsFor = new Int32Array(m);
  closings.forEach((closing, c) => {
    const i = placeOf[closing.station]!;
    if (closing.needs.length === 0) freeAt[i]! |= 1 << c;
    else {
      waitingAt[i] = 1 << c;
      for (const before of closing.needs) waitsFor[i]! |= 1 << before;
    }
  });
  return { freeAt, waitingAt, waitsFor };
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
