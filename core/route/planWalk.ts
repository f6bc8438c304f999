import { z } from "zod";
import { type Result, succeed } from "../result.ts";
import { createMoveMap, findStation, isMet, type Rig } from "../rig/index.ts";
import { findTopicStation, followMerges, type Topic, topicIdSchema } from "../topic/index.ts";
import { type RouteTopic, type RouteVisit, visitSchema } from "./contract.ts";
import { explainStops } from "./explainStops.ts";
import { elsewhereReasons } from "./planOptions.ts";
import { type RouteError, route } from "./route.ts";
import { type RouteStyle, styleIdSchema } from "./styles.ts";

const elsewhereSchema = z.strictObject({ topic: topicIdSchema, title: z.string(), because: z.enum(elsewhereReasons) });
const brokenSchema = z.strictObject({ topic: topicIdSchema, before: topicIdSchema });

/** A walk order for one boat. Minutes are real ones, not those a style shaped. */
export const planSchema = z.strictObject({
  style: styleIdSchema,
  visits: z.array(visitSchema),
  /** Why each stop stands where it does; none where the order was made by hand, or before they were kept. */
  reasons: z.array(z.string()).default([]),
  /** Topics of the library this boat does not have. */
  notHere: z.array(topicIdSchema),
  /** Topics that cannot be taught where the boat is. */
  elsewhere: z.array(elsewhereSchema).default([]),
  /** Topics that wait for another day because time is short. */
  deferred: z.array(topicIdSchema).default([]),
  /** By how much the musts alone are too long. */
  overBudgetMin: z.number().optional(),
  isByHand: z.boolean().default(false),
  /** Where an order made by hand tells a topic before one it comes after. */
  broken: z.array(brokenSchema).default([]),
  /** The first must, and after how many minutes of the walk it is done. */
  firstMust: z.strictObject({ topic: topicIdSchema, atMin: z.number() }).nullable().default(null),
  moves: z.int().min(0),
  moveMin: z.number().min(0),
  topicMin: z.number().min(0),
  totalMin: z.number().min(0),
  optimal: z.boolean(),
  /** What is left is told in a second session, where one is planned. */
  second: z
    .strictObject({
      visits: z.array(visitSchema),
      deferred: z.array(topicIdSchema),
      moves: z.int().min(0),
      moveMin: z.number().min(0),
      topicMin: z.number().min(0),
      totalMin: z.number().min(0),
    })
    .nullable()
    .default(null),
});
export type Plan = z.infer<typeof planSchema>;

/** The topics of a library that apply to a boat and have a station there, in library order. */
export function listTopicsFor(rig: Rig, library: readonly Topic[]): Topic[] {
  return library.filter((topic) => isMet(topic.when, rig) && findTopicStation(rig, topic) !== null);
}

export interface OrderOptions {
  /** Minutes there are; the walk is never longer unless the musts alone are. */
  readonly budgetMin?: number | null;
  /** An order made by hand: it is kept as it is, and what it breaks is said. */
  readonly manualOrder?: readonly string[] | null;
  /** Chosen for this walk: kept within the budget as musts are. */
  readonly added?: readonly string[];
}

const mostTries = 6;

/**
 * The plan with a second session for what it leaves: the deferred topics, in the same style, in the minutes there are. What
 * they come after was told in the first. Without anything deferred the plan is as it was.
 */
export function addSecondSession(
  rig: Rig,
  library: readonly Topic[],
  style: RouteStyle,
  plan: Plan,
  budgetMin: number,
): Result<Plan, RouteError> {
  if (plan.deferred.length === 0) return succeed(plan);
  const waits = new Set(plan.deferred);
  const left = planWalk(
    rig,
    library.filter(({ id }) => waits.has(id)),
    style,
    { budgetMin },
  );
  if (!left.ok) return left;
  const { visits, deferred, moves, moveMin, topicMin, totalMin } = left.value;
  return succeed({ ...plan, second: { visits, deferred, moves, moveMin, topicMin, totalMin } });
}

/**
 * In which order should these topics be told on this boat in this style? The order has the least (shaped) move time that
 * tells each topic after what it needs and keeps the style's ranks. With a budget, `route` chooses what is told (musts and
 * what they need always), and the rest is `deferred`. `cycle` when the topics' `after` go in a circle.
 */
