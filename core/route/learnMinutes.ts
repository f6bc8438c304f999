import { followMerges, type Topic } from "../topic/index.ts";
import type { PlanOptions } from "./planOptions.ts";
import { chooseLevel, proposeMinutes, reckonMinutes } from "./reckonMinutes.ts";

/** What teaching one topic took in one walk, and with whom. */
export interface Spent extends Pick<PlanOptions, "people" | "experience"> {
  readonly delivery: string;
  readonly topic: string;
  readonly spentS: number;
}

/** How many walks' worth of trust the model has. */
const modelWeight = 5;
/** A time outside these shares of the reckoned one counts as the nearest of them: a phone rang, a mark came late. */
const least = 0.25;
const most = 3;

/**
 * Minutes of each topic with one first-time buyer, as recorded walks took them with whoever came: the topic's own minutes
 * times recorded over reckoned, averaged, the model's 1 counting as five records, each record held between a quarter and
 * three times. Time of topics that were merged counts together.
 *
 * @example a topic of 2 min, five walks that each took twice what was reckoned for those people → 3 min.
 */
export function learnMinutes(topics: readonly Topic[], recorded: readonly Spent[]): Record<string, number> {
  const nameOf = followMerges(topics);
  const walks = new Map<string, Spent>();
  for (const { spentS, ...each } of recorded) {
    const topic = nameOf(each.topic);
    const key = `${each.delivery} ${topic}`;
    walks.set(key, { ...each, topic, spentS: spentS + (walks.get(key)?.spentS ?? 0) });
  }
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  const sums = new Map(topics.map(({ id }) => [id, { sum: modelWeight, count: modelWeight }]));
  for (const { topic: id, spentS, ...people } of walks.values()) {
    const topic = byId.get(id);
    if (topic === undefined) continue;
    const level = chooseLevel(topic, people.experience);
    // What the store has set for a topic is what its walks are held against.
    const own = topic.minutes / proposeMinutes(topic);
    const ratio = spentS / 60 / (reckonMinutes({ ...topic, level }, people) * own);
    const sum = sums.get(id)!;
    sum.sum += Math.min(most, Math.max(least, ratio));
    sum.count++;
  }
  return Object.fromEntries(
    topics.map(({ id, minutes }) => {
      const { sum, count } = sums.get(id)!;
      return [id, (minutes * sum) / count];
    }),
  );
}
