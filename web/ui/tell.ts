import { createContext, useContext, useMemo } from "react";
import { createTell, type Language, type PhraseBook, type Tell } from "../../core/language/index.ts";
import type { Idiom, Region } from "../../core/region/index.ts";
import { spell } from "./amounts.ts";
import { storeRegion } from "./storeTime.ts";

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
  const language = useBook()?.language ?? "en";
  return useMemo(() => ({ tell, language }), [tell, language]);
}

/** How things are said to whoever reads: in the store's measures, spelling and clock, or their own language. */
export function useIdiom(): Region & Idiom {
  const book = useBook();
  const region = storeRegion();
  return useMemo(() => ({ ...region, ...(book === undefined ? {} : { book }) }), [region, book]);
}

export function useTell(): Tell {
  const book = useBook();
  return useMemo(() => (book === undefined ? tellPlain : createTell(book)), [book]);
}
