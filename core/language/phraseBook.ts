import { z } from "zod";
import { plainText } from "../text/plainText.ts";
import { languages } from "./language.ts";

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
