import type { Language, PhraseBook } from "../../core/language/index.ts";

/** Whom a paper is for: the language it is in, and its book, where that is not the one everything is written in. */
export interface PaperReader {
  readonly language: Language;
  readonly book: PhraseBook | null;
}
