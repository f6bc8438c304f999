import type { Rig } from "../rig/index.ts";
import type { Topic } from "../topic/index.ts";
import type { Mark } from "./entry.ts";
import type { WalkState } from "./foldWalk.ts";

const reach: Record<Mark, number> = { told: 1, shown: 2, did: 3, later: 0, "not-aboard": 3 };
const wanted = { told: 1, shown: 2, done: 3 } as const;

/** Whether a topic has been taken as far as it wants: told, shown, or done by the buyer's own hands. Not aboard counts. */
export function isCovered(topic: Pick<Topic, "id" | "level">, state: WalkState): boolean {
  const mark = state.topics.get(topic.id)?.mark;
  return mark !== undefined && reach[mark] >= wanted[topic.level];
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

export interface Owed {
  /** The entry that made it owed; settling names it. */
  readonly ref: string;
  readonly what: "later" | "snag" | "gear" | "must";
  readonly text: string;
  readonly since: string;
  readonly stops: boolean;
}

/** What the buyer is owed: topics put off or left out for a reason, snags, gear short. Settled ones are gone. */
export function listOwed(topics: readonly Topic[], gear: Rig["gear"], state: WalkState): Owed[] {
  const owed: Owed[] = [];
  for (const snag of state.snags)
    owed.push({ ref: snag.id, what: "snag", text: snag.note, since: snag.at, stops: snag.stops });
  for (const { topic, why } of listOpenTopics(topics, state)) {
    const reason = state.reasons.get(topic.id);
    const mark = state.topics.get(topic.id);
    if (why === "later" && mark !== undefined) {
      const text = mark.entry.note === undefined ? topic.title : `${topic.title}: ${mark.entry.note}`;
      owed.push({ ref: mark.entry.id, what: "later", text, since: mark.entry.at, stops: false });
    } else if (topic.must && reason !== undefined) {
      owed.push({
        ref: reason.id,
        what: "must",
        text: `${topic.title}: ${reason.reason}`,
        since: reason.at,
        stops: false,
      });
    }
  }
  for (const item of gear) {
    const counted = state.gear.get(item.id);
    if (counted !== undefined && counted.count < item.count) {
      const short = item.count - counted.count;
      owed.push({
        ref: counted.id,
        what: "gear",
        text: `${item.label}: ${short} short`,
        since: counted.at,
        stops: false,
      });
    }
  }
  return owed.filter(({ ref }) => !state.settled.has(ref));
}

export interface Obstacle {
  readonly code: "must-open" | "gear-uncounted" | "hours-unread" | "unsigned" | "stopping-snag";
  readonly ids: string[];
}

/** What still stands between the walk and its close; empty when it may be sealed. */
export function listObstacles(topics: readonly Topic[], rig: Rig, state: WalkState): Obstacle[] {
  const musts = listOpenTopics(topics, state).filter(({ topic, reason }) => topic.must && reason === null);
  const found: Obstacle[] = [
    { code: "must-open", ids: musts.map(({ topic }) => topic.id) },
    { code: "gear-uncounted", ids: rig.gear.filter(({ id }) => !state.gear.has(id)).map(({ id }) => id) },
    { code: "hours-unread", ids: rig.engines.filter(({ id }) => !state.hours.has(id)).map(({ id }) => id) },
    { code: "unsigned", ids: (["buyer", "staff"] as const).filter((role) => !state.signatures.has(role)) },
    {
      code: "stopping-snag",
      ids: state.snags.filter(({ id, stops }) => stops && !state.settled.has(id)).map(({ id }) => id),
    },
  ];
  return found.filter(({ ids }) => ids.length > 0);
}
