import type { WalkState } from "../../core/walk/index.ts";
import type { NewEntry } from "../offline/syncQueue.ts";
import { syncQueue } from "../offline/useSync.ts";
import type { Correcting } from "./OwedPad.tsx";

/** A snag as it stands, to be put right; null where there is none under this id. */
export function findCorrecting(state: WalkState, ref: string): Correcting | null {
  const snag = state.snags.find(({ id }) => id === ref);
  if (snag === undefined) return null;
  const assigned = state.assigned.get(ref);
  const { owner, due } = assigned ?? { owner: snag.owner ?? null, due: snag.due ?? null };
  return { snag, owner, due, photos: state.photos.filter((photo) => photo.ref === ref) };
}

/** Writes down what is owed, and the photos of it, which name its entry. */
export async function keepOwed(delivery: string, entry: NewEntry, photos: readonly string[]): Promise<void> {
  const { id } = await syncQueue.add(delivery, entry);
  const [topic, corrects] = entry.kind === "snag" ? [entry.topic, entry.corrects] : [null, undefined];
  for (const photo of photos) await syncQueue.add(delivery, { kind: "photo", photo, topic, ref: corrects ?? id });
}
