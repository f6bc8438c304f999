import { expose } from "comlink";
import { createRandom } from "../../core/random.ts";
import { simulateWalk } from "../../core/route/index.ts";

const walks = 20_000;

const worker = {
  /** How long this walk may take, from 20,000 simulated ones; the same plan always gives the same answer. */
  simulate: (topicMin: readonly number[], moveMin: number) => simulateWalk(topicMin, moveMin, walks, createRandom(1)),
};
export type WalkTimeWorker = typeof worker;

expose(worker);
