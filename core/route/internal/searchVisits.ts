import type { Block } from "./blocks.ts";
import { createFinishBound, type FinishBound } from "./finishBound.ts";
import { createMinHeap } from "./minHeap.ts";
import { createToldStates } from "./toldStates.ts";

export interface VisitSearch {
  readonly blocks: readonly Block[];
  /** Closed under shortest paths, in minutes. */
  readonly moves: readonly (readonly number[])[];
  readonly start: number | null;
  readonly end: number | null;
  /** States to keep before settling for the best order found. */
  readonly maxStates: number;
}

export interface VisitOrder {
  /** Station indices in visiting order, neighbours different. */
  readonly stations: number[];
  readonly moveMin: number;
  readonly optimal: boolean;
}

const tolerance = 1e-9;
/** States the first exact run may open before a good walk is looked for greedily. */
const quickStates = 40_000;
/** Of states that promise the same, the one further on is opened first. */
const deeperFirst = 1e-7;
/** How far ahead of the cheapest open state bounds are asked for, as a share: asking twice costs, asking too far too. */
const stepShare = 0.12;

/**
 * The cheapest order of visits that tells every block after what it needs.
 *
 * A* over (station, blocks told) with finishBound. On arriving, every ready block is told, which never costs and never
 * hurts. A move that goes past a station with ready blocks at no extra cost is left out, for stopping there tells more.
 * If that does not end soon, greedier searches (the quick bound weighted up) find a good walk first, and the exact one then
 * starts anew below its cost, until `maxStates`.
 */
export function searchVisits(search: VisitSearch): VisitOrder {
  const { blocks, moves, start, end } = search;
  if (blocks.length === 0) return walkBetween(start, end, moves);
  const steps = createSteps(search);
  const bound = createFinishBound(blocks, moves, end);
  const quick = runSearch(search, steps, bound, 1, Number.POSITIVE_INFINITY, Math.min(quickStates, search.maxStates));
  if (quick?.optimal) return quick;
  let best: VisitOrder | null = null;
  for (const weight of [4, 2, 1.5, 1.2]) {
    const states = Math.max(2000, Math.floor(search.maxStates / 12));
    const found = runSearch(search, steps, bound, weight, best?.moveMin ?? Number.POSITIVE_INFINITY, states);
    if (found !== null && found.stations.length > 0) best = found;
  }
  const exact = runSearch(search, steps, bound, 1, best?.moveMin ?? Number.POSITIVE_INFINITY, search.maxStates);
  if (exact !== null) return exact.stations.length > 0 ? exact : { ...best!, optimal: true };
  return best ?? walkGreedily(search, steps);
}

/** With nothing to tell: from start to end, as far as they are given. */
function walkBetween(start: number | null, end: number | null, moves: VisitSearch["moves"]): VisitOrder {
  const stations = [start, end].filter((s) => s !== null).filter((s, i, all) => i === 0 || s !== all[0]);
  const moveMin = stations.length === 2 ? moves[stations[0]!]![stations[1]!]! : 0;
  return { stations, moveMin, optimal: true };
}

/** What a search needs to know of a state: which stations have ready blocks, and what is told on arriving at one. */
function createSteps({ blocks, moves }: VisitSearch) {
  const words = Math.ceil(blocks.length / 32);
  const needs = blocks.map((block) => {
    const mask = new Uint32Array(words);
    for (const b of block.needs) mask[b >>> 5]! |= 1 << (b & 31);
    return mask;
  });
  const blocksAt: number[][] = moves.map(() => []);
  blocks.forEach((block, b) => {
    blocksAt[block.station]!.push(b);
  });
  const isOpenAndReady = (pool: Uint32Array, at: number, b: number) => {
    if ((pool[at + (b >>> 5)]! & (1 << (b & 31))) !== 0) return false;
    const need = needs[b]!;
    for (let w = 0; w < words; w++) if ((need[w]! & ~pool[at + w]!) !== 0) return false;
    return true;
  };
  const arrive = (pool: Uint32Array, at: number, station: number, next: Uint32Array) => {
    for (let w = 0; w < words; w++) next[w] = pool[at + w]!;
    for (const b of blocksAt[station]!) if (isOpenAndReady(pool, at, b)) next[b >>> 5]! |= 1 << (b & 31);
  };
  return {
    words,
    /** Fills `ready` with the stations where something can be told now. */
    listReady(pool: Uint32Array, at: number, ready: number[]) {
      ready.length = 0;
      for (let s = 0; s < blocksAt.length; s++) {
        const list = blocksAt[s]!;
        for (let i = 0; i < list.length; i++) {
          if (isOpenAndReady(pool, at, list[i]!)) {
            ready.push(s);
            break;
          }
        }
      }
    },
    /** Writes to `next` what is told once at `station` with `pool[at..]` told before. */
    arrive,
    /** Whether the way from `from` to `to` passes a ready station that may as well be stopped at. */
    passesReady(from: number, to: number, ready: readonly number[]): boolean {
      const row = moves[from]!;
      const direct = row[to]!;
      for (let i = 0; i < ready.length; i++) {
        const via = ready[i]!;
        if (via === to || via === from) continue;
        const there = row[via]!;
        if (there + moves[via]![to]! <= direct + 1e-12 && (there < direct || via < to)) return true;
      }
      return false;
    },
  };
}

