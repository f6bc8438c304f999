export {
  levels,
  librarySchema,
  moments,
  type System,
  systems,
  type Topic,
  topicIdSchema,
  topicSchema,
} from "./topic.ts";
