import { Refused } from "../../app/client.ts";

/** Without an answer at all the next thing would not go either; whatever else is in the way may be in the way of one alone. */
export const isOutage = (error: unknown): boolean => !(error instanceof Refused) || error.code === "no-signal";

/** Does one after the other. One that fails holds up none of the rest unless there is no signal; the first failure is thrown at last. */
export async function doEach<T>(items: Iterable<T>, work: (item: T) => Promise<void>): Promise<void> {
  let stopped: unknown = null;
  for (const item of items) {
    try {
      await work(item);
    } catch (error) {
      if (isOutage(error)) throw error;
      stopped ??= error;
    }
  }
  if (stopped !== null) throw stopped;
}
