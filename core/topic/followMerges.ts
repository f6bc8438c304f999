import type { Topic } from "./topic.ts";

/** What an id means in this library: a topic that was merged into another is that other. Unknown ids stay as they are. */
export function followMerges(topics: readonly Topic[]): (id: string) => string {
  const into = new Map(topics.flatMap(({ id, was = [] }) => was.map((merged) => [merged, id] as const)));
  return (id) => into.get(id) ?? id;
}
