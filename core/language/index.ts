export { type Language, languageNames, languages } from "./language.ts";
export {
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
} from "./phraseBook.ts";
