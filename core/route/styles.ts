import { z } from "zod";
import type { Rig, Station, StationKind } from "../rig/index.ts";
import { moments, type Topic } from "../topic/index.ts";

export const styleIds = ["power-first", "trailer-first", "sweep", "day-in-the-life", "storage-tour"] as const;
export const styleIdSchema = z.enum(styleIds);
export type StyleId = z.infer<typeof styleIdSchema>;

/** A school of walking a boat, expressed in what `route` understands. */
export interface RouteStyle {
  readonly id: StyleId;
  readonly name: string;
  /** What the school does and how it is made, in one line. */
  readonly line: string;
  /** The first stop, by kind; the first of these that the boat has. */
  readonly start: readonly StationKind[];
  readonly end: readonly StationKind[];
  /** Topics of a lower rank are told before those of a higher one, unless a topic needs it otherwise. */
  readonly rank: (topic: Topic) => number;
  /** Factor on the move time from one station to another. */
  readonly shape: (from: Station, to: Station, rig: Rig) => number;
}

const even = () => 1;
const aftM = 0.6;

export const routeStyles: readonly RouteStyle[] = [
  {
    id: "power-first",
    name: "Power first",
    line: "Batteries and switches, then the helm in panel order, then the boat, engine and plug. Made of rank: power, helm, rest, trailer; ends at the engines.",
    start: ["bilge", "console", "cockpit", "helm"],
    end: ["engines", "transom"],
    rank: (topic) =>
      topic.system === "electrical" ? 0 : topic.system === "helm" ? 1 : topic.system === "trailer" ? 3 : 2,
    shape: even,
  },
  {
    id: "trailer-first",
    name: "Trailer first",
    line: "Coupler to tail lights, then transom and engines, then aboard. Made of a start at the coupler and rank: trailer, engines, aboard.",
    start: ["coupler", "transom"],
    end: [],
    rank: (topic) =>
      topic.system === "trailer" ? 0 : topic.where[0] === "engines" || topic.where[0] === "transom" ? 1 : 2,
    shape: even,
  },
  {
    id: "sweep",
    name: "Sweep, bow to stern",
    line: "From the bow to the stern, everything met on the way. Made of a start at the bow and move times that are four times as long going forward.",
    start: ["coupler", "anchor", "bow"],
    end: [],
    rank: even,
    shape: (from, to) => (to.at.xM > from.at.xM + aftM ? 4 : 1),
  },
  {
    id: "day-in-the-life",
    name: "Day in the life",
    line: "Hitch, tow, ramp, power up, start, run, anchor, dock, load, flush, store. Made of rank by the moment of the day a topic belongs to.",
    start: [],
    end: [],
    rank: (topic) => moments.indexOf(topic.moment),
    shape: even,
  },
  {
    id: "storage-tour",
    name: "Storage tour first",
    line: "Every hatch and seat first, then the systems, the helm last. Made of rank: lockers, systems, helm; ends at the helm.",
    start: [],
    end: ["helm"],
    rank: (topic) => (topic.storage ? 0 : topic.system === "helm" ? 2 : 1),
    shape: even,
  },
];

export function findStyle(id: StyleId): RouteStyle {
  const style = routeStyles.find((candidate) => candidate.id === id);
  if (style === undefined) throw new Error(`findStyle: expected one of ${styleIds.join(", ")}, got ${id}`);
  return style;
}
