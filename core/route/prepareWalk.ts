import type { Idiom } from "../region/index.ts";
import { type Result, succeed } from "../result.ts";
import type { Rig } from "../rig/index.ts";
import { fillTopic, type SchoolChoices, type Topic } from "../topic/index.ts";
import { type AdaptedTopics, adaptTopics, defaultPlanOptions, type PlanOptions } from "./planOptions.ts";
import { addSecondSession, listTopicsFor, type Plan, planWalk } from "./planWalk.ts";
import { type Raise, raiseTopics } from "./raiseTopics.ts";
import { proposeMinutes, reckonMinutes } from "./reckonMinutes.ts";
import type { RouteError } from "./route.ts";
import { findStyle, type OwnStyle } from "./styles.ts";

/** What a store teaches and how it says it: its topics, methods, styles and minutes. Plain data, so that it can be sent to a worker. */
export interface Teaching {
  readonly topics: readonly Topic[];
  readonly schools: SchoolChoices;
  readonly ownStyles: readonly OwnStyle[];
  /** Minutes as this store takes them, by topic. */
  readonly minutesOf: Readonly<Record<string, number>>;
  /** Topics that buyers ring about, taken further (`listRaises`). */
  readonly raised: Readonly<Record<string, Pick<Raise, "level" | "value">>>;
  readonly idiom: Idiom;
}

/** The topics these people need on this boat, in its own words and this store's methods. Quick: nothing is searched. */
export function prepareTopics(rig: Rig, teaching: Teaching, options: PlanOptions): AdaptedTopics {
  const here = listTopicsFor(rig, teaching.topics);
  const paceOf = Object.fromEntries(here.map((topic) => [topic.id, findPace(topic, teaching)]));
  return adaptTopics(
    raiseTopics(here, teaching.raised).map((topic) => fillTopic(topic, rig, teaching.idiom, teaching.schools)),
    options,
    paceOf,
  );
}

/** How much longer than reckoned this store takes: by its own walks, or because its own minutes stand in the topic. */
function findPace(topic: Topic, { minutesOf }: Teaching): number {
  const minutes = minutesOf[topic.id] ?? topic.minutes;
  return minutes === proposeMinutes(topic) ? 1 : minutes / reckonMinutes(topic, defaultPlanOptions);
}

/**
 * The topics these people need on this boat and the order to take them in, with a second session where one is wanted. Up to
 * six searches of two seconds each: not for a place where others wait. `cycle` when the topics' `after` go in a circle.
 */
export function prepareWalk(
  rig: Rig,
  teaching: Teaching,
  options: PlanOptions,
): Result<{ topics: Topic[]; plan: Plan }, RouteError> {
  const { topics, elsewhere } = prepareTopics(rig, teaching, options);
  const { budgetMin, manualOrder, secondMin, added } = options;
  const style = findStyle(options.style, teaching.ownStyles);
  const first = planWalk(rig, topics, style, { budgetMin, manualOrder, added });
  if (!first.ok) return first;
  const planned = secondMin === null ? first : addSecondSession(rig, topics, style, first.value, secondMin);
  if (!planned.ok) return planned;
  const possible = new Set([...topics.map(({ id }) => id), ...elsewhere.map(({ topic }) => topic)]);
  const notHere = teaching.topics.filter(({ id }) => !possible.has(id)).map(({ id }) => id);
  return succeed({ topics, plan: { ...planned.value, notHere, elsewhere } });
}
