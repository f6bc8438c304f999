import type { Entry, EntryKind } from "./entry.ts";

const onlyAdds: ReadonlySet<EntryKind> = new Set<EntryKind>([
  "mark",
  "measure",
  "snag",
  "promise",
  "assign",
  "photo",
  "settle",
  "tell",
  "call",
  "amend",
  "remote",
  "ask",
  "inspect",
]);

/**
 * Whether an entry that came after the seal goes on from it: a topic made up for, a snag settled, a note. Any other (a
 * mark taken back, a signature, gear counted anew) stands beside the record as a later claim and changes nothing.
 */
export const goesOnFromSeal = (entry: Pick<Entry, "kind">): boolean => onlyAdds.has(entry.kind);
