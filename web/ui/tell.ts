import { createContext, useCallback, useContext } from "react";
import { type Language, type PhraseBook, sayPhrase, type Tell } from "../../core/language/index.ts";
import { spell } from "./amounts.ts";

/** The book of whoever reads, where that is not the language everything is written in. */
export const BookContext = createContext<PhraseBook | undefined>(undefined);

export const tellPlain: Tell = (phrase, ...values) => spell(sayPhrase(undefined, phrase, ...values));

export const useBook = (): PhraseBook | undefined => useContext(BookContext);

/** Whoever reads: their words, and the language days are written in. */
export interface Reader {
  readonly tell: Tell;
  readonly language: Language;
}
export const plainReader: Reader = { tell: tellPlain, language: "en" };

export function useReader(): Reader {
  const tell = useTell();
  return { tell, language: useBook()?.language ?? "en" };
}

export function useTell(): Tell {
  const book = useBook();
  return useCallback(
    (phrase, ...values) => (book === undefined ? tellPlain(phrase, ...values) : sayPhrase(book, phrase, ...values)),
    [book],
  );
}
