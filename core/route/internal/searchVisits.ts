import { createFinishBound, type FinishBound } from "./finishBound.ts";
import { createMinHeap } from "./minHeap.ts";
import { searchBeam } from "./searchBeam.ts";
import { createToldStates } from "./toldStates.ts";
import type { VisitOrder, VisitSearch } from "./visitSearch.ts";
import { createVisitSteps, type VisitSteps } from "./visitSteps.ts";

const tolerance = 1e-9;
/** States the first exact run may open before a good walk is looked for otherwise. */
const quickStates = 40_000;
/** Steps a wide beam may take, which make its width: about half a second of a laptop core. */
const beamSteps = 9e6;
/** Of states that promise the same, the one further on is opened first. */
const deeperFirst = 1e-7;
/** How far ahead of the cheapest open state bounds are asked for, as a share: asking twice costs, asking too far too. */
const stepShare = 0.15;

/**
 * The cheapest order of visits that tells every block after what it needs.
 *
 * A* over (station, blocks told) with finishBound. On arriving, every ready block is told, which never costs and never
 * hurts. A move that goes past a station with ready blocks at no extra cost is left out, for stopping there tells more.
 * If that does not end soon, beams find a good walk first, and the exact search then starts anew below its cost, until
 * `maxStates`.
 */
export function searchVisits(search: VisitSearch): VisitOrder {
  const { blocks, moves, start, end } = search;
  if (blocks.length === 0) return walkBetween(start, end, moves);
  const steps = createVisitSteps(search);
  const bound = createFinishBound(blocks, moves, end);
  const quick = searchExactly(search, steps, bound, Number.POSITIVE_INFINITY, Math.min(quickStates, search.maxStates));
  if (quick !== null) return quick;
  const wide = Math.ceil(Math.min(3000, beamSteps / (blocks.length * moves.length ** 2)));
  let best = searchBeam(search, steps, bound, Number.POSITIVE_INFINITY, Math.ceil(wide / 20))!;
  if (search.maxStates <= quickStates) return best;
  best = searchBeam(search, steps, bound, best.moveMin, wide) ?? best;
  const exact = searchExactly(search, steps, bound, best.moveMin, search.maxStates);
  if (exact === null) return best;
  return exact.stations.length > 0 ? exact : { ...best, optimal: true };
}

/** With nothing to tell: from start to end, as far as they are given. */
function walkBetween(start: number | null, end: number | null, moves: VisitSearch["moves"]): VisitOrder {
  const stations = [start, end].filter((s) => s !== null).filter((s, i, all) => i === 0 || s !== all[0]);
  const moveMin = stations.length === 2 ? moves[stations[0]!]![stations[1]!]! : 0;
  return { stations, moveMin, optimal: true };
}

/**
 * One A* run. Answers the walk found; one without stations when there is none cheaper than `below`; null when `maxStates`
 * ran out.
 */
function searchExactly(
  search: VisitSearch,
  steps: VisitSteps,
  bound: FinishBound,
  below: number,
  maxStates: number,
): VisitOrder | null {
  const { moves, end } = search;
  const { words } = steps;
  const states = createToldStates(words);
  const heap = createMinHeap();
  const next = new Uint32Array(words);
  const ready: number[] = [];
  /** By way of each state there is no less than `total`, as far as is known. */
  const push = (total: number, cost: number, state: number) => heap.push(total - cost * deeperFirst, state);
  const reach = (station: number, cost: number, parent: number, atLeast: number) => {
    const total = Math.max(atLeast, cost + bound.quick(station, next, 0));
    if (total >= below - tolerance) return;
    const state = states.improve(station, next, cost, parent);
    if (state >= 0) push(total, cost, state);
  };
  for (const station of steps.listStarts()) {
    steps.arrive(steps.none, 0, station, next);
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
    if (total > horizon) horizon = Math.min(below, total * (1 + stepShare));
    const sharper = cost + bound.sharp(from, states.pool(), at, horizon - cost);
    if (sharper >= below - tolerance) continue;
    if (sharper > total + tolerance) {
      push(sharper, cost, state);
      continue;
    }
    states.close(state);
    if (steps.isAllTold(states.pool(), at)) {
      const stations: number[] = [];
      for (let s = state; s >= 0; s = states.parentOf(s)) stations.push(states.stationOf(s));
      stations.reverse();
      if (end !== null && from !== end) stations.push(end);
      return { stations, moveMin: cost + (end === null ? 0 : moves[from]![end]!), optimal: true };
    }
    steps.listReady(states.pool(), at, ready);
    for (let i = 0; i < ready.length; i++) {
      const to = ready[i]!;
      if (to === from || steps.passesReady(from, to, ready)) continue;
      steps.arrive(states.pool(), at, to, next);
      reach(to, cost + moves[from]![to]!, state, total);
    }
  }
  return { stations: [], moveMin: below, optimal: true };
}
