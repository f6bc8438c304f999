export { type Language, languageNames, languages } from "./language.ts";
export {
  languageSchema,
  layBook,
  type OwnPhrases,
  ownPhrasesSchema,
  type PhraseBook,
  phraseBookSchema,
} from "./phraseBook.ts";
export {
  createTell,
  findBook,
  findLabel,
  findPlace,
  findText,
  listBraces,
  sayPhrase,
  type Tell,
  tellJoined,
} from "./sayPhrase.ts";
export { type DaySpan, formatWhole, locales, sayTold, type Told } from "./told.ts";
