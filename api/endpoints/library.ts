import { z } from "zod";
import { faultContentSchema } from "../../core/faults/index.ts";
import { languageSchema } from "../../core/language/index.ts";
import { plainText } from "../../core/rig/index.ts";
import { ownStyleSchema } from "../../core/route/index.ts";
import { glossaryEntrySchema, topicIdSchema, topicSchema } from "../../core/topic/index.ts";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { authors, everyone, keepers } from "../roles.ts";
import {
  dockCallSheetSchema,
  glossarySchema,
  guidesSchema,
  languageSheetSchema,
  librarySheetSchema,
} from "../schemas.ts";
import { done, none } from "./shared.ts";

const oneTopic = z.strictObject({ topic: topicIdSchema });

/** What is taught. */
export const libraryEndpoints = {
  library: endpoint({
    ...addresses.library,
    summary: "Topics, edits, schools and styles of this store",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: librarySheetSchema,
  }),
  glossary: endpoint({
    ...addresses.glossary,
    summary: "The trade words and what they mean",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: glossarySchema,
  }),
  guides: endpoint({
    ...addresses.guides,
    summary: "What is done step by step (hitching up, launching), and what must be aboard: nothing of the store's",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: guidesSchema,
  }),
  faults: endpoint({
    ...addresses.faults,
    summary:
      "What fails on boats and how it is looked at, in words: nothing of the store's, so that owners' pages read it too",
    admits: "public",
    params: none,
    query: none,
    body: null,
    answer: faultContentSchema,
  }),
  dockCalls: endpoint({
    ...addresses.dockCalls,
    summary: "Calls about what fails, open and closed, and how likely they make each kind of fault",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: dockCallSheetSchema,
  }),
  forgetCalls: endpoint({
    ...addresses.forgetCalls,
    summary: "Begin anew to learn from calls: those before count no more for what fails or what is taught further",
    admits: keepers,
    audit: "library",
    params: none,
    query: none,
    body: none,
    answer: done,
  }),
  setTopic: endpoint({
    ...addresses.setTopic,
    summary: "Keep the store's own wording of a topic",
    admits: authors,
    audit: "library",
    params: oneTopic,
    query: none,
    body: topicSchema,
    answer: done,
  }),
  revertTopic: endpoint({
    ...addresses.revertTopic,
    summary: "Back to the shipped wording",
    admits: authors,
    audit: "library",
    params: oneTopic,
    query: none,
    body: null,
    answer: done,
  }),
  importTopics: endpoint({
    ...addresses.importTopics,
    summary: "Take in topics from a file; all or none",
    admits: authors,
    audit: "library",
    params: none,
    query: none,
    body: z.strictObject({ topics: z.array(topicSchema).min(1).max(600) }),
    answer: z.strictObject({ changed: z.int(), same: z.int() }),
  }),
  languages: endpoint({
    ...addresses.languages,
    summary: "Words in other languages, and what there is to translate",
    admits: everyone,
    params: none,
    query: none,
    body: null,
    answer: languageSheetSchema,
  }),
  setPhrase: endpoint({
    ...addresses.setPhrase,
    summary: "Keep the store's own words for a text or a place in another language; null goes back to what ships",
    admits: authors,
    audit: "library",
    params: z.strictObject({ language: languageSchema.exclude(["en"]) }),
    query: none,
    body: z.strictObject({
      kind: z.enum(["texts", "labels", "places"]),
      text: z.string().min(1).max(600),
      words: plainText(600).nullable(),
    }),
    answer: done,
  }),
  setWord: endpoint({
    ...addresses.setWord,
    summary: "Keep the store's own words for a term: another meaning, none (null), or what ships again (left out)",
    admits: authors,
    audit: "library",
    params: none,
    query: none,
    body: z.strictObject({ key: plainText(40), entry: glossaryEntrySchema.nullable().optional() }),
    answer: done,
  }),
  setSchools: endpoint({
    ...addresses.setSchools,
    summary: "Choose which school this store teaches",
    admits: authors,
    audit: "library",
    params: none,
    query: none,
    body: z.strictObject({ schools: z.record(topicIdSchema, topicIdSchema) }),
    answer: done,
  }),
  setStyles: endpoint({
    ...addresses.setStyles,
    summary: "Keep the store's own route styles",
    admits: authors,
    audit: "library",
    params: none,
    query: none,
    body: z.strictObject({ styles: z.array(ownStyleSchema).max(20) }),
    answer: done,
  }),
} as const;
