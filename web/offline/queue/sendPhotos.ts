import { Refused, sendPhoto } from "../../app/client.ts";
import { isFinal } from "../refusals.ts";
import { doEach } from "./outage.ts";
import { canSend, type QueueState } from "./queueState.ts";

interface Waiting {
  readonly by: string;
  readonly file: Blob;
  readonly proof: string | null;
}

/** Sends photos two at a time: while one is on its way the server makes the other fit to keep. */
export function createPhotoSender(state: QueueState, takeBack: (photo: string) => Promise<void>) {
  const { unsentPhotos, refused } = state;
  const sendOne = async ([id, { by, file, proof }]: readonly [string, Waiting]) => {
    try {
      await sendPhoto(id, file, by, proof);
    } catch (error) {
      if (!(error instanceof Refused) || !isFinal("photo", error.code)) throw error;
      refused.set(id, error);
      // It will never be taken: what names it is taken back, so that nothing waits for it.
      await takeBack(id);
    }
    await state.write([["photos", id, null]]);
    unsentPhotos.delete(id);
    state.setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
  };
  return async (): Promise<void> => {
    const waiting = [...unsentPhotos].filter(([, { by }]) => canSend(state, by)).sort(([a], [b]) => (a < b ? -1 : 1));
    // Both take from one list.
    const rest = waiting[Symbol.iterator]();
    await Promise.all([doEach(rest, sendOne), doEach(rest, sendOne)]);
  };
}
