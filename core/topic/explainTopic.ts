import { explainCondition, isMet, type Rig } from "../rig/index.ts";
import { findTopicStation } from "./findTopicStation.ts";
import type { Topic } from "./topic.ts";

export interface TopicReason {
  readonly isHere: boolean;
  /** Plain sentences without a full stop. */
  readonly because: readonly string[];
}

/**
 * Why is this topic told on this boat, or not? What its condition finds on the rig, and where it would be told.
 *
 * @example a windlass topic on a boat without one → {isHere: false, because: ["it has no windlass"]}
 */
export function explainTopic(topic: Topic, rig: Rig): TopicReason {
  const facts = explainCondition(topic.when, rig);
  if (!isMet(topic.when, rig)) return { isHere: false, because: facts };
  const station = findTopicStation(rig, topic);
  if (station === null) return { isHere: false, because: [`it has no ${topic.where.join(" or ")} to stand at`] };
  return { isHere: true, because: [...facts, `it is explained at: ${station.label.toLowerCase()}`] };
}
