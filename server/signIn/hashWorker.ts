import { parentPort } from "node:worker_threads";
import { type ScryptCost, scryptHere } from "./passwords.ts";

export interface HashRequest {
  readonly id: number;
  readonly password: string;
  readonly salt: string;
  readonly cost: ScryptCost;
}

/** The thread in which passwords are hashed, one after the other. */
parentPort!.on("message", ({ id, password, salt, cost }: HashRequest) => {
  parentPort!.postMessage({ id, answer: scryptHere(password, salt, cost) });
});
