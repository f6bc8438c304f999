import type { NewEntry } from "../offline/syncQueue.ts";
import { syncQueue } from "../offline/useSync.ts";

/** Writes down what is owed, and the photos of it, which name its entry. */
export async function keepOwed(delivery: string, entry: NewEntry, photos: readonly string[]): Promise<void> {
  const { id } = await syncQueue.add(delivery, entry);
  const topic = entry.kind === "snag" ? entry.topic : null;
  for (const photo of photos) await syncQueue.add(delivery, { kind: "photo", photo, topic, ref: id });
}
