export { type System, systemNames, systems } from "./systems.ts";
export { levels, librarySchema, moments, type Topic, topicIdSchema, topicSchema } from "./topic.ts";
