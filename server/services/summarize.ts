import { type Entry, foldAfterSeal, foldWalk, isCovered, listOwed, type WalkContent } from "../../core/walk/index.ts";
import type { Summary } from "../repositories/deliveries.ts";

/** What Today shows of a handover. `later`: of a sealed one, what came after its seal. */
export function summarize(
  { topics, rig }: Pick<WalkContent, "rig" | "topics">,
  entries: readonly Entry[],
  later: readonly Entry[],
  isSigned: boolean,
): Summary {
  const state = isSigned ? foldAfterSeal(entries, later) : foldWalk(entries);
  const owed = listOwed(topics, rig.gear, state);
  const musts = topics.filter(({ must }) => must);
  return {
    state: isSigned ? "signed" : state.startedAt === null ? "planned" : "walking",
    ready: [...state.ready.values()].filter(({ ok }) => ok).map(({ check }) => check),
    mustsOpen: musts.filter((topic) => !isCovered(topic, state)).length,
    mustsOf: musts.length,
    stopping: owed.filter(({ stops }) => stops).map(({ text }) => text),
    owed,
  };
}
