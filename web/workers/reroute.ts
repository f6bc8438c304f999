import { expose } from "comlink";
import type { Rig, StationKind } from "../../core/rig/index.ts";
import { type RouteVisit, rerouteWalk, routeStyles } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";

const worker = {
  /** What is left, in a good order from where one stands; null when its topics wait for each other in a circle. */
  reroute(rig: Rig, left: readonly Topic[], style: string, from: string): RouteVisit[] | null {
    const end: readonly StationKind[] = routeStyles.find(({ id }) => id === style)?.end ?? [];
    const answer = rerouteWalk(rig, left, { end }, from);
    return answer.ok ? answer.value : null;
  },
};
export type RerouteWorker = typeof worker;

expose(worker);
