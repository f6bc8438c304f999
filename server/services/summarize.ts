import { type Entry, foldAfterSeal, foldWalk, listOwed, type WalkContent } from "../../core/walk/index.ts";
import type { Summary } from "../repositories/deliveries.ts";

/** What of a handover stands in its row. `later`: of a sealed one, what came after its seal. */
export function summarize(
  { topics, rig }: Pick<WalkContent, "rig" | "topics">,
  entries: readonly Entry[],
  later: readonly Entry[],
  isSigned: boolean,
): Summary {
  const state = isSigned ? foldAfterSeal(entries, later) : foldWalk(entries);
  const owed = listOwed(topics, rig.gear, state);
  return {
    state: isSigned ? "signed" : state.startedAt === null ? "planned" : "walking",
    owed,
  };
}
