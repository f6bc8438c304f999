import { createMoveMap, type Rig } from "../rig/index.ts";
import type { Topic } from "../topic/index.ts";
import type { RouteVisit } from "./contract.ts";

/** When of the walk a topic begins and ends, in minutes from its start. */
export interface TimedTopic {
  readonly topic: Topic;
  readonly fromMin: number;
  readonly toMin: number;
}

/** A walk with its clock: moves and topics one after the other, as they are planned. */
export function timeWalk(rig: Rig, topics: readonly Topic[], visits: readonly RouteVisit[]): TimedTopic[] {
  const { moveMin } = createMoveMap(rig);
  const index = new Map(rig.stations.map(({ id }, i) => [id, i]));
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  let atMin = 0;
  return visits.flatMap((visit, stop) => {
    if (stop > 0) atMin += moveMin[index.get(visits[stop - 1]!.station)!]![index.get(visit.station)!]!;
    return visit.topics.flatMap((id) => {
      const topic = byId.get(id);
      if (topic === undefined) return [];
      const fromMin = atMin;
      atMin += topic.minutes;
      return [{ topic, fromMin, toMin: atMin }];
    });
  });
}

/** The musts that end after the time there is, in the order of the walk. */
export function listTooLate(timed: readonly TimedTopic[], budgetMin: number): Topic[] {
  return timed.filter(({ topic, toMin }) => topic.must && toMin > budgetMin + 1e-9).map(({ topic }) => topic);
}
