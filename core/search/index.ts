export { createSearch, type Search, type Searched, type Synonyms, synonymsSchema } from "./createSearch.ts";
