import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { vi } from "vitest";
import { forgetServer } from "../offline/clock.ts";
import { createSyncQueue, type SyncQueue } from "../offline/syncQueue.ts";

const opened: SyncQueue[] = [];

/** A queue of this test alone, as a device would have it: `leaveQueues` ends it. */
export function openQueueHere(options: { patienceMs?: number } = {}): SyncQueue {
  const queue = createSyncQueue("tablet-1", options);
  opened.push(queue);
  return queue;
}

/** A device that holds nothing, has signal and knows nothing of the server; answers what its window's events are told by. */
export function openDevice(): EventTarget {
  const events = new EventTarget();
  vi.stubGlobal("indexedDB", new IDBFactory());
  vi.stubGlobal("window", events);
  vi.stubGlobal("navigator", { onLine: true });
  forgetServer();
  return events;
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