export function planWalk(
  rig: Rig,
  library: readonly Topic[],
  style: RouteStyle,
  options: OrderOptions = {},
): Result<Plan, RouteError> {
  const added = new Set(options.added?.map(followMerges(library)));
  const topics = listTopicsFor(rig, library).map((topic) => (added.has(topic.id) ? { ...topic, must: true } : topic));
  const walk = createWalkMap(rig, style);
  const tell = (visits: readonly RouteVisit[], told: readonly Topic[], optimal: boolean, more: Partial<Plan> = {}) =>
    describePlan({ rig, library, topics, style, walk, visits, told, optimal, more });
  if (options.manualOrder != null) {
    const told = listInManualOrder(topics, options.manualOrder, options.budgetMin == null);
    return succeed(tell(walk.visit(told), told, true, { isByHand: true, broken: listBroken(told, topics) }));
  }
  const budgetMin = options.budgetMin ?? null;
  let allowanceMin = budgetMin;
  let fallback: Plan | null = null;
  for (let tries = 1; ; tries++) {
    const chosen = allowanceMin === null ? succeed(topics) : chooseTopics(rig, topics, walk, Math.max(0, allowanceMin));
    if (!chosen.ok) return chosen;
    const ordered = route({
      stations: walk.stations,
      moveMin: walk.shaped,
      topics: rankTopics(rig, chosen.value, style),
      ...walk.ends,
    });
    if (!ordered.ok) return ordered;
    const visits = ordered.value.visits.filter((visit) => visit.topics.length > 0);
    const plan = tell(visits, chosen.value, ordered.value.optimal);
    if (budgetMin === null || allowanceMin === null) return succeed(plan);
    const overMin = plan.totalMin - budgetMin;
    if (overMin <= 1e-9) return succeed(plan);
    // The style's order may cost more moves than the choice reckoned with: choose again with that much less.
    fallback = plan;
    const onlyMusts = isClosedUnderMusts(chosen.value, topics);
    if (onlyMusts || tries === mostTries)
      return succeed(onlyMusts ? { ...fallback, overBudgetMin: overMin } : trim(plan));
    allowanceMin -= Math.max(1 / unitsPerMin, overMin);
  }

  /** The last resort: the musts and what they need, which a budget never cuts. */
  function trim(plan: Plan): Plan {
    const musts = closeUnderAfter(
      topics.filter(({ must }) => must),
      topics,
    );
    const ordered = route({
      stations: walk.stations,
      moveMin: walk.shaped,
      topics: rankTopics(rig, musts, style),
      ...walk.ends,
    });
    if (!ordered.ok || budgetMin === null) return plan;
    const least = tell(
      ordered.value.visits.filter((visit) => visit.topics.length > 0),
      musts,
      ordered.value.optimal,
    );
    return least.totalMin > budgetMin ? { ...least, overBudgetMin: least.totalMin - budgetMin } : least;
  }
}

/** `route` counts quarters of a minute, so that minutes of topics are whole and its choice within a budget exact. */
const unitsPerMin = 4;

/** Stations, move times real and (in units) shaped, and the style's ends, for one boat. */
function createWalkMap(rig: Rig, style: RouteStyle) {
  const { moveMin } = createMoveMap(rig);
  const stations = rig.stations.map(({ id }) => ({ id }));
  const index = new Map(stations.map(({ id }, i) => [id, i]));
  const start = findStation(rig, style.start)?.id;
  const end = findStation(rig, style.end)?.id;
  return {
    stations,
    ends: { ...(start === undefined ? {} : { start }), ...(end === undefined ? {} : { end }) },
    shaped: rig.stations.map((from, i) =>
      rig.stations.map((to, j) => moveMin[i]![j]! * style.shape(from, to, rig) * unitsPerMin),
    ),
    /** Real minutes from one station to another, by id. */
    between: (from: string, to: string) => moveMin[index.get(from)!]![index.get(to)!]!,
    /** Stays at stations for topics in just this order. */
    visit(told: readonly Topic[]): RouteVisit[] {
      const visits: RouteVisit[] = [];
      for (const topic of told) {
        const station = findTopicStation(rig, topic)!.id;
        if (visits.at(-1)?.station !== station) visits.push({ station, topics: [] });
        visits.at(-1)!.topics.push(topic.id);
      }
      return visits;
    },
  };
}

type WalkMap = ReturnType<typeof createWalkMap>;

interface Described {
  readonly rig: Rig;
  readonly library: readonly Topic[];
  readonly topics: readonly Topic[];
  readonly style: RouteStyle;
  readonly walk: WalkMap;
  readonly visits: readonly RouteVisit[];
  readonly told: readonly Topic[];
  readonly optimal: boolean;
  readonly more: Partial<Plan>;
}

function describePlan({ rig, library, topics, style, walk, visits, told, optimal, more }: Described): Plan {
  const here = new Set(topics.map(({ id }) => id));
  const kept = new Set(told.map(({ id }) => id));
  const byId = new Map(library.map((topic) => [topic.id, topic]));
  let atMin = 0;
  let moveMin = 0;
  let firstMust: Plan["firstMust"] = null;
  visits.forEach((visit, i) => {
    const step = i === 0 ? 0 : walk.between(visits[i - 1]!.station, visit.station);
    atMin += step;
    moveMin += step;
    for (const id of visit.topics) {
      const topic = byId.get(id)!;
      atMin += topic.minutes;
      if (topic.must && firstMust === null) firstMust = { topic: id, atMin };
    }
  });
  const topicMin = told.reduce((sum, topic) => sum + topic.minutes, 0);
  return {
    style: style.id,
    visits: [...visits],
    reasons: explainStops({ rig, topics: told, visits, ...(more.isByHand ? { isByHand: true } : { style }) }),
    notHere: library.filter(({ id }) => !here.has(id)).map(({ id }) => id),
    elsewhere: [],
    deferred: topics.filter(({ id }) => !kept.has(id)).map(({ id }) => id),
    isByHand: false,
    broken: [],
    firstMust,
    moves: Math.max(0, visits.length - 1),
    moveMin,
    topicMin,
    totalMin: moveMin + topicMin,
    optimal,
    second: null,
    ...more,
  };
}

