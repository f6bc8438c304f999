import type { FinishBound } from "./finishBound.ts";
import type { VisitOrder, VisitSearch } from "./visitSearch.ts";
import type { VisitSteps } from "./visitSteps.ts";

interface Stop {
  readonly station: number;
  readonly told: Uint32Array;
  readonly minutes: number;
  /** Minutes so far and the bound on the rest. */
  readonly promise: number;
  readonly before: Stop | null;
}

/** How far over the quick bound the sharp one is asked for, as a share of it. */
const sharpShare = 1.4;

/**
 * A good walk, soon: visit by visit, only the `width` most promising are taken further. Null when it finds none cheaper than
 * `below`; with no such limit it always finds one, for from every state something can be told. Not proven.
 */
export function searchBeam(
  { moves, end }: VisitSearch,
  steps: VisitSteps,
  bound: FinishBound,
  below: number,
  width: number,
): VisitOrder | null {
  const found: { least: number; best: Stop | null } = { least: below, best: null };
  const ready: number[] = [];
  const told = new Uint32Array(steps.words);
  const offer = (stops: Map<string, Stop>, before: Stop | null, station: number, minutes: number) => {
    steps.arrive(before?.told ?? steps.none, 0, station, told);
    const quick = bound.quick(station, told, 0);
    const promise = minutes + Math.max(quick, bound.sharp(station, told, 0, quick * sharpShare));
    if (promise >= found.least - 1e-9) return;
    const stop = { station, told: told.slice(), minutes, promise, before };
    if (steps.isAllTold(told, 0)) {
      found.best = stop;
      found.least = promise;
      return;
    }
    const key = `${station}:${told.join()}`;
    const rival = stops.get(key);
    if (rival === undefined || minutes < rival.minutes) stops.set(key, stop);
  };
  let stops = new Map<string, Stop>();
  for (const station of steps.listStarts()) offer(stops, null, station, 0);
  while (stops.size > 0) {
    const next = new Map<string, Stop>();
    for (const stop of [...stops.values()].sort((a, b) => a.promise - b.promise).slice(0, width)) {
      steps.listReady(stop.told, 0, ready);
      for (const to of ready) {
        if (to !== stop.station && !steps.passesReady(stop.station, to, ready))
          offer(next, stop, to, stop.minutes + moves[stop.station]![to]!);
      }
    }
    stops = next;
  }
  if (found.best === null) return null;
  const stations: number[] = [];
  for (let stop: Stop | null = found.best; stop !== null; stop = stop.before) stations.unshift(stop.station);
  if (end !== null && stations.at(-1) !== end) stations.push(end);
  return { stations, moveMin: found.least, optimal: false };
}
