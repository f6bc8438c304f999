import { type Entry, findWaitingClose, formatEntry, type WalkState } from "../../core/walk/index.ts";
import type { Summary } from "../repositories/deliveries.ts";
import { summarize, summarizeState } from "./summarize.ts";
import type { HandoverContext } from "./walkReader.ts";

/** The entries that are not in the sealed record; none of a handover that is not sealed. */
export function listLater({ walk, log }: HandoverContext): readonly Entry[] {
  if (walk.sealed === null) return [];
  const inside = new Set(walk.sealed.entries.map(({ id }) => id));
  return log.entries.filter(({ id }) => !inside.has(id));
}

/** What of a handover stands in its row, as it is now. `state`: of one that is not sealed, where it is folded already. */
export function summarizeContext(context: HandoverContext, state?: WalkState): Summary {
  const { walk, log } = context;
  if (walk.sealed !== null) return summarize(walk, walk.sealed.entries, listLater(context), true);
  const summary = state === undefined ? summarize(walk, log.entries, [], false) : summarizeState(walk, state);
  const waits = findWaits(context);
  return waits === null ? summary : { ...summary, waits };
}

/** Why what was closed is not sealed, where somebody has to act. */
function findWaits({ walk, log }: HandoverContext): NonNullable<Summary["waits"]> | null {
  const waiting = findWaitingClose(walk, log.entries, (id) => log.receipts.get(id)?.number);
  if (waiting === null) return null;
  const titles = new Map(walk.topics.map(({ id, title }) => [id, title]));
  const say = (entry: Entry) =>
    formatEntry(entry, { rig: walk.rig, entries: log.entries }, (id) => titles.get(id) ?? id);
  return {
    since: waiting.close.at,
    unseen: waiting.unseen.map(({ entry, why }) => ({ why, text: say(entry) })),
    obstacles: waiting.obstacles.map(({ code, ids }) => ({ code, count: ids.length })),
  };
}
