import type { ReadyCheck } from "../ready/index.ts";
import type { EntryOf } from "./entry.ts";
import type { WalkState } from "./foldWalk.ts";

/**
 * How a check of make-ready stands: never looked at, good, bad, or mended: every fault that was written down from it is settled, one of
 * them after it was last found bad. What is settled is no engine that was run: a check that asks for minutes stays bad until it is.
 */
export function findReady(
  { ready, snags, settled }: Pick<WalkState, "ready" | "snags" | "settled">,
  { id, asksMinutes }: Pick<ReadyCheck, "id" | "asksMinutes">,
): "open" | "good" | "bad" | "mended" {
  const found = ready.get(id);
  if (found === undefined) return "open";
  if (found.ok) return "good";
  const ways = snags.filter((snag) => snag.check === id).map((snag) => settled.get(snag.id));
  const isMended =
    ways.every((how) => how !== undefined) && ways.some((how) => how !== undefined && isAfter(how, found));
  return isMended && !asksMinutes ? "mended" : "bad";
}

const isAfter = (one: EntryOf<"settle">, other: EntryOf<"ready">) => Date.parse(one.at) > Date.parse(other.at);

/** Whether a check was found in order, or put right since. */
export const isInOrder = (...of: Parameters<typeof findReady>): boolean =>
  ["good", "mended"].includes(findReady(...of));

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
