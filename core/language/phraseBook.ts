import { z } from "zod";
import { plainText } from "../text/plainText.ts";
import { languages } from "./language.ts";

export const languageSchema = z.enum(languages);

const phrases = (longest: number) => z.record(z.string().max(600), plainText(longest));

/**
 * Words in another language, by the words they stand for and by what these are: sentences and titles with the same braces in them
 * (`texts`), names of things aboard ("House", "Stereo": `labels`), and places as whole phrases that follow "it is" ("under the
 * helm seat"), by what the boat sheet calls them (`places`). One is never looked up among the others. What stands on a switch is
 * never translated: it is found by what stands on it. A text that was changed since has none until somebody writes one.
 */
export const phraseBookSchema = z.strictObject({
  language: languageSchema.exclude(["en"]),
  texts: phrases(600),
  labels: phrases(120),
  places: phrases(200),
});
export type PhraseBook = z.infer<typeof phraseBookSchema>;

/** A store's own phrases by language, laid over what ships. */
export const ownPhrasesSchema = z.partialRecord(
  languageSchema.exclude(["en"]),
  z.strictObject({
    texts: phrases(600).default({}),
    labels: phrases(120).default({}),
    places: phrases(200).default({}),
  }),
);
export type OwnPhrases = z.infer<typeof ownPhrasesSchema>;

export function layBook(shipped: PhraseBook, own: OwnPhrases): PhraseBook {
  const ours = own[shipped.language];
  if (ours === undefined) return shipped;
  // Written before names stood apart from sentences: what is no sentence of ours may be a name.
  const names = Object.entries(ours.texts).filter(([text]) => shipped.texts[text] === undefined);
  return {
    ...shipped,
    texts: { ...shipped.texts, ...ours.texts },
    labels: { ...shipped.labels, ...Object.fromEntries(names), ...ours.labels },
    places: { ...shipped.places, ...ours.places },
  };
}
