import { parentPort } from "node:worker_threads";
import { stepBack } from "../stepBack.ts";
import { type ScryptCost, scryptHere } from "./passwords.ts";

export interface HashRequest {
  readonly id: number;
  readonly password: string;
  readonly salt: string;
  readonly cost: ScryptCost;
}

/** The thread in which passwords are hashed, one after the other. */
stepBack();
parentPort!.on("message", ({ id, password, salt, cost }: HashRequest) => {
  parentPort!.postMessage({ id, answer: scryptHere(password, salt, cost) });
});
