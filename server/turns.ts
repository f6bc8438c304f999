import { Failure } from "./failure.ts";

/** One after the other, in the order in which they came. Failure: `busy` once `mostWaiting` wait already. */
export function createTurns(mostWaiting: number): <T>(go: () => Promise<T>) => Promise<T> {
  let waiting = 0;
  let last: Promise<unknown> = Promise.resolve();
  return async (go) => {
    if (waiting >= mostWaiting) throw new Failure("busy");
    waiting++;
    const turn = last.then(go);
    last = turn.catch(() => undefined);
    try {
      return await turn;
    } finally {
      waiting--;
    }
  };
}
