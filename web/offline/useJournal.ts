import { useMemo, useSyncExternalStore } from "react";
import type { Delivery } from "../../api/index.ts";
import { foldWalk, type WalkState } from "../../core/walk/index.ts";
import { createJournal, type JournalStatus } from "./journal.ts";

const deviceKey = "ravik-device";

/** This device's own name in entries, made once. */
function readDeviceId(): string {
  const known = localStorage.getItem(deviceKey);
  if (known !== null) return known;
  const made = `tablet-${crypto.randomUUID().slice(0, 8)}`;
  localStorage.setItem(deviceKey, made);
  return made;
}

export const journal = createJournal(readDeviceId());

export function useJournalStatus(): JournalStatus {
  return useSyncExternalStore(journal.subscribe, journal.getStatus);
}

/** A handover as the server and this device together know it. */
export function useWalkState(delivery: Delivery): WalkState {
  const local = useSyncExternalStore(journal.subscribe, () => journal.listOf(delivery.id));
  // An entry that both have counts once, whichever comes first: they are the same.
  return useMemo(() => foldWalk([...delivery.entries, ...local]), [delivery.entries, local]);
}
