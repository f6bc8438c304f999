import type { Entry } from "../../core/walk/index.ts";
import { summarize } from "./summarize.ts";
import type { HandoverContext } from "./walkReader.ts";

/** The entries that are not in the sealed record; none of a handover that is not sealed. */
export function listLater({ walk, log }: HandoverContext): readonly Entry[] {
  if (walk.sealed === null) return [];
  const inside = new Set(walk.sealed.entries.map(({ id }) => id));
  return log.entries.filter(({ id }) => !inside.has(id));
}

/** What of a handover stands in its row, as it is now. */
export function summarizeContext(context: HandoverContext) {
  const { walk, log } = context;
  return summarize(walk, walk.sealed?.entries ?? log.entries, listLater(context), walk.sealed !== null);
}
