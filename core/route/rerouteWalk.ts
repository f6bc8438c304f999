import { type Result, succeed } from "../result.ts";
import { createMoveMap, findStation, type Rig } from "../rig/index.ts";
import { findTopicStation, type Topic } from "../topic/index.ts";
import type { RouteVisit } from "./contract.ts";
import { listTopicsFor } from "./planWalk.ts";
import { type RouteError, route } from "./route.ts";
import type { RouteStyle } from "./styles.ts";

/**
 * The order of what is left, from where one stands: the least moving about that tells each topic after those it waits for,
 * ending where the style ends. The style's ranks are left aside: people went out of order, and sending them back for the
 * sake of an order they have broken is what this is to spare them. `cycle` as in `route`.
 *
 * `left`: topics not marked yet; those told before count as told. `from`: id of the station one stands at.
 */
export function rerouteWalk(
  rig: Rig,
  left: readonly Topic[],
  style: Pick<RouteStyle, "end">,
  from: string,
): Result<RouteVisit[], RouteError> {
  const topics = listTopicsFor(rig, left);
  const ids = new Set(topics.map(({ id }) => id));
  const end = findStation(rig, style.end)?.id;
  const isEndLeft = topics.some((topic) => findTopicStation(rig, topic)!.id === end);
  const ordered = route({
    stations: rig.stations.map(({ id }) => ({ id })),
    moveMin: createMoveMap(rig).moveMin,
    topics: topics.map((topic) => ({
      id: topic.id,
      station: findTopicStation(rig, topic)!.id,
      minutes: topic.minutes,
      after: topic.after.filter((id) => ids.has(id)),
      must: topic.must,
      value: topic.value,
    })),
    start: from,
    ...(end === undefined || !isEndLeft ? {} : { end }),
  });
  if (!ordered.ok) return ordered;
  return succeed(ordered.value.visits.filter((visit) => visit.topics.length > 0));
}
