import type { Result } from "../../core/result.ts";
import type { Rig } from "../../core/rig/index.ts";
import { type Plan, type PlanOptions, prepareWalk, type RouteError, type Teaching } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import { createAskWorker, findBuilt } from "../askWorker.ts";

export type Planned = Result<{ topics: Topic[]; plan: Plan }, RouteError>;

/** Where plans are searched. A search may take seconds: it is never done while a transaction waits. */
export interface Planner {
  /** `version` names the teaching, so that it need be sent only when it has changed. Failure: `busy`. */
  prepare(rig: Rig, teaching: Teaching & { readonly version: string }, options: PlanOptions): Promise<Planned>;
  close(): Promise<void>;
}

/** Plans in this very thread: for tests and for what makes stores. */
export const planHere: Planner = {
  prepare: async (rig, teaching, options) => prepareWalk(rig, teaching, options),
  close: async () => undefined,
};

export interface PlanRequest {
  readonly id: number;
  readonly rig: Rig;
  readonly version: string;
  /** Left out where the worker has this version. */
  readonly teaching?: Teaching;
  readonly options: PlanOptions;
}

/** More than a busy Saturday asks for at once; whoever comes then is told to try again. */
const mostWaiting = 60;

/** Plans in a worker thread of its own, one after the other. */
export function createPlanWorker(findEntry: () => URL = () => findBuilt("planWorker")): Planner {
  const worker = createAskWorker<Omit<PlanRequest, "id">, Planned>(findEntry, mostWaiting);
  let sentVersion: string | null = null;
  return {
    prepare(rig, { version, ...teaching }, options) {
      const isKnown = worker.isRunning() && sentVersion === version;
      sentVersion = version;
      const asked = worker.ask(isKnown ? { rig, version, options } : { rig, version, options, teaching });
      return asked.catch((error: unknown) => {
        // It may not have come that far.
        sentVersion = null;
        throw error;
      });
    },
    close: worker.close,
  };
}
