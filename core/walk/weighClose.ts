import { isCovered } from "./coverage.ts";
import type { Entry, EntryOf } from "./entry.ts";
import { foldWalk, type SequenceOf, type WalkState } from "./foldWalk.ts";
import { listObstacles, type Obstacle, type WalkContent } from "./obstacles.ts";
import { listCovered } from "./signing.ts";

/** It takes something back, is a buyer's refusal, says something else of the same thing, or stops the handover. */
export const unseenWhys = ["undone", "refused", "corrected", "stops"] as const;

/** An entry that was here before a close and that its signatures know nothing of, although it changes what they are for. */
export interface Unseen {
  readonly entry: Entry;
  readonly why: (typeof unseenWhys)[number];
}

/**
 * What takes back, refuses, corrects or stops something of what was signed for (`covered`) and is not among it. `before`: all
 * that was here then; what only adds to it (a promise, a photo, a topic more) is none of this.
 */
export function listUnseen(
  { topics }: Pick<WalkContent, "topics">,
  covered: readonly Entry[],
  before: readonly Entry[],
): Unseen[] {
  const seen = new Set(covered.map(({ id }) => id));
  const missed = before.filter(({ id }) => !seen.has(id));
  if (missed.length === 0) return [];
  const signed = foldWalk(covered);
  const whole = foldWalk([...covered, ...missed]);
  const standing = new Set(whole.counted.map(({ id }) => id));
  const stood = new Set(signed.counted.map(({ id }) => id));
  const correcting = listCorrecting(signed, whole, topics);
  return missed.flatMap((entry): Unseen[] => {
    // An undo is never itself undone: what it names has gone for good.
    if (entry.kind === "undo") return stood.has(entry.ref) ? [{ entry, why: "undone" }] : [];
    if (!standing.has(entry.id)) return [];
    if (entry.kind === "refuse") return [{ entry, why: "refused" }];
    if (entry.kind === "snag") {
      const stops = whole.snags.some(({ id, stops }) => stops && id === (entry.corrects ?? entry.id));
      if (stops && !whole.settled.has(entry.corrects ?? entry.id)) return [{ entry, why: "stops" }];
      return entry.corrects !== undefined && seen.has(entry.corrects) ? [{ entry, why: "corrected" }] : [];
    }
    return correcting.has(entry.id) ? [{ entry, why: "corrected" }] : [];
  });
}

/** The entries by which something that was signed for is now otherwise: counted, read or found anew, or no longer taken as far. */
function listCorrecting(signed: WalkState, whole: WalkState, topics: WalkContent["topics"]): Set<string> {
  const changed = <E extends Entry>(
    before: ReadonlyMap<string, E>,
    after: ReadonlyMap<string, E>,
    read: (entry: E) => unknown,
  ) =>
    [...before].flatMap(([key, entry]) => {
      const now = after.get(key);
      return now === undefined || read(now) === read(entry) ? [] : [now.id];
    });
  const lost = topics.filter((topic) => isCovered(topic, signed) && !isCovered(topic, whole));
  return new Set([
    ...changed(signed.gear, whole.gear, ({ count }) => count),
    ...changed(signed.hours, whole.hours, ({ hours }) => hours),
    ...changed(signed.measures, whole.measures, ({ value }) => value),
    ...changed(signed.ready, whole.ready, ({ ok }) => ok),
    ...changed(signed.inspected, whole.inspected, ({ ok }) => ok),
    ...changed(signed.present, whole.present, ({ here }) => here),
    ...lost.flatMap(({ id }) => whole.topics.get(id)?.entry.id ?? []),
  ]);
}

/** What of it a close has not been told of: then it waits. What stops a handover cannot be set aside, only settled. */
const isLeftOpen = ({ beside = [] }: EntryOf<"close">, { entry, why }: Unseen): boolean =>
  why === "stops" || !beside.includes(entry.id);

/** A close held against all that is here. */
export interface WeighedClose {
  readonly close: EntryOf<"close">;
  readonly covered: readonly Entry[];
  /** What its signatures are for. */
  readonly state: WalkState;
  readonly obstacles: readonly Obstacle[];
  /** What it would have to be told of. */
  readonly unseen: readonly Unseen[];
}

/**
 * The closes that stand and have all they list, in the order in which they were received, each with what keeps it from being sealed: nothing
 * where both lists are empty.
 */
export function weighCloses(content: WalkContent, entries: readonly Entry[], sequenceOf: SequenceOf): WeighedClose[] {
  const numberOf = ({ id }: Entry) => sequenceOf(id) ?? Number.POSITIVE_INFINITY;
  if (!entries.some(({ kind }) => kind === "close")) return [];
  return foldWalk(entries, sequenceOf)
    .counted.filter((entry) => entry.kind === "close")
    .sort((a, b) => numberOf(a) - numberOf(b) || (a.id < b.id ? -1 : 1))
    .flatMap((close): WeighedClose[] => {
      const covered = listCovered(close, entries);
      if (covered === null) return [];
      const state = foldWalk(covered, sequenceOf);
      const number = numberOf(close);
      const before = entries.filter((entry) => numberOf(entry) < number);
      const unseen = listUnseen(content, covered, before).filter((each) => isLeftOpen(close, each));
      return [{ close, covered, state, obstacles: listObstacles(content, state, close), unseen }];
    });
}

/**
 * The last close, where all it lists is here and it cannot be sealed as it is: staff have to act. Null while nothing was closed, its entries
 * are still on their way, or one of the closes can be sealed.
 */
export function findWaitingClose(
  content: WalkContent,
  entries: readonly Entry[],
  sequenceOf: SequenceOf,
): WeighedClose | null {
  const weighed = weighCloses(content, entries, sequenceOf);
  if (weighed.some(({ obstacles, unseen }) => obstacles.length + unseen.length === 0)) return null;
  return weighed.at(-1) ?? null;
}

/** What a sealed handover was closed beside: unknown to whoever signed, in the order in which the close lists it. */
export function listSetAside({ counted }: Pick<WalkState, "counted">, entries: readonly Entry[]): Entry[] {
  const beside = counted.flatMap((entry) => (entry.kind === "close" ? (entry.beside ?? []) : []));
  if (beside.length === 0) return [];
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  return beside.flatMap((id) => byId.get(id) ?? []);
}
