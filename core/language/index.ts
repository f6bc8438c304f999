export { type Language, languageNames, languages } from "./language.ts";
export {
  createTell,
  findBook,
  findPlace,
  findText,
  languageSchema,
  layBook,
  listBraces,
  type OwnPhrases,
  ownPhrasesSchema,
  type PhraseBook,
  phraseBookSchema,
  sayPhrase,
  type Tell,
} from "./phraseBook.ts";
