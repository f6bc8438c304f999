import { createMoveMap, findStation, type Rig } from "../rig/index.ts";
import { type RouteVisit, route } from "../route/index.ts";
import type { ReadyCheck } from "./readyCheck.ts";

const checkMin = 1;

/** The order in which to go round the boat for these checks: from where one climbs aboard, with the least moving about. */
export function planReady(rig: Rig, checks: readonly ReadyCheck[]): RouteVisit[] {
  const start = findStation(rig, ["bilge", "cockpit", "helm"])?.id;
  const planned = route({
    stations: rig.stations.map(({ id }) => ({ id })),
    moveMin: createMoveMap(rig).moveMin,
    topics: checks.map(({ id, station }) => ({ id, station, minutes: checkMin, after: [], must: true, value: 1 })),
    ...(start === undefined ? {} : { start }),
  });
  // Checks wait for nothing, so that no circle is possible.
  if (!planned.ok) throw new Error(`planReady: expected an order, got ${planned.error.code}`);
  return planned.value.visits.filter(({ topics }) => topics.length > 0);
}
