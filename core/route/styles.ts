import { z } from "zod";
import { plainText, type Rig, type Station, type StationKind, stationKinds } from "../rig/index.ts";
import { moments, systemNames, systems, type Topic } from "../topic/index.ts";

export const styleIds = ["power-first", "trailer-first", "sweep", "day-in-the-life", "storage-tour"] as const;
/** One of the five schools, or a style the store made itself. */
export const styleIdSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, "must be small letters, digits and hyphens");
export type StyleId = z.infer<typeof styleIdSchema>;

/** A route style as a store describes it; `createStyle` makes it one `route` understands. */
export const ownStyleSchema = z.strictObject({
  id: styleIdSchema,
  name: plainText(40),
  /** First and last stop; null leaves it to the route. */
  start: z.enum(stationKinds).nullable(),
  end: z.enum(stationKinds).nullable(),
  sweep: z.enum(["none", "bow-to-stern", "stern-to-bow"]),
  trailer: z.enum(["first", "last", "with-the-rest"]),
  /** Systems told in this order before all others. */
  systems: z.array(z.enum(systems)).max(systems.length),
});
export type OwnStyle = z.infer<typeof ownStyleSchema>;

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
  /** What the topics of a rank are, in words: "power". */
  readonly group: (topic: Topic) => string;
  /** Factor on the move time from one station to another. */
  readonly shape: (from: Station, to: Station, rig: Rig) => number;
}

/** The moments of a day as people say them. */
export const momentWords: Record<Topic["moment"], string> = {
  arrive: "getting to know the boat",
  hitch: "hitching up",
  tow: "towing",
  ramp: "the ramp",
  "power-up": "power",
  start: "starting",
  run: "under way",
  anchor: "anchoring",
  dock: "docking",
  load: "loading",
  flush: "flushing",
  store: "storing",
};

const even = () => 1;
const aftM = 0.6;

export const routeStyles: readonly RouteStyle[] = [
  {
    id: "power-first",
    name: "Power first",
    line: "Batteries and switches, then the helm in panel order, then the boat, engine and plug. Power first, then the helm, the rest, the trailer; it ends at the engines.",
    start: ["bilge", "console", "cockpit", "helm"],
    end: ["engines", "transom"],
    rank: (topic) =>
      topic.system === "electrical" ? 0 : topic.system === "helm" ? 1 : topic.system === "trailer" ? 3 : 2,
    group: ({ system }) =>
      system === "electrical"
        ? "power"
        : system === "helm"
          ? "the helm"
          : system === "trailer"
            ? "the trailer"
            : "the boat",
    shape: even,
  },
  {
    id: "trailer-first",
    name: "Trailer first",
    line: "Coupler to tail lights, then transom and engines, then aboard. It begins at the coupler: trailer first, then the engines, then aboard.",
    start: ["coupler", "transom"],
    end: [],
    rank: (topic) =>
      topic.system === "trailer" ? 0 : topic.where[0] === "engines" || topic.where[0] === "transom" ? 1 : 2,
    group: ({ system, where: [first] }) =>
      system === "trailer"
        ? "the trailer"
        : first === "engines" || first === "transom"
          ? "the stern"
          : "what is aboard",
    shape: even,
  },
  {
    id: "sweep",
    name: "Sweep, bow to stern",
    line: "From the bow to the stern, everything met on the way. It begins at the bow, and going forward again counts four times.",
    start: ["coupler", "anchor", "bow"],
    end: [],
    rank: even,
    group: () => "the boat",
    shape: (from, to) => (to.at.xM > from.at.xM + aftM ? 4 : 1),
  },
  {
    id: "day-in-the-life",
    name: "Day in the life",
    line: "Hitch, tow, ramp, power up, start, run, anchor, dock, load, flush, store. Each topic comes at the moment of the day when it is needed.",
    start: [],
    end: [],
    rank: (topic) => moments.indexOf(topic.moment),
    group: ({ moment }) => momentWords[moment],
    shape: even,
  },
  {
    id: "storage-tour",
    name: "Storage tour first",
    line: "Every hatch and seat first, then the systems, the helm last. Lockers, then systems; it ends at the helm.",
    start: [],
    end: ["helm"],
    rank: (topic) => (topic.storage ? 0 : topic.system === "helm" ? 2 : 1),
    group: ({ storage, system }) => (storage ? "hatches and lockers" : system === "helm" ? "the helm" : "the systems"),
    shape: even,
  },
];

const againstSweep = 4;

/** A store's own style made into one: ranks by trailer and systems, move times shaped by the sweep, its own start and end. */
export function createStyle(own: OwnStyle): RouteStyle {
  const systemRank = (topic: Topic) => {
    const at = own.systems.indexOf(topic.system);
    return at < 0 ? own.systems.length : at;
  };
  const trailerRank = own.trailer === "first" ? -1 : own.systems.length + 1;
  const said = [
    own.start === null ? null : `starts at the ${own.start}`,
    own.end === null ? null : `ends at the ${own.end}`,
    own.sweep === "none" ? null : `${own.sweep.replaceAll("-", " ")}`,
    own.trailer === "with-the-rest" ? null : `trailer ${own.trailer}`,
    own.systems.length === 0 ? null : own.systems.map((system) => systemNames[system].toLowerCase()).join(", then "),
  ].filter((part) => part !== null);
  return {
    id: own.id,
    name: own.name,
    line: `Made by this store: ${said.length === 0 ? "the shortest way" : said.join("; ")}.`,
    start: own.start === null ? [] : [own.start],
    end: own.end === null ? [] : [own.end],
    group: ({ system }) => systemNames[system].toLowerCase(),
    rank: (topic) => (topic.system === "trailer" && own.trailer !== "with-the-rest" ? trailerRank : systemRank(topic)),
    shape: (from, to) => {
      const forward = to.at.xM - from.at.xM;
      if (own.sweep === "bow-to-stern" && forward > aftM) return againstSweep;
      if (own.sweep === "stern-to-bow" && forward < -aftM) return againstSweep;
      return 1;
    },
  };
}

/** A style by its id: one of the five, or one of the store's own. An id nobody knows (a style since removed) is the first. */
export function findStyle(id: StyleId, own: readonly OwnStyle[] = []): RouteStyle {
  const made = own.find((candidate) => candidate.id === id);
  if (made !== undefined) return createStyle(made);
  return routeStyles.find((candidate) => candidate.id === id) ?? routeStyles[0]!;
}
