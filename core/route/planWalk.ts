import { z } from "zod";
import { type Result, succeed } from "../result.ts";
import { createMoveMap, findStation, isMet, type Rig } from "../rig/index.ts";
import { findTopicStation, type Topic, topicIdSchema } from "../topic/index.ts";
import { type RouteTopic, visitSchema } from "./contract.ts";
import { type RouteError, route } from "./route.ts";
import { findStyle, type RouteStyle, type StyleId, styleIdSchema } from "./styles.ts";

/** A walk order for one boat. Minutes are real ones, not those a style shaped. */
export const planSchema = z.strictObject({
  style: styleIdSchema,
  visits: z.array(visitSchema),
  /** Topics of the library this boat does not have. */
  notHere: z.array(topicIdSchema),
  moves: z.int().min(0),
  moveMin: z.number().min(0),
  topicMin: z.number().min(0),
  totalMin: z.number().min(0),
  optimal: z.boolean(),
});
export type Plan = z.infer<typeof planSchema>;

/** The topics of a library that apply to a boat and have a station there, in library order. */
export function listTopicsFor(rig: Rig, library: readonly Topic[]): Topic[] {
  return library.filter((topic) => isMet(topic.when, rig) && findTopicStation(rig, topic) !== null);
}

/**
 * In which order should this boat be walked in this style? The order has the least (shaped) move time that tells each topic
 * after what it needs and keeps the style's ranks. `cycle` when the library's `after` go in a circle.
 */
export function planWalk(rig: Rig, library: readonly Topic[], styleId: StyleId): Result<Plan, RouteError> {
  const style = findStyle(styleId);
  const topics = listTopicsFor(rig, library);
  const here = new Set(topics.map((topic) => topic.id));
  const { moveMin } = createMoveMap(rig);
  const shaped = rig.stations.map((from, i) =>
    rig.stations.map((to, j) => moveMin[i]![j]! * style.shape(from, to, rig)),
  );
  const stations = rig.stations.map(({ id }) => ({ id }));
  const start = findStation(rig, style.start)?.id;
  const end = findStation(rig, style.end)?.id;
  const told = route({
    stations,
    moveMin: shaped,
    topics: rankTopics(rig, topics, here, style),
    ...(start === undefined ? {} : { start }),
    ...(end === undefined ? {} : { end }),
  });
  if (!told.ok) return told;
  const index = new Map(stations.map(({ id }, i) => [id, i]));
  const visits = told.value.visits.filter((visit) => visit.topics.length > 0);
  const realMoveMin = visits.reduce(
    (sum, visit, i) => (i === 0 ? 0 : sum + moveMin[index.get(visits[i - 1]!.station)!]![index.get(visit.station)!]!),
    0,
  );
  return succeed({
    style: styleId,
    visits,
    notHere: library.filter((topic) => !here.has(topic.id)).map((topic) => topic.id),
    moves: Math.max(0, visits.length - 1),
    moveMin: realMoveMin,
    topicMin: told.value.topicMin,
    totalMin: realMoveMin + told.value.topicMin,
    optimal: told.value.optimal,
  });
}

/**
 * Turns a style's ranks into `after`: every topic comes after all of the next lower rank. A topic that needs one of a higher
 * rank takes that rank, so ranks never contradict needs.
 */
function rankTopics(rig: Rig, topics: readonly Topic[], here: ReadonlySet<string>, style: RouteStyle): RouteTopic[] {
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  const known = new Map<string, number>();
  const rankOf = (topic: Topic, path: ReadonlySet<string>): number => {
    const seen = known.get(topic.id);
    if (seen !== undefined) return seen;
    const before = topic.after.filter((id) => here.has(id) && !path.has(id));
    const rank = Math.max(
      style.rank(topic),
      ...before.map((id) => rankOf(byId.get(id)!, new Set([...path, topic.id]))),
    );
    known.set(topic.id, rank);
    return rank;
  };
  const ranked = topics.map((topic) => ({ topic, rank: rankOf(topic, new Set([topic.id])) }));
  const ranks = [...new Set(ranked.map(({ rank }) => rank))].sort((a, b) => a - b);
  return ranked
    .map(({ topic, rank }, i) => ({ topic, rank, i }))
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map(({ topic, rank }) => {
      const lower = ranks[ranks.indexOf(rank) - 1];
      const gate = ranked.filter((other) => other.rank === lower).map((other) => other.topic.id);
      return {
        id: topic.id,
        station: findTopicStation(rig, topic)!.id,
        minutes: topic.minutes,
        after: [...new Set([...topic.after.filter((id) => here.has(id)), ...gate])],
        must: topic.must,
        value: topic.value,
      };
    });
}
