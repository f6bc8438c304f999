import { createSyncQueue, type SyncQueue } from "../offline/syncQueue.ts";

const opened: SyncQueue[] = [];

/** A queue of this test alone, as a device would have it: `leaveQueues` ends it. */
export function openQueueHere(options: { patienceMs?: number } = {}): SyncQueue {
  const queue = createSyncQueue("tablet-1", options);
  opened.push(queue);
  return queue;
}

/** Signs out of every queue this test has opened and waits for what is under way, so that nothing is sent to the next one. */
export async function leaveQueues(): Promise<void> {
  const left = opened.splice(0);
  for (const queue of left) {
    queue.setHeld([]);
    queue.setUser(null);
  }
  await Promise.all(left.map((queue) => queue.sendAll().catch(() => undefined)));
}
