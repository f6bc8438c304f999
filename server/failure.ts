import { type ErrorCode, errorStatus } from "../api/index.ts";

/** An expected refusal, with the facts the other side may see. The error middleware alone turns it into an answer. */
export class Failure extends Error {
  override readonly name = "Failure";
  readonly code: ErrorCode;
  readonly facts: Readonly<Record<string, unknown>>;

  constructor(code: ErrorCode, facts: Readonly<Record<string, unknown>> = {}) {
    super(code);
    this.code = code;
    this.facts = facts;
  }

  get status(): number {
    return errorStatus[this.code];
  }
}

/** For a write that reading brings with it: where nothing can be stored, what is stored can still be read. Throws any other. */
export function passWhileStuck(error: unknown): void {
  if (!(error instanceof Failure) || error.code !== "store-stuck") throw error;
}