/** What fits into the budget: `route` without the style's ranks, which would keep all of a rank for one topic of the next. */
function chooseTopics(
  rig: Rig,
  topics: readonly Topic[],
  walk: WalkMap,
  budgetMin: number,
): Result<readonly Topic[], RouteError> {
  const here = new Set(topics.map(({ id }) => id));
  const chosen = route({
    stations: walk.stations,
    moveMin: walk.shaped,
    topics: topics.map((topic) =>
      toRouteTopic(
        rig,
        topic,
        topic.after.filter((id) => here.has(id)),
      ),
    ),
    budgetMin: budgetMin * unitsPerMin,
    ...walk.ends,
  });
  if (!chosen.ok) return chosen;
  const deferred = new Set(chosen.value.deferred);
  return succeed(topics.filter(({ id }) => !deferred.has(id)));
}

/** `some` and everything they come after among `topics`, in the order of `topics`. */
function closeUnderAfter(some: readonly Topic[], topics: readonly Topic[]): Topic[] {
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  const kept = new Set<string>();
  const keep = (topic: Topic) => {
    if (kept.has(topic.id)) return;
    kept.add(topic.id);
    for (const id of topic.after) {
      const before = byId.get(id);
      if (before !== undefined) keep(before);
    }
  };
  for (const topic of some) keep(topic);
  return topics.filter(({ id }) => kept.has(id));
}

function isClosedUnderMusts(chosen: readonly Topic[], topics: readonly Topic[]): boolean {
  return (
    chosen.length ===
    closeUnderAfter(
      topics.filter(({ must }) => must),
      topics,
    ).length
  );
}

/** Topics in the manual order, unknown ids left out; what it does not name comes last where `addRest`. */
function listInManualOrder(topics: readonly Topic[], manualOrder: readonly string[], addRest: boolean): Topic[] {
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  const named = [...new Set(manualOrder.map(followMerges(topics)))].flatMap((id) => byId.get(id) ?? []);
  const known = new Set(named.map(({ id }) => id));
  return addRest ? [...named, ...topics.filter(({ id }) => !known.has(id))] : named;
}

/** Each topic told before one it comes after, with that one. Topics that are not told break nothing. */
export function listBroken(told: readonly Topic[], topics: readonly Topic[]): Plan["broken"] {
  const here = new Set(topics.map(({ id }) => id));
  const seen = new Set<string>();
  const toCome = new Set(told.map(({ id }) => id));
  const broken: Plan["broken"] = [];
  for (const topic of told) {
    for (const before of topic.after)
      if (here.has(before) && toCome.has(before) && !seen.has(before)) broken.push({ topic: topic.id, before });
    seen.add(topic.id);
  }
  return broken;
}

/**
 * Turns a style's ranks into `after`: every topic comes after all of the next lower rank. A topic that needs one of a higher
 * rank takes that rank, so ranks never contradict needs.
 */
function rankTopics(rig: Rig, topics: readonly Topic[], style: RouteStyle): RouteTopic[] {
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  const known = new Map<string, number>();
  const rankOf = (topic: Topic, path: ReadonlySet<string>): number => {
    const seen = known.get(topic.id);
    if (seen !== undefined) return seen;
    const before = topic.after.filter((id) => byId.has(id) && !path.has(id));
    const rank = Math.max(
      style.rank(topic),
      ...before.map((id) => rankOf(byId.get(id)!, new Set([...path, topic.id]))),
    );
    known.set(topic.id, rank);
    return rank;
  };
  const ranked = topics.map((topic) => ({ topic, rank: rankOf(topic, new Set([topic.id])) }));
  const ranks = [...new Set(ranked.map(({ rank }) => rank))].sort((a, b) => a - b);
  return ranked
    .map(({ topic, rank }, i) => ({ topic, rank, i }))
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map(({ topic, rank }) => {
      const lower = ranks[ranks.indexOf(rank) - 1];
      const gate = ranked.filter((other) => other.rank === lower).map((other) => other.topic.id);
      return toRouteTopic(rig, topic, [...new Set([...topic.after.filter((id) => byId.has(id)), ...gate])]);
    });
}

/** What a topic is worth to `route` is its importance for each minute it takes: a long one is not less wanted for that. */
function toRouteTopic(rig: Rig, topic: Topic, after: string[]): RouteTopic {
  const { id, must, value } = topic;
  const minutes = topic.minutes * unitsPerMin;
  return { id, station: findTopicStation(rig, topic)!.id, minutes, after, must, value: value * minutes };
}
