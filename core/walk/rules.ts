import type { IsoDate } from "../dates/index.ts";
import type { ReadyCheck } from "../ready/index.ts";
import type { Rig } from "../rig/index.ts";
import type { Topic } from "../topic/index.ts";
import type { EntryOf } from "./entry.ts";
import { findSignature, type WalkState } from "./foldWalk.ts";
import { laterWords } from "./formatEntry.ts";
import type { Mark, Severity } from "./kinds.ts";

const reach: Record<Mark, number> = { told: 1, shown: 2, did: 3, later: 0, "not-aboard": 3 };
const wanted = { told: 1, shown: 2, done: 3 } as const;

/**
 * Whether a topic has been taken as far as it wants: told, shown, or done by the buyer's own hands. Not aboard counts; so
 * does what the owner said on their own page that they understood or did.
 */
export function isCovered(topic: Pick<Topic, "id" | "level">, state: WalkState): boolean {
  const mark = state.topics.get(topic.id)?.mark;
  if (mark !== undefined && reach[mark] >= wanted[topic.level]) return true;
  const remote = state.remote.get(topic.id);
  return remote !== undefined && (remote.as === "did" || topic.level !== "done");
}

/** Of a topic that is to be done by their own hands: how far each of these people got; null where nothing was marked. */
export function listHands(
  topic: Pick<Topic, "id">,
  people: readonly { readonly id: string }[],
  state: WalkState,
): Map<string, Mark | null> {
  const marked = state.topics.get(topic.id);
  // A mark for all stands for each, until one of their own is made.
  const forAll = marked?.marks.findLast(({ person }) => person === null)?.mark ?? null;
  return new Map(people.map(({ id }) => [id, marked?.people.get(id) ?? forAll]));
}

/** The topics this one comes after that have not been marked yet: what it waits for. */
export function listWaits(topic: Pick<Topic, "after">, topics: readonly Topic[], state: WalkState): Topic[] {
  return topics.filter(({ id }) => topic.after.includes(id) && !state.topics.has(id));
}

export interface OpenTopic {
  readonly topic: Topic;
  /** Why it is open: not reached, put off, or not taken far enough. */
  readonly why: "untouched" | "later" | "short";
  readonly reason: string | null;
}

/** What is still open, musts first, otherwise in the order given. */
export function listOpenTopics(topics: readonly Topic[], state: WalkState): OpenTopic[] {
  const open = topics
    .filter((topic) => !isCovered(topic, state))
    .map((topic): OpenTopic => {
      const mark = state.topics.get(topic.id)?.mark;
      const why = mark === undefined ? "untouched" : mark === "later" ? "later" : "short";
      return { topic, why, reason: state.reasons.get(topic.id)?.reason ?? null };
    });
  return [...open.filter(({ topic }) => topic.must), ...open.filter(({ topic }) => !topic.must)];
}

/** How bad a snag is. One that says only that it does not stop is to be mended before the boat leaves. */
export function findSeverity(snag: Pick<EntryOf<"snag">, "stops" | "how">): Severity {
  return snag.stops ? "stop" : (snag.how ?? "before-leaving");
}

export const owedKinds = ["later", "snag", "gear", "must", "promise", "extra", "question"] as const;
export type OwedKind = (typeof owedKinds)[number];

export interface Owed {
  /** The entry that made it owed; settling names it. */
  readonly ref: string;
  readonly what: OwedKind;
  readonly text: string;
  readonly since: string;
  readonly stops: boolean;
  /** Of a snag. */
  readonly severity: Severity | null;
  /** Who takes care of it; null when nobody does yet. */
  readonly owner: string | null;
  /** The promised day. */
  readonly due: IsoDate | null;
  /** When the buyer was last sent a message about it. */
  readonly messagedAt: string | null;
  /** The topic that is put off or was left out; it can be made up for by marking it. */
  readonly topic: string | null;
}

/**
 * What the buyer is owed: topics put off or left out for a reason, snags that are more than a note, promises, extras not
 * fitted, gear short, questions from the owner page. Settled ones are gone.
 */
