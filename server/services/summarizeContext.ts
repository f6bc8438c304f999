import { type Entry, findWaitingClose, formatEntry } from "../../core/walk/index.ts";
import type { Summary } from "../repositories/deliveries.ts";
import { summarize } from "./summarize.ts";
import type { HandoverContext } from "./walkReader.ts";

/** The entries that are not in the sealed record; none of a handover that is not sealed. */
export function listLater({ walk, log }: HandoverContext): readonly Entry[] {
  if (walk.sealed === null) return [];
  const inside = new Set(walk.sealed.entries.map(({ id }) => id));
  return log.entries.filter(({ id }) => !inside.has(id));
}

/** What of a handover stands in its row, as it is now. */
export function summarizeContext(context: HandoverContext): Summary {
  const { walk, log } = context;
  const summary = summarize(walk, walk.sealed?.entries ?? log.entries, listLater(context), walk.sealed !== null);
  const waits = walk.sealed === null ? findWaits(context) : null;
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
