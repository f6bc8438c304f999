import { type CallListParts, createCallList } from "./callList.ts";
import { type CareJobParts, createCareJobs } from "./careJobs.ts";
import { createLetters, createPostOffice, type LetterParts } from "./letters.ts";

/** The call list, and what is written to them, by hand or by the server itself. */
export function createAftercareService(parts: LetterParts & CallListParts & CareJobParts) {
  const office = createPostOffice(parts);
  return { ...createCallList(parts, office), ...createLetters(parts, office), ...createCareJobs(parts, office) };
}

export type AftercareService = ReturnType<typeof createAftercareService>;
