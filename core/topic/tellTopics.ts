import { z } from "zod";
import { type Language, languageSchema, type PhraseBook } from "../language/index.ts";
import type { Idiom } from "../region/index.ts";
import { plainText, type Rig } from "../rig/index.ts";
import { fillTopic, type SchoolChoices } from "./fillTopic.ts";
import { filledText, type Topic, topicIdSchema } from "./topic.ts";

/** The words of a topic in another language, as they are told on one boat. */
export const topicWordsSchema = z.strictObject({
  title: plainText(160),
  why: filledText,
  say: filledText,
  show: filledText,
  does: filledText,
  wrong: filledText,
  cautions: z.array(filledText).max(4),
  school: z.strictObject({ name: plainText(120), tradeOff: plainText(600) }).optional(),
});
export type TopicWords = z.infer<typeof topicWordsSchema>;

/** Topics in other languages, by language and topic; a topic that nobody translated is not among them. */
export const toldInSchema = z.partialRecord(languageSchema, z.record(topicIdSchema, topicWordsSchema));
export type ToldIn = z.infer<typeof toldInSchema>;

/** The words of topics in a book's language, for those of which it has the title or what is said. */
export function tellTopics(
  topics: readonly Topic[],
  rig: Rig,
  idiom: Idiom & { readonly book: PhraseBook },
  schools: SchoolChoices,
): Record<string, TopicWords> {
  return Object.fromEntries(
    topics.flatMap((topic) => {
      const has = (text: string) => Object.hasOwn(idiom.book.texts, text);
      const said = [topic.title, topic.say, ...(topic.schools ?? []).map(({ say }) => say)];
      return said.some(has) ? [[topic.id, wordsOf(fillTopic(topic, rig, idiom, schools))] as const] : [];
    }),
  );
}

/** The words of a topic, without what it is and asks. */
export function wordsOf({ title, why, say, show, does, wrong, cautions, school }: Topic): TopicWords {
  const words = { title, why, say, show, does, wrong, cautions: [...cautions] };
  return school === undefined ? words : { ...words, school: { name: school.name, tradeOff: school.tradeOff } };
}

/** A topic with other words. */
export function withWords<T extends Topic>(topic: T, words: TopicWords | undefined): T {
  if (words === undefined) return topic;
  const { school, ...rest } = words;
  return {
    ...topic,
    ...rest,
    ...(school === undefined || topic.school === undefined ? {} : { school: { ...topic.school, ...school } }),
  };
}

/** A handover's topics in a language, as far as they were translated; its own words are kept under "en" to come back to. */
export function tellIn<D extends { readonly topics: readonly Topic[]; readonly told: ToldIn }>(
  handover: D,
  language: Language,
): D {
  const words = handover.told[language];
  if (words === undefined) return handover;
  const changed = handover.topics.filter(({ id }) => words[id] !== undefined);
  const before = Object.fromEntries(changed.map((topic) => [topic.id, wordsOf(topic)]));
  return {
    ...handover,
    topics: handover.topics.map((topic) => withWords(topic, words[topic.id])),
    told: { ...handover.told, en: { ...before, ...handover.told.en } },
  };
}
