export { type Bundle, bundleFile, bundleSchema, findPhotoId, photoFile } from "./bundle.ts";
export {
  type Amendment,
  amendmentSchema,
  firstLink,
  type Handover,
  handoverSchema,
  type PhotoFact,
  personSchema,
  photoFactSchema,
  strikeFirst,
  type WrittenAhead,
  writeCanonical,
  writeLink,
} from "./handover.ts";
export { hashSigned } from "./hashSigned.ts";
export {
  type Arrival,
  arrivals,
  hashSalted,
  type OpenedHandover,
  openSealed,
  type Receipt,
  receiptSchema,
  type SealedAmendment,
  type SealedBundle,
  type SealedContent,
  type SealedHandover,
  type SealedPhoto,
  type SignedPlace,
  saltParts,
  sealedAmendmentSchema,
  sealedBundleSchema,
  sealedContentSchema,
  sealedFormats,
  sealedHandoverSchema,
} from "./sealed.ts";
export {
  compareSnapshots,
  mergeSnapshots,
  resolveTopics,
  type Snapshot,
  type SnapshotChanges,
  sealSnapshot,
  snapshotSchema,
  tellAsHeard,
} from "./snapshot.ts";
export { type Strike, strikeEntry, strikeSchema } from "./strike.ts";
export { type Difference, type Verified, verdicts } from "./verified.ts";
export { formatDifference, verifyBundle } from "./verify.ts";
