import { followMerges, levels, type Topic } from "../topic/index.ts";

/** Calls about each topic, over so many of the latest handovers. */
export interface CallsByTopic {
  readonly handovers: number;
  readonly calls: Readonly<Record<string, number>>;
}

/** How a topic is raised because buyers ring about it. */
export interface Raise {
  readonly level: Topic["level"];
  readonly value: number;
  readonly calls: number;
  readonly handovers: number;
}

/**
 * One call proves nothing. From two, and three in a hundred handovers, a topic goes one step further (told → shown → done)
 * and counts for more where time is short; from four, and six in a hundred, it is done by the buyer's own hands. Our choice:
 * what hands have done is what stays. Once calls grow rarer than that it falls back by itself.
 */
const steps = [
  { calls: 4, share: 0.06, levels: 2, value: 3 },
  { calls: 2, share: 0.03, levels: 1, value: 2 },
] as const;

/** The topics that are raised, and why; minutes follow the level when they are reckoned. */
export function listRaises(topics: readonly Topic[], { handovers, calls }: CallsByTopic): Record<string, Raise> {
  const nameOf = followMerges(topics);
  const counted = new Map<string, number>();
  for (const [id, n] of Object.entries(calls)) counted.set(nameOf(id), (counted.get(nameOf(id)) ?? 0) + n);
  return Object.fromEntries(
    topics.flatMap((topic) => {
      const rung = counted.get(topic.id) ?? 0;
      const step = steps.find((each) => rung >= each.calls && rung >= each.share * handovers);
      if (step === undefined) return [];
      const level = levels[Math.min(levels.length - 1, levels.indexOf(topic.level) + step.levels)]!;
      const value = Math.min(9, topic.value + step.value);
      if (level === topic.level && value === topic.value) return [];
      return [[topic.id, { level, value, calls: rung, handovers }]];
    }),
  );
}

/** Topics as these raises have them. */
export const raiseTopics = (
  topics: readonly Topic[],
  raises: Readonly<Record<string, Pick<Raise, "level" | "value">>>,
): Topic[] =>
  topics.map((topic) => {
    const raise = raises[topic.id];
    return raise === undefined ? topic : { ...topic, level: raise.level, value: raise.value };
  });
