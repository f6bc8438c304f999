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
  "step",
  "trip",
]);

/**
 * Whether an entry that came after the seal goes on from it: a topic made up for, a snag settled, a note. Any other (a
 * mark taken back, a signature, gear counted anew) stands beside the record as a later claim and changes nothing.
 */
export const goesOnFromSeal = (entry: Pick<Entry, "kind">): boolean => onlyAdds.has(entry.kind);

/** The entry that this one changes: takes back or puts right; null of one that stands by itself. */
export function findChanged(entry: Entry): string | null {
  if (entry.kind === "undo") return entry.ref;
  return entry.kind === "snag" ? (entry.corrects ?? null) : null;
}

/**
 * What an entry outside the signed record is to it: `uncovered` where it was here before the seal but not among what was
 * signed (`isUncovered`: the seal chain says so, no clock does), `claim` where it would change what was signed, and `addition`
 * where it goes on from it.
 */
export function classifyLater(entry: Entry, isUncovered: boolean): "uncovered" | "claim" | "addition" {
  if (isUncovered) return "uncovered";
  return findChanged(entry) !== null || !goesOnFromSeal(entry) ? "claim" : "addition";
}
