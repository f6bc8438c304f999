import type { Language } from "./language.ts";
import type { PhraseBook } from "./phraseBook.ts";

/** The book of a language; undefined for the language that everything is written in. */
export const findBook = (books: readonly PhraseBook[], language: Language) =>
  books.find((book) => book.language === language);

const own = <V>(record: Readonly<Record<string, V>>, key: string): V | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/** A text in the book's words; undefined where it has none for it. */
export const findText = (book: PhraseBook | undefined, text: string) =>
  book === undefined ? undefined : own(book.texts, text);
/** What a thing aboard is called in the book's language; undefined where it has no name for it. */
export const findLabel = (book: PhraseBook | undefined, label: string) =>
  // A page that was kept by an older version has none.
  book?.labels === undefined ? undefined : own(book.labels, label);
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

/** Says what there is in the reader's words. */
export interface Tell {
  /** A phrase, with values in it: tell("{0} of {1}", 3, 5). */
  (phrase: string, ...values: readonly (string | number)[]): string;
  /** What the boat sheet calls a thing, never a sentence: tell.label("House"). */
  label(label: string): string;
}

/** Words by a book; what it does not have stays as it is written, `spelled`. */
export const createTell = (book: PhraseBook | null, spelled: (text: string) => string = (text) => text): Tell =>
  Object.assign(
    (phrase: string, ...values: readonly (string | number)[]) => {
      const said = sayPhrase(book ?? undefined, phrase, ...values);
      return book === null ? spelled(said) : said;
    },
    { label: (label: string) => findLabel(book ?? undefined, label) ?? spelled(label) },
  );

/** What stands in braces in a text, sorted: what its translation must have too. */
export function listBraces(text: string): string[] {
  return [...text.matchAll(/\{((?:at|each|start|rig|amount):[^{}|]+|if:[a-z-]+|\d)/g)].map(([, name]) => name!).sort();
}

/** Names in a sentence, in the reader's language: "Port, Starboard and House". */
export const tellJoined = (tell: Tell, names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : tell("{0} and {1}", names.slice(0, -1).join(", "), names.at(-1)!);
