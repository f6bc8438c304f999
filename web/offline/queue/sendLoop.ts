import { Refused } from "../../app/client.ts";
import { forgetServer } from "../clock.ts";
import { doEach } from "./outage.ts";
import type { QueueState } from "./queueState.ts";

const firstWaitMs = 2000;
const longestWaitMs = 60_000;

interface Loop {
  /** Each kind in turn: what one waits for is no reason for the others to wait. */
  readonly steps: readonly (() => Promise<void>)[];
  /** Something is here that could be sent. */
  isOwed(): boolean;
}

/** One try at a time, again and again with longer waits between, at once when the signal is back. */
export function createSendLoop(state: QueueState, { steps, isOwed }: Loop) {
  let waitMs = firstWaitMs;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending: Promise<void> | null = null;
  let isSignalBack = false;
  const firstRefused = () => [...state.refused.values()][0] ?? null;
  const sendOnce = async () => {
    await state.ready;
    await doEach(steps, (step) => step());
  };
  const noteFailure = (error: unknown) => {
    const isSignal = error instanceof Refused && error.code === "no-signal";
    // Out of reach it may be put back from a backup, and is asked anew.
    if (isSignal) forgetServer();
    state.setStatus({
      hasSignal: !isSignal,
      failures: isSignal ? 0 : state.status.failures + 1,
      refusal: isSignal || !(error instanceof Refused) ? firstRefused() : error,
    });
    waitMs = Math.min(longestWaitMs, waitMs * 2);
  };
  const send = (): Promise<void> => {
    clearTimeout(timer);
    sending ??= sendOnce()
      .then(() => {
        waitMs = firstWaitMs;
        state.setStatus({ failures: 0, refusal: firstRefused() });
      })
      .catch(noteFailure)
      .finally(() => {
        sending = null;
        const isNow = isSignalBack || waitMs === firstWaitMs;
        isSignalBack = false;
        if (isOwed()) timer = setTimeout(send, isNow ? 0 : waitMs);
      });
    return sending;
  };
  window.addEventListener("online", () => {
    // A try that is under way may have failed already for want of signal.
    isSignalBack = sending !== null;
    void send();
  });
  // A tablet that lay there may have missed that the store was put back.
  window.addEventListener("focus", () => void send());
  window.addEventListener("offline", () => state.setStatus({ hasSignal: false }));
  return { send, current: () => sending };
}