type Steps = ReturnType<typeof createSteps>;

/**
 * One A* run. Answers the walk found; an order without stations when nothing cheaper than `below` exists (optimal) or may
 * exist (not optimal); null when `maxStates` ran out with nothing found.
 */
function runSearch(
  search: VisitSearch,
  steps: Steps,
  bound: FinishBound,
  weight: number,
  below: number,
  maxStates: number,
): VisitOrder | null {
  const { blocks, moves, start, end } = search;
  const { words } = steps;
  const states = createToldStates(words);
  const heap = createMinHeap();
  const next = new Uint32Array(words);
  const ready: number[] = [];
  const full = new Uint32Array(words);
  blocks.forEach((_, b) => {
    full[b >>> 5]! |= 1 << (b & 31);
  });
  const isExact = weight === 1;
  /** The least total there can be by way of each state, as far as it is known. */
  const push = (total: number, cost: number, state: number) => heap.push(total - cost * deeperFirst, state);
  const reach = (station: number, cost: number, parent: number, atLeast: number) => {
    const rest = bound.quick(station, next, 0);
    const total = Math.max(atLeast, cost + rest * weight);
    if (cost + rest >= below - tolerance) return;
    const state = states.improve(station, next, cost, parent);
    if (state >= 0) push(total, cost, state);
  };
  const none = new Uint32Array(words);
  steps.listReady(none, 0, ready);
  for (const station of start === null ? [...ready] : [start]) {
    steps.arrive(none, 0, station, next);
    reach(station, 0, -1, 0);
  }
  let horizon = 0;
  while (heap.size() > 0) {
    if (states.size() > maxStates) return null;
    const key = heap.topKey();
    const state = heap.pop();
    if (states.isClosed(state)) continue;
    const from = states.stationOf(state);
    const at = state * words;
    const cost = states.costOf(state);
    const total = key + cost * deeperFirst;
    if (isExact) {
      if (total > horizon) horizon = Math.min(below, total * (1 + stepShare));
      const sharper = cost + bound.sharp(from, states.pool(), at, horizon - cost);
      if (sharper >= below - tolerance) continue;
      if (sharper > total + tolerance) {
        push(sharper, cost, state);
        continue;
      }
    }
    states.close(state);
    if (full.every((word, w) => states.pool()[at + w] === word)) {
      const stations: number[] = [];
      for (let s = state; s >= 0; s = states.parentOf(s)) stations.push(states.stationOf(s));
      stations.reverse();
      if (end !== null && from !== end) stations.push(end);
      return { stations, moveMin: cost + (end === null ? 0 : moves[from]![end]!), optimal: isExact };
    }
    steps.listReady(states.pool(), at, ready);
    for (let i = 0; i < ready.length; i++) {
      const to = ready[i]!;
      if (to === from || steps.passesReady(from, to, ready)) continue;
      steps.arrive(states.pool(), at, to, next);
      reach(to, cost + moves[from]![to]!, state, isExact ? total : 0);
    }
  }
  return { stations: [], moveMin: below, optimal: isExact };
}

/** Always to the nearest station with something to tell: a walk of last resort. */
function walkGreedily({ moves, start, end }: VisitSearch, steps: Steps): VisitOrder {
  let told = new Uint32Array(steps.words);
  const ready: number[] = [];
  const stations: number[] = [];
  let moveMin = 0;
  const go = (to: number) => {
    const from = stations.at(-1);
    if (from !== undefined) moveMin += moves[from]![to]!;
    stations.push(to);
    const next = new Uint32Array(steps.words);
    steps.arrive(told, 0, to, next);
    told = next;
  };
  if (start !== null) go(start);
  for (;;) {
    steps.listReady(told, 0, ready);
    if (ready.length === 0) break;
    const from = stations.at(-1);
    go(from === undefined ? ready[0]! : ready.reduce((a, b) => (moves[from]![b]! < moves[from]![a]! ? b : a)));
  }
  if (end !== null && stations.at(-1) !== end) go(end);
  return { stations, moveMin, optimal: false };
}
