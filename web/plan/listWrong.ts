import type { Place } from "../../core/rig/index.ts";
import type { WalkState } from "../../core/walk/index.ts";

/** The snags that stand and have a place of their own, for the plan. */
export function listWrong({ snags, settled }: WalkState): { id: string; note: string; place: Place }[] {
  return snags.flatMap(({ id, note, place }) => (place === undefined || settled.has(id) ? [] : [{ id, note, place }]));
}
