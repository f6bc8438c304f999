import { type Rig, rigSchema } from "../../core/rig/index.ts";
import {
  adaptTopics,
  addSecondSession,
  findStyle,
  listTopicsFor,
  type Plan,
  type PlanOptions,
  planWalk,
} from "../../core/route/index.ts";
import { fillTopic, type Topic } from "../../core/topic/index.ts";
import { Failure } from "../failure.ts";
import type { Library } from "./libraryService.ts";

/** A boat made ready for one walk: the topics these people need on it, in its own words, and their order. */
export interface Prepared {
  readonly rig: Rig;
  readonly topics: readonly Topic[];
  readonly plan: Plan;
}

const mostRigs = 300;
const mostPlans = 24;

/** Rigs read from the store, with topics and plans, worked out once for as long as rig, library and planOptions are the same. */
export function createRigService() {
  const remembered = new Map<string, { rig: Rig; prepared: Map<string, Prepared> }>();
  const get = (rigText: string) => {
    const seen = remembered.get(rigText);
    if (seen !== undefined) return seen;
    const fresh = { rig: rigSchema.parse(JSON.parse(rigText)), prepared: new Map<string, Prepared>() };
    if (remembered.size >= mostRigs) remembered.delete(remembered.keys().next().value!);
    remembered.set(rigText, fresh);
    return fresh;
  };
  return {
    read: (rigText: string): Rig => get(rigText).rig,
    prepare(rigText: string, library: Library, planOptions: PlanOptions): Prepared {
      const { rig, prepared } = get(rigText);
      const key = `${library.version} ${JSON.stringify(planOptions)}`;
      const known = prepared.get(key);
      if (known !== undefined) return known;
      const fresh = prepareWalk(rig, library, planOptions);
      if (prepared.size >= mostPlans) prepared.delete(prepared.keys().next().value!);
      prepared.set(key, fresh);
      return fresh;
    },
  };
}

export type RigService = ReturnType<typeof createRigService>;

function prepareWalk(rig: Rig, library: Library, planOptions: PlanOptions): Prepared {
  const here = listTopicsFor(rig, library.topics).map((topic) => fillTopic(topic, rig, library.schools));
  const { topics, elsewhere } = adaptTopics(here, planOptions, library.minutesOf);
  const { budgetMin, manualOrder } = planOptions;
  const style = findStyle(planOptions.style, library.ownStyles);
  const first = planWalk(rig, topics, style, { budgetMin, manualOrder });
  if (!first.ok) throw new Failure("cycle", first.error);
  const planned =
    planOptions.secondMin === null ? first : addSecondSession(rig, topics, style, first.value, planOptions.secondMin);
  if (!planned.ok) throw new Failure("cycle", planned.error);
  const possible = new Set([...topics.map(({ id }) => id), ...elsewhere.map(({ topic }) => topic)]);
  const notHere = library.topics.filter(({ id }) => !possible.has(id)).map(({ id }) => id);
  return { rig, topics, plan: { ...planned.value, notHere, elsewhere } };
}
