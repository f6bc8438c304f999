export { blankTopic, createTopicId } from "./createTopic.ts";
export { explainTopic, type TopicReason } from "./explainTopic.ts";
export { fillText, fillTopic, fittingNames, type SchoolChoices } from "./fillTopic.ts";
export { findTopicStation, nameTopicPart } from "./findTopicStation.ts";
export { followMerges } from "./followMerges.ts";
export {
  createGlossaryMarker,
  type GlossaryEntry,
  type GlossaryLine,
  glossaryEntrySchema,
  glossaryListSchema,
  layGlossary,
  type OwnWords,
  ownWordsSchema,
  type TextPiece,
} from "./glossary.ts";
export { listTexts } from "./listTexts.ts";
export { createTopicSearch, type TopicFilter } from "./searchTopics.ts";
export { shortenTitles } from "./shortenTitles.ts";
export { type System, systemNames, systems } from "./systems.ts";
export {
  type ToldIn,
  type TopicWords,
  tellIn,
  tellTopics,
  toldInSchema,
  topicWordsSchema,
  withWords,
  wordsOf,
} from "./tellTopics.ts";
export {
  levels,
  librarySchema,
  moments,
  type School,
  settings,
  type Topic,
  toldTopicSchema,
  topicIdSchema,
  topicSchema,
} from "./topic.ts";
export { type TopicFile, topicFileSchema } from "./topicFile.ts";
