import { createSearch, type Synonyms } from "../search/index.ts";
import { type System, systemNames } from "./systems.ts";
import type { Topic } from "./topic.ts";

export interface TopicFilter {
  readonly words: string;
  readonly system: System | null;
  /** Only these, by id; null for all. */
  readonly only: ReadonlySet<string> | null;
}

/**
 * Finds topics as people ask for them (`createSearch`), the best first; without words in library order.
 *
 * @example "bat sw" and "how do I turn the batteries off" find "Battery switches: on when you arrive, off when you leave".
 */
export function createTopicSearch(topics: readonly Topic[], synonyms: Synonyms = []): (filter: TopicFilter) => Topic[] {
  const search = createSearch(topics, readTopic, synonyms);
  return ({ words, system, only }) =>
    search(words, (topic) => (system === null || topic.system === system) && (only === null || only.has(topic.id)));
}

const readTopic = (topic: Topic) => ({
  title: topic.title,
  keys: [topic.id, topic.of ?? "", ...topic.where, systemNames[topic.system]].join(" "),
  text: [topic.say, topic.show, topic.does, topic.why, topic.wrong, ...topic.cautions].map(openBraces).join(" "),
});

/** The words a text may be told with: what a condition in it is about is none of them. */
const openBraces = (text: string) =>
  text
    .replace(/\{if:[a-z-]+\?/g, "")
    .replace(/\{(at|each|start|rig):[^}]*\}/g, "")
    .replace(/[|}]/g, " ");
