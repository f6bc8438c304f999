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
  sha256Schema,
  type WrittenAhead,
  writeCanonical,
  writeJson,
  writeLink,
} from "./handover.ts";
export { type Difference, formatDifference, type Hash, type Verified, verifyBundle } from "./verify.ts";
