import type { RouteVisit } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import type { WalkState } from "../../core/walk/index.ts";
import type { StationSign } from "./DeckPlan.tsx";

/**
 * What each station's ring shows: the number of its next stop (as it says itself, else by its place in the order) with something open (or of its last), and whether one is
 * there, has been, or is still to come.
 */
export function signStations(
  { visits }: { readonly visits: readonly (RouteVisit & { readonly number?: number })[] },
  topics: readonly Topic[],
  state: WalkState,
  currentStop: number | null,
): Map<string, StationSign> {
  const snagged = new Set(state.snags.filter(({ id }) => !state.settled.has(id)).map(({ topic }) => topic));
  const known = new Set(topics.map(({ id }) => id));
  const signs = new Map<string, StationSign>();
  visits.forEach((visit, i) => {
    const hasSnag = (signs.get(visit.station)?.hasSnag ?? false) || visit.topics.some((id) => snagged.has(id));
    const isOpen = visit.topics.some((id) => known.has(id) && !state.topics.has(id));
    const before = signs.get(visit.station);
    const settled = before !== undefined && before.look !== "done";
    const look = i === currentStop ? "current" : isOpen ? "ahead" : "done";
    if (i === currentStop || !settled) signs.set(visit.station, { number: visit.number ?? i + 1, look, hasSnag });
    else signs.set(visit.station, { ...before, hasSnag });
  });
  return signs;
}
