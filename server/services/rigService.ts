import { LRUCache } from "lru-cache";
import { type Rig, rigSchema } from "../../core/rig/index.ts";
import { type AdaptedTopics, type Plan, type PlanOptions, prepareTopics } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import { Failure } from "../failure.ts";
import type { Planner } from "../planning/planner.ts";
import type { Library } from "./libraryService.ts";

/** A boat made ready for one walk: the topics these people need on it, in its own words, and their order. */
export interface Prepared {
  readonly rig: Rig;
  readonly topics: readonly Topic[];
  readonly plan: Plan;
}

const mostRigs = 300;
const mostPlans = 24;

interface KnownRig {
  readonly rig: Rig;
  readonly topics: LRUCache<string, AdaptedTopics>;
  readonly plans: LRUCache<string, Promise<Prepared>>;
}

function keep<V extends object>(known: LRUCache<string, V>, key: string, make: () => V): V {
  const before = known.get(key);
  if (before !== undefined) return before;
  const fresh = make();
  known.set(key, fresh);
  return fresh;
}

/** Rigs read from the store, with topics and plans, worked out once for as long as rig, library and options are the same. */
export function createRigService(planner: Planner) {
  const remembered = new LRUCache<string, KnownRig>({ max: mostRigs });
  const get = (rigText: string) =>
    keep(remembered, rigText, () => ({
      rig: rigSchema.parse(JSON.parse(rigText)),
      topics: new LRUCache<string, AdaptedTopics>({ max: mostPlans }),
      plans: new LRUCache<string, Promise<Prepared>>({ max: mostPlans }),
    }));
  const keyOf = (library: Library, options: PlanOptions) => `${library.version} ${JSON.stringify(options)}`;
  return {
    read: (rigText: string): Rig => get(rigText).rig,
    /** The topics of a walk without their order: quick enough for a transaction. */
    prepareTopics(rigText: string, library: Library, options: PlanOptions): readonly Topic[] {
      const { rig, topics } = get(rigText);
      return keep(topics, keyOf(library, options), () => prepareTopics(rig, library, options)).topics;
    },
    /** The topics of a walk and their order. It may take seconds: never within a transaction. Failures: `cycle`, `busy`. */
    prepare(rigText: string, library: Library, options: PlanOptions): Promise<Prepared> {
      const { rig, plans } = get(rigText);
      const key = keyOf(library, options);
      return keep(plans, key, async () => {
        try {
          const planned = await planner.prepare(rig, library, options);
          if (!planned.ok) throw new Failure("cycle", planned.error);
          return { rig, ...planned.value };
        } catch (error) {
          // What went wrong once may go right the next time.
          plans.delete(key);
          throw error;
        }
      });
    },
  };
}

export type RigService = ReturnType<typeof createRigService>;
