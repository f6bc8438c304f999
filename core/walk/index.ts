export { classifyLater, findChanged, goesOnFromSeal } from "./afterSeal.ts";
export {
  countTopics,
  isCovered,
  isExplaining,
  listHands,
  listOpenTopics,
  listWaits,
  listWalkers,
  type OpenTopic,
  type TopicCount,
} from "./coverage.ts";
export {
  type Entry,
  type EntryKind,
  type EntryOf,
  entrySchema,
  recordIdSchema,
  ulidSchema,
} from "./entry.ts";
export {
  findSignature,
  foldAfterSeal,
  foldWalk,
  type KeptWalk,
  keepWalk,
  listDisputed,
  type SequenceOf,
  type TopicState,
  type WalkState,
} from "./foldWalk.ts";
export { entryMarkWords, formatEntry, laterWords, remoteWords } from "./formatEntry.ts";
export { joinSteps, type Listed, sayJoined } from "./joinSteps.ts";
export { judgeTime, type TimeReceipt } from "./judgeTime.ts";
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
export { formatBuyers, formatFirstNames, formatStrike, struckFirstWords, struckName, unnamedOwner } from "./names.ts";
export {
  listAttending,
  listObstacles,
  listStartObstacles,
  type Obstacle,
  obstacleCodes,
  type StartObstacles,
  type WalkContent,
} from "./obstacles.ts";
export { compareOwed, findSeverity, listOwed, type Owed, type OwedKind, owedKinds } from "./owed.ts";
export { createPhotoId, isOwnersPhoto, isPhotoOf } from "./photoId.ts";
export { findReady, isInOrder, listPutRight, type PutRight } from "./putRight.ts";
export { type EntryRole, mayEnter, type Role, roles, usualAllowers, whoMayEnter } from "./roles.ts";
export { type EntryFault, type EntryQuestion, findEntryFault } from "./rules.ts";
export { hashShown, isSignature, listCovered, listSince, listSittingEntries, listStale } from "./signing.ts";
export { countForSigning, isSignForm, type SignCounts, saysWhatStands, writeSignWords } from "./signWords.ts";
export {
  findWaitingClose,
  listSetAside,
  listUnseen,
  type Unseen,
  unseenWhys,
  type WeighedClose,
  weighCloses,
} from "./weighClose.ts";
