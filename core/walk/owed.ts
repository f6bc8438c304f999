import type { Instant, LocalDate } from "../dates/index.ts";
import { createTell, type Tell } from "../language/index.ts";
import type { Rig } from "../rig/index.ts";
import type { Topic } from "../topic/index.ts";
import { listOpenTopics } from "./coverage.ts";
import type { EntryOf } from "./entry.ts";
import type { WalkState } from "./foldWalk.ts";
import { laterWords } from "./formatEntry.ts";
import type { Severity } from "./kinds.ts";

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
  readonly since: Instant;
  readonly stops: boolean;
  /** Of a snag. */
  readonly severity: Severity | null;
  /** Who takes care of it; null when nobody does yet. */
  readonly owner: string | null;
  /** The promised day. */
  readonly due: LocalDate | null;
  /** The last message to the buyer about it; what became of it is known where messages are kept. */
  readonly message: { readonly id: string; readonly at: Instant } | null;
  /** The topic that is put off or was left out; it can be made up for by marking it. */
  readonly topic: string | null;
}

/**
 * What the buyer is owed: topics put off or left out for a reason, snags that are more than a note, promises, extras not
 * fitted, gear short, questions from the owner page. Settled ones are gone.
 */
export function listOwed(
  topics: readonly Topic[],
  gear: Rig["gear"],
  state: WalkState,
  tell: Tell = createTell(null),
): Owed[] {
  const owed: Owed[] = [];
  const add = (entry: { id: string; at: Instant }, what: OwedKind, text: string, more: Partial<Owed> = {}) =>
    owed.push({
      ref: entry.id,
      what,
      text,
      since: entry.at,
      stops: false,
      severity: null,
      owner: null,
      due: null,
      message: null,
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
      const title = how === undefined ? topic.title : `${topic.title}, ${tell(laterWords[how])}`;
      const text = note === undefined ? title : `${title}: ${note}`;
      add(mark.entry, "later", text, { due: when ?? null, topic: topic.id });
    } else if (topic.must && why !== "not-aboard" && reason !== undefined) {
      add(reason, "must", `${topic.title}: ${reason.reason}`, { topic: topic.id });
    }
  }
  for (const item of gear) {
    const counted = state.gear.get(item.id);
    if (counted !== undefined && counted.count < item.count)
      add(counted, "gear", tell("{0}: {1} short", tell.label(item.label), item.count - counted.count));
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
      const last = state.tells.findLast(({ ref }) => ref === each.ref);
      const message = last === undefined ? null : { id: last.id, at: last.at };
      return { ...each, message, ...(assigned === undefined ? {} : { owner: assigned.owner, due: assigned.due }) };
    });
}

const severityRank: Record<Severity, number> = { stop: 0, "before-leaving": 1, "by-date": 2, cosmetic: 4, note: 5 };
const otherRank = 3;

/**
 * The order in which what is owed wants doing: overdue first, the longest overdue of them first; then what stops a
 * handover; then by how bad it is; then the day it is promised for; then the oldest.
 */
export function compareOwed(a: Owed, b: Owed, today: LocalDate): number {
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
