import { Failure } from "./failure.ts";

/**
 * One after the other, in the order in which they came. `key`: who asks; one of them may have `mostOfOne` waiting, so that
 * nobody fills the line alone. Failure: `busy` for whoever comes when the line is full.
 */
export function createTurns(mostWaiting: number, mostOfOne = mostWaiting) {
  const waiting = new Map<string, number>();
  let inAll = 0;
  let last: Promise<unknown> = Promise.resolve();
  return async <T>(key: string, go: () => Promise<T>): Promise<T> => {
    const mine = waiting.get(key) ?? 0;
    if (inAll >= mostWaiting || mine >= mostOfOne) throw new Failure("busy");
    inAll++;
    waiting.set(key, mine + 1);
    const turn = last.then(go);
    last = turn.catch(() => undefined);
    try {
      return await turn;
    } finally {
      inAll--;
      const left = waiting.get(key)! - 1;
      if (left === 0) waiting.delete(key);
      else waiting.set(key, left);
    }
  };
}

export type TakeTurn = ReturnType<typeof createTurns>;
