import { followMerges, levels, type Topic } from "../topic/index.ts";

/** Calls about topics and handovers of the same time, each by its instant in ms. */
export interface CallsHere {
  readonly calls: readonly { readonly topic: string; readonly atMs: number }[];
  readonly handoversMs: readonly number[];
}

/** How a topic is raised because buyers ring about it: so many calls over so many handovers. */
export interface Raise {
  readonly level: Topic["level"];
  readonly value: number;
  readonly calls: number;
  readonly handovers: number;
}

/**
 * One call proves nothing. From two within a hundred handovers, and two in a hundred, a topic goes one step further (told →
 * shown → done) and counts for more where time is short; from three, and three in a hundred, it is done by the buyer's own
 * hands. Our choice: what hands have done is what stays.
 */
const steps = [
  { calls: 3, share: 0.03, levels: 2, value: 3 },
  { calls: 2, share: 0.02, levels: 1, value: 2 },
] as const;
const windowHandovers = 100;

/**
 * The topics that are raised, and why; minutes follow the level when they are reckoned. The worst hundred handovers of what is
 * given decides: calls grow rare because a topic was raised, which is no reason to lower it. Whoever asks gives as far back as
 * a raise is to hold.
 */
export function listRaises(topics: readonly Topic[], { calls, handoversMs }: CallsHere): Record<string, Raise> {
  const nameOf = followMerges(topics);
  const signed = [...handoversMs].sort((a, b) => a - b);
  const numbersOf = new Map<string, number[]>();
  // Which handover was the last before each call.
  for (const { topic, atMs } of [...calls].sort((a, b) => a.atMs - b.atMs)) {
    const id = nameOf(topic);
    numbersOf.set(id, [...(numbersOf.get(id) ?? []), countUpTo(signed, atMs)]);
  }
  return Object.fromEntries(
    topics.flatMap((topic) => {
      const raise = findRaise(topic, numbersOf.get(topic.id) ?? []);
      return raise === null ? [] : [[topic.id, raise]];
    }),
  );
}

function findRaise(topic: Topic, numbers: readonly number[]): Raise | null {
  for (const step of steps) {
    for (const last of numbers) {
      const calls = numbers.filter((number) => number <= last && number > last - windowHandovers).length;
      const handovers = Math.min(windowHandovers, Math.max(1, last));
      if (calls < step.calls || calls < step.share * handovers) continue;
      const level = levels[Math.min(levels.length - 1, levels.indexOf(topic.level) + step.levels)]!;
      const value = Math.min(9, topic.value + step.value);
      return level === topic.level && value === topic.value ? null : { level, value, calls, handovers };
    }
  }
  return null;
}

/** How many of a rising list are at most this. */
function countUpTo(sorted: readonly number[], most: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! <= most) low = middle + 1;
    else high = middle;
  }
  return low;
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
