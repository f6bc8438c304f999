import { z } from "zod";
import { plainText } from "../text/plainText.ts";
import { type Language, languages } from "./language.ts";

export const languageSchema = z.enum(languages);

const phrases = (longest: number) => z.record(z.string().max(600), plainText(longest));

/**
 * Words in another language, by the words they stand for: whole sentences with the same braces in them (`texts`), and places
 * as whole phrases that follow "it is" ("under the helm seat"), by what the boat sheet calls them (`places`). A text that was
 * changed since has none until somebody writes one: nobody reads the translation of other words.
 */
export const phraseBookSchema = z.strictObject({
  language: languageSchema.exclude(["en"]),
  texts: phrases(600),
  places: phrases(200),
});
export type PhraseBook = z.infer<typeof phraseBookSchema>;

/** A store's own phrases by language, laid over what ships. */
export const ownPhrasesSchema = z.partialRecord(
  languageSchema.exclude(["en"]),
  z.strictObject({ texts: phrases(600).default({}), places: phrases(200).default({}) }),
);
export type OwnPhrases = z.infer<typeof ownPhrasesSchema>;

export function layBook(shipped: PhraseBook, own: OwnPhrases): PhraseBook {
  const ours = own[shipped.language];
  if (ours === undefined) return shipped;
  return {
    ...shipped,
    texts: { ...shipped.texts, ...ours.texts },
    places: { ...shipped.places, ...ours.places },
  };
}

/** The book of a language; undefined for the language that everything is written in. */
export const findBook = (books: readonly PhraseBook[], language: Language) =>
  books.find((book) => book.language === language);

const own = <V>(record: Readonly<Record<string, V>>, key: string): V | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/** A text in the book's words; undefined where it has none for it. */
export const findText = (book: PhraseBook | undefined, text: string) =>
  book === undefined ? undefined : own(book.texts, text);
export const findPlace = (book: PhraseBook | undefined, place: string) =>
  book === undefined ? undefined : own(book.places, place);

/** A phrase with values in it: `sayPhrase(book, "{0} pins", 7)` → "7 pins", "7 broches". */
export function sayPhrase(
  book: PhraseBook | undefined,
  phrase: string,
  ...values: readonly (string | number)[]
): string {
  return (findText(book, phrase) ?? phrase).replace(/\{(\d)\}/g, (_, i: string) => String(values[Number(i)] ?? ""));
}

/** A phrase in the reader's words, with values in it: tell("{0} of {1}", 3, 5). */
export type Tell = (phrase: string, ...values: readonly (string | number)[]) => string;

export const createTell =
  (book: PhraseBook | null): Tell =>
  (phrase, ...values) =>
    sayPhrase(book ?? undefined, phrase, ...values);

/** What stands in braces in a text, sorted: what its translation must have too. */
export function listBraces(text: string): string[] {
  return [...text.matchAll(/\{((?:at|each|rig|amount):[^{}|]+|if:[a-z-]+|\d)/g)].map(([, name]) => name!).sort();
}
