export {
  type Entry,
  type EntryKind,
  type EntryOf,
  entrySchema,
  isAfterSeal,
  type Mark,
  marks,
  recordIdSchema,
  ulidSchema,
} from "./entry.ts";
export { foldWalk, type TopicState, type WalkState } from "./foldWalk.ts";
export {
  isCovered,
  listObstacles,
  listOpenTopics,
  listOwed,
  type Obstacle,
  type OpenTopic,
  type Owed,
} from "./standing.ts";
