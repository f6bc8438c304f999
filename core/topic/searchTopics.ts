import type { System } from "./systems.ts";
import type { Topic } from "./topic.ts";

export interface TopicFilter {
  readonly words: string;
  readonly system: System | null;
  /** Only these, by id; null for all. */
  readonly only: ReadonlySet<string> | null;
}

/**
 * Finds topics by words: every word must stand somewhere in the topic, at the beginning of one of its words; those with the
 * words in their title come first, otherwise in library order. The text is folded once, so that each key is quick.
 *
 * @example "bat sw" finds "Battery switches: on when you arrive, off when you leave".
 */
export function createTopicSearch(topics: readonly Topic[]): (filter: TopicFilter) => Topic[] {
  const folded = topics.map((topic) => ({
    topic,
    title: fold(topic.title),
    text: fold(
      [topic.title, topic.say, topic.show, topic.does, topic.why, topic.wrong, ...topic.cautions, topic.id].join(" "),
    ),
  }));
  return ({ words, system, only }) => {
    const wanted = fold(words)
      .split(" ")
      .filter((word) => word !== "");
    const isIn = (text: string) => wanted.every((word) => text.includes(` ${word}`));
    const found = folded.filter(
      ({ topic, text }) =>
        (system === null || topic.system === system) && (only === null || only.has(topic.id)) && isIn(text),
    );
    if (wanted.length === 0) return found.map(({ topic }) => topic);
    const [first, rest] = [found.filter(({ title }) => isIn(title)), found.filter(({ title }) => !isIn(title))];
    return [...first, ...rest].map(({ topic }) => topic);
  };
}

/** Small letters without accents and signs, words parted by one space, one in front. */
function fold(text: string): string {
  return ` ${text
    .normalize("NFD")
    .replace(/\p{Diacritic}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, " ")
    .trim()}`;
}
