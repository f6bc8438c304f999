import { z } from "zod";
import { topicSchema } from "./topic.ts";

/** Topics in a file of their own (`ravik.topics/1`), for another store or for safe keeping. */
export const topicFileSchema = z.strictObject({
  format: z.literal("ravik.topics/1"),
  topics: z.array(topicSchema).min(1).max(600),
});
export type TopicFile = z.infer<typeof topicFileSchema>;