export function listOwed(topics: readonly Topic[], gear: Rig["gear"], state: WalkState): Owed[] {
  const owed: Owed[] = [];
  const add = (entry: { id: string; at: string }, what: OwedKind, text: string, more: Partial<Owed> = {}) =>
    owed.push({
      ref: entry.id,
      what,
      text,
      since: entry.at,
      stops: false,
      severity: null,
      owner: null,
      due: null,
      messagedAt: null,
      topic: null,
      ...more,
    });
  for (const snag of state.snags) {
    const severity = findSeverity(snag);
    if (severity === "note") continue;
    add(snag, "snag", snag.note, {
      stops: snag.stops,
      severity,
      owner: snag.owner ?? null,
      due: snag.due ?? null,
    });
  }
  for (const promise of state.promises)
    add(promise, promise.isExtra ? "extra" : "promise", promise.note, {
      owner: promise.owner ?? null,
      due: promise.due ?? null,
    });
  for (const { topic, why } of listOpenTopics(topics, state)) {
    const reason = state.reasons.get(topic.id);
    const mark = state.topics.get(topic.id);
    if (why === "later" && mark !== undefined) {
      const { note, when, how } = mark.entry;
      const title = how === undefined ? topic.title : `${topic.title}, ${laterWords[how]}`;
      const text = note === undefined ? title : `${title}: ${note}`;
      add(mark.entry, "later", text, { due: when ?? null, topic: topic.id });
    } else if (topic.must && reason !== undefined) {
      add(reason, "must", `${topic.title}: ${reason.reason}`, { topic: topic.id });
    }
  }
  for (const item of gear) {
    const counted = state.gear.get(item.id);
    if (counted !== undefined && counted.count < item.count)
      add(counted, "gear", `${item.label}: ${item.count - counted.count} short`);
  }
  const titleOf = new Map(topics.map(({ id, title }) => [id, title]));
  for (const question of state.questions) {
    const title = question.topic === null ? undefined : titleOf.get(question.topic);
    add(question, "question", title === undefined ? question.note : `${title}: ${question.note}`);
  }
  return owed
    .filter(({ ref }) => !state.settled.has(ref))
    .map((each) => {
      const assigned = state.assigned.get(each.ref);
      const messagedAt = state.tells.findLast(({ ref }) => ref === each.ref)?.at ?? null;
      return { ...each, messagedAt, ...(assigned === undefined ? {} : { owner: assigned.owner, due: assigned.due }) };
    });
}

const severityRank: Record<Severity, number> = { stop: 0, "before-leaving": 1, "by-date": 2, cosmetic: 4, note: 5 };
const otherRank = 3;

/**
 * The order in which what is owed wants doing: overdue first, the longest overdue of them first; then what stops a
 * handover; then by how bad it is; then the day it is promised for; then the oldest.
 */
export function compareOwed(a: Owed, b: Owed, today: IsoDate): number {
  const late = (owed: Owed) => (owed.due !== null && owed.due < today ? owed.due : "9");
  const rank = ({ severity }: Owed) => (severity === null ? otherRank : severityRank[severity]);
  return (
    compare(late(a), late(b)) ||
    rank(a) - rank(b) ||
    compare(a.due ?? "9", b.due ?? "9") ||
    compare(a.since, b.since) ||
    compare(a.ref, b.ref)
  );
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

export const obstacleCodes = [
  "must-open",
  "gear-uncounted",
  "hours-unread",
  "unsigned",
  "stopping-snag",
  "not-allowed-to-start",
] as const;

export interface Obstacle {
  readonly code: (typeof obstacleCodes)[number];
  readonly ids: string[];
}

/** What still stands between the walk and its close; empty when it may be sealed. A buyer may refuse to sign. */
export function listObstacles(
  topics: readonly Topic[],
  rig: Rig,
  state: WalkState,
  checks: readonly ReadyCheck[],
): Obstacle[] {
  const musts = listOpenTopics(topics, state).filter(({ topic, reason }) => topic.must && reason === null);
  const isBuyerHeard = findSignature(state, "buyer") !== null || state.refusals.length > 0;
  const unsigned = [
    ...(isBuyerHeard ? [] : ["buyer"]),
    ...(findSignature(state, "staff") === null ? ["staff"] : []),
    // A refusal is witnessed by a second person of the store.
    ...(state.refusals.length > 0 && findSignature(state, "countersign") === null ? ["countersign"] : []),
  ];
  const start = listStartObstacles(checks, state);
  const found: Obstacle[] = [
    { code: "must-open", ids: musts.map(({ topic }) => topic.id) },
    { code: "gear-uncounted", ids: rig.gear.filter(({ id }) => !state.gear.has(id)).map(({ id }) => id) },
    { code: "hours-unread", ids: rig.engines.filter(({ id }) => !state.hours.has(id)).map(({ id }) => id) },
    { code: "unsigned", ids: unsigned },
    {
      code: "stopping-snag",
      ids: state.snags.filter(({ id, stops }) => stops && !state.settled.has(id)).map(({ id }) => id),
    },
    { code: "not-allowed-to-start", ids: start.isFree ? [] : start.open.map(({ id }) => id) },
  ];
  return found.filter(({ ids }) => ids.length > 0);
}

export interface StartObstacles {
  /** Nothing is in the way, or the owner of the store has answered for it. */
  readonly isFree: boolean;
  readonly open: readonly ReadyCheck[];
  readonly stopping: readonly EntryOf<"snag">[];
}

/** What stands between a boat and its walk: make-ready not finished, or a snag that stops the handover. */
export function listStartObstacles(checks: readonly ReadyCheck[], state: WalkState): StartObstacles {
  const open = checks.filter(({ id }) => state.ready.get(id)?.ok !== true);
  const stopping = state.snags.filter(({ id, stops }) => stops && !state.settled.has(id));
  return { open, stopping, isFree: state.allowed !== null || (open.length === 0 && stopping.length === 0) };
}
