import type { EntryOf } from "./entry.ts";
import type { WalkState } from "./foldWalk.ts";

/**
 * Whether a check of make-ready is in order: it was found so, or every fault that was written down from it has been settled since.
 * A fault that was put right leaves no check red.
 */
export function isInOrder({ ready, snags, settled }: Pick<WalkState, "ready" | "snags" | "settled">, check: string) {
  const found = ready.get(check);
  if (found === undefined || found.ok) return found?.ok === true;
  const faults = snags.filter((snag) => snag.check === check);
  return faults.length > 0 && faults.every(({ id }) => settled.has(id));
}

/** Something that was wrong or promised, and what was done about it. */
export interface PutRight {
  readonly what: EntryOf<"snag"> | EntryOf<"promise">;
  readonly how: EntryOf<"settle">;
}

/** What was put right of all that was found or promised, the first found first: the buyer sees both. */
export function listPutRight({
  snags,
  promises,
  settled,
}: Pick<WalkState, "snags" | "promises" | "settled">): PutRight[] {
  return [...snags, ...promises].flatMap((what) => {
    const how = settled.get(what.id);
    return how === undefined ? [] : [{ what, how }];
  });
}
