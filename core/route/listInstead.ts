import type { Rig } from "../rig/index.ts";
import { findTopicStation, type Topic } from "../topic/index.ts";

const mostNamed = 3;

/**
 * What took the place of each topic that waits: the least important told ones of its station that fill its minutes, at most
 * three, or those of the whole walk where its station has none. Musts, what was `added`, and what a told topic waits for took
 * nobody's place.
 */
export function listInstead(
  rig: Rig,
  topics: readonly Topic[],
  deferred: readonly string[],
  added: readonly string[] = [],
): ReadonlyMap<string, readonly Topic[]> {
  const waits = new Set(deferred);
  const told = topics.filter(({ id }) => !waits.has(id));
  const needed = new Set([...added, ...told.flatMap(({ after }) => after)]);
  const free = told.filter(({ id, must }) => !must && !needed.has(id)).sort((a, b) => a.value - b.value);
  const stationOf = new Map(topics.map((topic) => [topic.id, findTopicStation(rig, topic)?.id]));
  return new Map(
    topics
      .filter(({ id }) => waits.has(id))
      .map((topic) => {
        const here = free.filter(({ id }) => stationOf.get(id) === stationOf.get(topic.id));
        let left = topic.minutes;
        const instead = (here.length > 0 ? here : free).filter(({ minutes }, i) => {
          const isTaken = left > 0 && i < mostNamed;
          left -= minutes;
          return isTaken;
        });
        return [topic.id, instead] as const;
      }),
  );
}
