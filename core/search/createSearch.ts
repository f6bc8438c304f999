import MiniSearch, { type Query, type SearchOptions } from "minisearch";
import { z } from "zod";
import { toPlainLetters } from "../text/index.ts";

/** Words and phrases that mean one thing; each list is one meaning. */
export const synonymsSchema = z.array(z.array(z.string().min(2).max(40)).min(2).max(12));
export type Synonyms = z.infer<typeof synonymsSchema>;

/** What an item is found by: its name counts most, then its other names, then all that is said of it. */
export interface Searched {
  readonly title: string;
  readonly keys?: string;
  readonly text: string;
}

/** Finds items by words as people ask, the best first; without words all of them in their order. */
export type Search<T> = (words: string, isWanted?: (item: T) => boolean) => T[];

/** What a question is asked with, not about. */
const asking = new Set(
  (
    "a about after am an and any are at be can could do does doing for from get go got had has have how i if in into is it its me my " +
    "need of on one or our should so take tell that the their them then there these they this to us want was we what when where " +
    "which who why will with without work works would you your"
  ).split(" "),
);

const weights = { title: 6, keys: 3, text: 1 } as const;
/** A synonym counts less than the word that was typed. Of a phrase ("dead battery") each word says little: what it means counts more. */
const synonymShare = 0.35;
const typedPhraseShare = 0.5;
const phraseSynonymShare = 0.9;
/** With fewer that have all that was asked for, those follow that have some of it. */
const enough = 3;
const mostPartly = 8;

/**
 * A search over few items (hundreds), kept in memory, without network. A question loses its asking words; the beginning of
 * a word is enough; one slip in five letters is forgiven; plurals are one with their singular; a phrase of `synonyms`
 * finds what the others of its list would. First come those that have all that was asked for; where they are few, some follow
 * that have part of it.
 *
 * @example "how do I flush it" → what is about flushing; "toilets" → what is about the head
 */
export function createSearch<T>(items: readonly T[], read: (item: T) => Searched, synonyms: Synonyms = []): Search<T> {
  let index: MiniSearch<Searched & { id: number }> | null = null;
  const phrases = synonyms.map((list) => list.map((phrase) => splitWords(phrase).map(toSingular)));
  return (words, isWanted = () => true) => {
    const exact = readQuestion(words, phrases, false);
    if (exact.length === 0) return items.filter(isWanted);
    // Made for the first question: whoever only looks at the list waits for none.
    index ??= createIndex(items.map(read));
    const filter: SearchOptions["filter"] = ({ id }) => isWanted(items[id]!);
    const find = (combineWith: "AND" | "OR", queries: Query[]) =>
      index!.search({ combineWith, queries }, { filter }).map(({ id }) => id as number);
    // Slips are looked for only where the words as they are typed find nothing: it takes ten times as long.
    const all = find("AND", exact);
    const asked = all.length > 0 ? exact : readQuestion(words, phrases, true);
    const ids = new Set(all.length > 0 ? all : find("AND", asked));
    if (ids.size < enough && asked.length > 1) for (const id of find("OR", asked).slice(0, mostPartly)) ids.add(id);
    return [...ids].map((id) => items[id]!);
  };
}

function createIndex(texts: readonly Searched[]): MiniSearch<Searched & { id: number }> {
  const index = new MiniSearch<Searched & { id: number }>({
    fields: ["title", "keys", "text"],
    tokenize: splitWords,
    processTerm: toSingular,
    searchOptions: { tokenize: splitWords, processTerm: toSingular },
  });
  index.addAll(texts.map((text, id) => ({ ...text, id })));
  return index;
}

type Phrase = readonly string[];

/** A question as what it asks for: each a word, or a phrase with all that means the same. One letter asks for nothing yet. */
function readQuestion(words: string, synonyms: readonly (readonly Phrase[])[], mayBeSlip: boolean): Query[] {
  const terms = splitWords(words).map(toSingular);
  const asked: Query[] = [];
  const rest: string[] = [];
  for (let at = 0; at < terms.length; ) {
    const meant = findPhrase(terms, at, synonyms);
    if (meant === null) {
      rest.push(terms[at]!);
      at++;
    } else {
      asked.push(oneOf(meant.typed, meant.others, mayBeSlip));
      at += meant.typed.length;
    }
  }
  const about = rest.filter((term) => !asking.has(term) && term.length > 1);
  // Who types only "how" may be on the way to a word.
  const left = about.length === 0 && asked.length === 0 ? rest.filter((term) => term.length > 1) : about;
  return [...asked, ...left.map((term) => oneOf([term], [], mayBeSlip))];
}

/** The longest phrase that begins at `at`, with the others of its lists. */
function findPhrase(terms: readonly string[], at: number, synonyms: readonly (readonly Phrase[])[]) {
  let typed: Phrase | null = null;
  for (const list of synonyms)
    for (const phrase of list)
      if (phrase.every((term, i) => terms[at + i] === term) && phrase.length > (typed?.length ?? 0)) typed = phrase;
  if (typed === null) return null;
  const key = typed.join(" ");
  const others = synonyms
    .filter((list) => list.some((phrase) => phrase.join(" ") === key))
    .flatMap((list) => list.filter((phrase) => phrase.join(" ") !== key));
  return { typed, others };
}

const oneOf = (typed: Phrase, others: readonly Phrase[], mayBeSlip: boolean): Query => {
  const isPhrase = typed.length > 1 && others.length > 0;
  return {
    combineWith: "OR",
    queries: [
      {
        ...allOf(typed, isPhrase ? typedPhraseShare : 1),
        prefix: true,
        fuzzy: (term: string) => (mayBeSlip && term.length >= 5 ? 0.2 : false),
      },
      ...others.map((phrase) => allOf(phrase, isPhrase ? phraseSynonymShare : synonymShare)),
    ],
  };
};

const allOf = (phrase: Phrase, share: number) => ({
  combineWith: "AND" as const,
  queries: [...phrase],
  boost: { title: weights.title * share, keys: weights.keys * share, text: weights.text * share },
});

/** Small letters without accents, apostrophes and signs. */
function splitWords(text: string): string[] {
  return toPlainLetters(text)
    .replace(/['’]/g, "")
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== "");
}

/** "batteries" and "battery", "plugs" and "plug", "hitches" and "hitch" are one word. */
function toSingular(term: string): string {
  if (term.length > 4 && term.endsWith("ies")) return `${term.slice(0, -3)}y`;
  if (term.length > 4 && /(ch|sh|x|ss)es$/.test(term)) return term.slice(0, -2);
  return term.length > 3 && /[^su]s$/.test(term) ? term.slice(0, -1) : term;
}
