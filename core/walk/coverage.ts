import type { Plan } from "../route/index.ts";
import type { Topic } from "../topic/index.ts";
import type { WalkState } from "./foldWalk.ts";
import type { Mark } from "./kinds.ts";

const reach: Record<Mark, number> = { told: 1, shown: 2, did: 3, later: 0, "not-aboard": 3 };
const wanted = { told: 1, shown: 2, done: 3 } as const;

/**
 * Whether a topic has been taken as far as it wants: told, shown, or done by the buyer's own hands. What is not aboard is
 * covered too, but for a must: that is left open, with the reason why. So is what the owner said on their own page that
 * they understood or did.
 */
export function isCovered(topic: Pick<Topic, "id" | "level" | "must">, state: WalkState): boolean {
  const mark = state.topics.get(topic.id)?.mark;
  if (mark === "not-aboard" && topic.must) return false;
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
  /** Why it is open: not reached, put off, explained only where the buyer should do it, a must that is not aboard or that not each of them did. */
  readonly why: "untouched" | "later" | "short" | "not-aboard" | "not-each";
  readonly reason: string | null;
  /** Of `not-each`: who has not done it, by id. */
  readonly missing?: readonly string[];
}

/**
 * What is still open, musts first, otherwise in the order given. `attending`: who has come; a must that is to be done by the
 * buyer's own hands is open until each of them did it.
 */
export function listOpenTopics(
  topics: readonly Topic[],
  state: WalkState,
  attending: readonly { readonly id: string }[] = [],
): OpenTopic[] {
  const missingOf = (topic: Topic) =>
    topic.must && topic.level === "done" && state.topics.get(topic.id)?.mark === "did"
      ? [...listHands(topic, attending, state)].flatMap(([id, mark]) => (mark === "did" ? [] : [id]))
      : [];
  const open = topics
    .filter((topic) => !isCovered(topic, state) || missingOf(topic).length > 0)
    .map((topic): OpenTopic => {
      const marked = state.topics.get(topic.id);
      const said = state.reasons.get(topic.id)?.reason ?? null;
      if (isCovered(topic, state)) return { topic, why: "not-each", reason: said, missing: missingOf(topic) };
      if (marked === undefined) return { topic, why: "untouched", reason: said };
      if (marked.mark === "not-aboard") return { topic, why: "not-aboard", reason: said ?? marked.entry.note ?? null };
      return { topic, why: marked.mark === "later" ? "later" : "short", reason: said };
    });
  return [...open.filter(({ topic }) => topic.must), ...open.filter(({ topic }) => !topic.must)];
}

/** The topics of a handover counted, in the one way that plan, walk, closing, signature, record and paper share. */
export interface TopicCount {
  /** On the plan, a second session with it. */
  readonly planned: number;
  /** Of the planned ones: taken as far as they should be. */
  readonly done: number;
  /** Of the planned ones: put off. */
  readonly putOff: number;
  /** Explained although the plan had no time for them. */
  readonly extra: number;
  /** Explained, of all: told, shown or done. */
  readonly explained: number;
  /** Of those: done by the buyer's own hands. */
  readonly byHand: number;
  /** Neither planned nor explained. */
  readonly notPlanned: number;
}

/** How many topics were planned, done as planned, put off, explained beyond the plan? `topics` are all this boat has. */
export function countTopics(
  { plan, topics }: { readonly plan: Pick<Plan, "visits" | "second">; readonly topics: readonly Topic[] },
  state: WalkState,
): TopicCount {
  const onPlan = new Set([...plan.visits, ...(plan.second?.visits ?? [])].flatMap((visit) => visit.topics));
  const marks = topics.map((topic) => ({ topic, mark: state.topics.get(topic.id)?.mark }));
  const planned = marks.filter(({ topic }) => onPlan.has(topic.id));
  const isExplained = ({ mark }: { mark?: Mark | undefined }) => mark !== undefined && explaining.has(mark);
  const beyond = marks.filter(({ topic }) => !onPlan.has(topic.id));
  return {
    planned: planned.length,
    done: planned.filter(({ topic }) => isCovered(topic, state)).length,
    putOff: planned.filter(({ mark }) => mark === "later").length,
    extra: beyond.filter(isExplained).length,
    explained: marks.filter(isExplained).length,
    byHand: marks.filter(({ mark }) => mark === "did").length,
    notPlanned: beyond.filter((each) => !isExplained(each)).length,
  };
}

/** The marks that say that a topic was explained. */
const explaining: ReadonlySet<Mark> = new Set<Mark>(["told", "shown", "did"]);

/** Whether this mark says that its topic was explained. */
export const isExplaining = (mark: Mark | undefined): boolean => mark !== undefined && explaining.has(mark);

/** Who marked topics in the walk, the first first: who walked it, whoever made the boat ready. */
export function listWalkers(state: WalkState): string[] {
  return [...new Set(state.counted.flatMap((entry) => (entry.kind === "mark" ? [entry.by] : [])))];
}
