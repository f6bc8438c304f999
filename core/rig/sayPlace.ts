import { lowerFirst } from "../text/index.ts";
import type { Part, Rig } from "./rig.ts";

/** Where a part is, inside a sentence: how to reach it, or the place to stand at. "under the helm seat"; "at the transom". */
export function sayPlace(rig: Rig, part: Pick<Part, "reach" | "station">): string {
  if (part.reach !== undefined) return lowerFirst(part.reach);
  return `at the ${lowerFirst(rig.stations.find(({ id }) => id === part.station)!.label)}`;
}
