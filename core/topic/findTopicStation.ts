import { findStation, type Rig, type Station } from "../rig/index.ts";
import type { Topic } from "./topic.ts";

/** Where a topic is told on this boat: at the part it is about, else at the first wanted kind of station; null if none. */
export function findTopicStation(rig: Rig, topic: Pick<Topic, "where" | "of">): Station | null {
  const part = topic.of === undefined ? undefined : rig.parts.find(({ kind }) => kind === topic.of);
  const station = part === undefined ? undefined : rig.stations.find(({ id }) => id === part.station);
  return station ?? findStation(rig, topic.where);
}

/** Where and what of the boat a topic is about, in words: "Stern locker: House battery"; its station where it is no part. */
export function nameTopicPart(rig: Rig, topic: Pick<Topic, "where" | "of">): string | null {
  const station = findTopicStation(rig, topic);
  if (station === null) return null;
  const parts = topic.of === undefined ? [] : rig.parts.filter(({ kind }) => kind === topic.of);
  return parts.length === 0 ? station.label : `${station.label}: ${parts.map(({ label }) => label).join(", ")}`;
}
