import { type PhraseBook, phraseBookSchema } from "../../core/language/index.ts";
import es from "./es.json" with { type: "json" };
import fr from "./fr.json" with { type: "json" };

/** The musts and the owner's cards in other languages, with the places and labels of the templates. */
export const phraseBooks: readonly PhraseBook[] = [fr, es].map((book) => phraseBookSchema.parse(book));
