import { parentPort } from "node:worker_threads";
import { prepareWalk, type Teaching } from "../../core/route/index.ts";
import { stepBack } from "../stepBack.ts";
import type { PlanRequest } from "./planner.ts";

/** The thread in which plans are searched: one question, one answer, in order. */
const teachings = new Map<string, Teaching>();

stepBack();
parentPort!.on("message", ({ id, rig, version, teaching, options }: PlanRequest) => {
  if (teaching !== undefined) {
    teachings.clear();
    teachings.set(version, teaching);
  }
  const known = teachings.get(version);
  if (known === undefined)
    return parentPort!.postMessage({ id, error: `plan worker: no teaching of version ${version}` });
  try {
    parentPort!.postMessage({ id, answer: prepareWalk(rig, known, options) });
  } catch (error) {
    parentPort!.postMessage({ id, error: (error as Error).message });
  }
});
