import { useState } from "react";
import { levels, type Topic, topicIdSchema } from "../../../core/topic/index.ts";

/** Under which the draft of a topic is kept that has no id yet; no id is written so. */
export const newTopicKey = "*new*";

const keyOf = (id: string) => `ravik-topic-draft-${id}`;

/** What is being written of a topic: kept on this device until it is saved or dropped, so that another page loses nothing. */
export function useTopicDraft(id: string) {
  const [draft, setDraft] = useState<Topic | null>(() => readDraft(id));
  return {
    draft,
    write(topic: Topic) {
      localStorage.setItem(keyOf(id), JSON.stringify(topic));
      setDraft(topic);
    },
    drop() {
      localStorage.removeItem(keyOf(id));
      setDraft(null);
    },
  };
}

/** A draft that an older version wrote may lack what is asked for now; it is then left aside. */
function readDraft(id: string): Topic | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(id)) ?? "null");
    const isTopic =
      typeof kept === "object" &&
      kept !== null &&
      topicIdSchema.safeParse((kept as Topic).id).success &&
      ["title", "say", "show", "does", "wrong", "why"].every((name) => typeof (kept as never)[name] === "string") &&
      ["cautions", "after", "where"].every((name) => Array.isArray((kept as never)[name])) &&
      typeof (kept as Topic).when === "object" &&
      typeof (kept as Topic).minutes === "number" &&
      levels.includes((kept as Topic).level);
    return isTopic ? (kept as Topic) : null;
  } catch {
    return null;
  }
}
