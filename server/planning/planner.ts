import { existsSync } from "node:fs";
import { Worker } from "node:worker_threads";
import type { Result } from "../../core/result.ts";
import type { Rig } from "../../core/rig/index.ts";
import { type Plan, type PlanOptions, prepareWalk, type RouteError, type Teaching } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import { Failure } from "../failure.ts";

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
export type PlanAnswer = { readonly id: number } & ({ readonly planned: Planned } | { readonly error: string });

/** More than a busy Saturday asks for at once; whoever comes then is told to try again. */
const mostWaiting = 60;

/** Plans in a worker thread of its own, one after the other. It is started when first asked, and anew if it ever dies. */
export function createPlanWorker(findEntry: () => URL = findBuilt): Planner {
  let worker: Worker | null = null;
  let sentVersion: string | null = null;
  let last = 0;
  const waiting = new Map<number, { resolve: (planned: Planned) => void; reject: (error: Error) => void }>();
  const fail = (error: Error) => {
    worker = null;
    sentVersion = null;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  const start = (): Worker => {
    const started = new Worker(findEntry());
    // What waits for a plan keeps the program running, not the thread that could make one.
    started.unref();
    started.on("message", (answer: PlanAnswer) => {
      const asked = waiting.get(answer.id);
      waiting.delete(answer.id);
      if ("error" in answer) asked?.reject(new Error(answer.error));
      else asked?.resolve(answer.planned);
    });
    started.on("error", (error) => fail(error as Error));
    started.on("exit", (code) => {
      if (worker === started) fail(new Error(`plan worker: ended with ${code}`));
    });
    return started;
  };
  return {
    prepare(rig, { version, ...teaching }, options) {
      if (waiting.size >= mostWaiting) return Promise.reject(new Failure("busy"));
      worker ??= start();
      const id = ++last;
      const request: PlanRequest = { id, rig, version, options };
      worker.postMessage(sentVersion === version ? request : { ...request, teaching });
      sentVersion = version;
      return new Promise((resolve, reject) => waiting.set(id, { resolve, reject }));
    },
    async close() {
      const ended = worker;
      worker = null;
      await ended?.terminate();
    },
  };
}

/** The built worker, beside the server or one folder above its parts. */
function findBuilt(): URL {
  const places = ["./planWorker.js", "../planWorker.js"].map((path) => new URL(path, import.meta.url));
  const found = places.find((place) => existsSync(place));
  if (found === undefined)
    throw new Error("plan worker: expected dist/server/planWorker.js, found none (npm run build)");
  return found;
}
