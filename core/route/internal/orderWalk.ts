import type { RouteInput, RouteOutput, RouteTopic, RouteVisit } from "../contract.ts";
import { createBlocks, dropImpliedBlocks, orderTopics } from "./blocks.ts";
import { searchVisits } from "./searchVisits.ts";

export type Walk = Pick<RouteOutput, "visits" | "moveMin" | "topicMin" | "totalMin" | "optimal">;

/**
 * The cheapest walk over all of `topics` (acyclic; closed under `after`). `moves` closed under shortest paths.
 * `maxStates` bounds the search; past it the best walk found comes back with `optimal: false`.
 */
export function orderWalk(
  input: Pick<RouteInput, "stations" | "start" | "end">,
  topics: readonly RouteTopic[],
  moves: readonly (readonly number[])[],
  maxStates: number,
): Walk {
  const stationIndex = new Map(input.stations.map((station, i) => [station.id, i]));
  const ordered = orderTopics(topics);
  if (!ordered.ok) throw new Error(`orderWalk: expected topics without a circle, got ${ordered.circle.join(", ")}`);
  const stationOf = topics.map((topic) => stationIndex.get(topic.station)!);
  const blocks = dropImpliedBlocks(createBlocks(topics, ordered.order, stationOf));
  const found = searchVisits({
    blocks,
    moves,
    start: input.start === undefined ? null : stationIndex.get(input.start)!,
    end: input.end === undefined ? null : stationIndex.get(input.end)!,
    maxStates,
  });
  const visits = tellAtVisits(input, topics, ordered.order, stationOf, found.stations);
  const topicMin = topics.reduce((sum, topic) => sum + topic.minutes, 0);
  return { visits, moveMin: found.moveMin, topicMin, totalMin: found.moveMin + topicMin, optimal: found.optimal };
}

/** Hands each topic to the first visit at its station by which all it comes after has been told. */
function tellAtVisits(
  input: Pick<RouteInput, "stations">,
  topics: readonly RouteTopic[],
  order: readonly number[],
  stationOf: readonly number[],
  stations: readonly number[],
): RouteVisit[] {
  const visitOf = new Map<string, number>();
  const visits: RouteVisit[] = stations.map((s) => ({ station: input.stations[s]!.id, topics: [] }));
  for (const i of order) {
    const topic = topics[i]!;
    let earliest = 0;
    for (const before of topic.after) earliest = Math.max(earliest, visitOf.get(before)!);
    const visit = stations.findIndex((s, v) => v >= earliest && s === stationOf[i]);
    if (visit < 0) throw new Error(`orderWalk: expected a visit for topic ${topic.id} at or after ${earliest}`);
    visitOf.set(topic.id, visit);
    visits[visit]!.topics.push(topic.id);
  }
  return visits;
}
