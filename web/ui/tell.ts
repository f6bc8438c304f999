import { createContext, useContext, useMemo } from "react";
import { createTell, type Language, type PhraseBook, type Tell } from "../../core/language/index.ts";
import { spell } from "./amounts.ts";

/** The book of whoever reads, where that is not the language everything is written in. */
export const BookContext = createContext<PhraseBook | undefined>(undefined);

export const tellPlain: Tell = createTell(null, spell);

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
  return useMemo(() => (book === undefined ? tellPlain : createTell(book)), [book]);
}
