import type { Plan } from "../../core/route/index.ts";
import {
  type Entry,
  foldAfterSeal,
  foldWalk,
  listOwed,
  type WalkContent,
  type WalkState,
} from "../../core/walk/index.ts";
import type { Summary } from "../repositories/deliveries.ts";

/** What of a handover that is not sealed stands in its row. */
export const summarizeState = ({ topics, rig }: Pick<WalkContent, "rig" | "topics">, state: WalkState): Summary => ({
  state: state.startedAt === null ? "planned" : "walking",
  owed: listOwed(topics, rig.gear, state),
});

/**
 * What of a handover stands in its row. `later`: of a sealed one, what came after its seal. `plan`: what it went by, from which
 * a sealed one says what was never reached.
 */
export function summarize(
  { topics, rig, plan = null }: Pick<WalkContent, "rig" | "topics"> & { readonly plan?: Plan | null },
  entries: readonly Entry[],
  later: readonly Entry[],
  isSigned: boolean,
): Summary {
  if (!isSigned) return summarizeState({ topics, rig }, foldWalk(entries));
  return {
    state: "signed",
    owed: listOwed(topics, rig.gear, foldAfterSeal(entries, later)),
    ...(plan === null ? {} : { unreached: listUnreached(plan, entries) }),
  };
}

/** Topics that were planned and have no mark at all at the close. */
function listUnreached(plan: Plan, entries: readonly Entry[]): string[] {
  const { topics } = foldWalk(entries);
  return plan.visits.flatMap((visit) => visit.topics.filter((topic) => !topics.has(topic)));
}
