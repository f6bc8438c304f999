export {
  type Entry,
  type EntryKind,
  type EntryOf,
  entrySchema,
  isOwnersToMake,
  mayFollowSeal,
  recordIdSchema,
  ulidSchema,
} from "./entry.ts";
export { findSignature, foldWalk, listDisputed, type TopicState, type WalkState } from "./foldWalk.ts";
export { formatEntry, laterWords } from "./formatEntry.ts";
export {
  type LaterHow,
  laterHows,
  type Mark,
  marks,
  ownerId,
  type Severity,
  type SignRole,
  severities,
  signRoles,
} from "./kinds.ts";
export { type BeforeParting, type Forgotten, listBeforeParting, scoreForgotten } from "./listBeforeParting.ts";
export {
  compareOwed,
  findSeverity,
  isCovered,
  listHands,
  listObstacles,
  listOpenTopics,
  listOwed,
  listStartObstacles,
  listWaits,
  type Obstacle,
  type OpenTopic,
  type Owed,
  type OwedKind,
  obstacleCodes,
  owedKinds,
  type StartObstacles,
} from "./rules.ts";
