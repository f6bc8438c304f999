import { useMemo, useSyncExternalStore } from "react";
import type { Delivery } from "../../api/index.ts";
import { foldAfterSeal, foldWalk, type WalkState } from "../../core/walk/index.ts";
import { boatQuery, ownerPageQuery, queryClient, todayQuery } from "../app/queries.ts";
import { createSyncQueue, type Post, type SyncStatus } from "./syncQueue.ts";

const deviceKey = "ravik-device";

/** This device's own name in entries, made once. A browser that keeps nothing has one for as long as its page is open. */
function readDeviceId(): string {
  const made = `tablet-${crypto.getRandomValues(new Uint32Array(1))[0]!.toString(16).padStart(8, "0")}`;
  try {
    const known = localStorage.getItem(deviceKey);
    if (known !== null) return known;
    localStorage.setItem(deviceKey, made);
  } catch {
    // A private window may refuse it.
  }
  return made;
}

export const syncQueue = createSyncQueue(readDeviceId());

syncQueue.onPosted(async ({ params }) => {
  if ("token" in params) return queryClient.invalidateQueries({ queryKey: ownerPageQuery(params.token).queryKey });
  await queryClient.invalidateQueries({ queryKey: boatQuery(params.boat).queryKey });
  await queryClient.invalidateQueries({ queryKey: todayQuery.queryKey });
});

export const useSyncStatus = (): SyncStatus => useSyncExternalStore(syncQueue.subscribe, syncQueue.getStatus);

/** What was written about a boat on this device and is not at the yard yet. */
export const usePosts = (about: string): readonly Post[] =>
  useSyncExternalStore(syncQueue.subscribe, () => syncQueue.listPosts(about));

/** All entries of a handover, as the server and this device together know them; each once. */
export function useEntries(delivery: Delivery) {
  const local = useSyncExternalStore(syncQueue.subscribe, () => syncQueue.listOf(delivery.id));
  return useMemo(() => {
    const known = new Map([...delivery.entries, ...local].map((entry) => [entry.id, entry]));
    return [...known.values()];
  }, [delivery.entries, local]);
}

/** A handover as the server and this device together know it; of a sealed one with what goes on from its seal. */
export function useWalkState(delivery: Delivery): WalkState {
  const entries = useEntries(delivery);
  const state = useMemo(() => {
    if (delivery.seal === null) return foldWalk(entries, (id) => delivery.receipts[id]?.number);
    const later = new Set(delivery.added);
    const sealed = delivery.entries.filter(({ id }) => !later.has(id));
    const inside = new Set(sealed.map(({ id }) => id));
    return foldAfterSeal(
      sealed,
      entries.filter(({ id }) => !inside.has(id)),
    );
  }, [delivery, entries]);
  if (delivery.snapshot !== null && state.startedAt !== null) syncQueue.noteSnapshot(delivery.id, delivery.snapshot);
  return state;
}
