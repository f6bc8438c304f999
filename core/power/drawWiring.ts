import type { Rig } from "../rig/index.ts";
import type { LiveInput } from "./liveContract.ts";
import { createWiring, findBreaker, nodeOf } from "./wireRig.ts";

type Link = Pick<LiveInput["links"][number], "id" | "a" | "b" | "kind" | "switch">;
type Point = readonly [x: number, y: number];

/** A wiring diagram in its own units, read from the left: batteries, buses, breakers, loads. */
export interface WiringDrawing {
  readonly width: number;
  readonly height: number;
  readonly batteries: readonly { readonly id: string; readonly x: number; readonly y: number }[];
  readonly loads: readonly { readonly id: string; readonly x: number; readonly y: number }[];
  /** A wire of the graph, as a broken line; `node` is the end farther from the battery. */
  readonly wires: readonly { readonly link: string; readonly node: string; readonly points: readonly Point[] }[];
  /** Battery switches, where their wires meet. */
  readonly knobs: readonly { readonly switch: string; readonly x: number; readonly y: number }[];
  /** Breakers and fuses, on their wire. */
  readonly breakers: readonly {
    readonly breaker: string;
    readonly link: string;
    readonly x: number;
    readonly y: number;
  }[];
  /** Panel switches, on the wire to what they power. */
  readonly switches: readonly {
    readonly switch: string;
    readonly link: string;
    readonly x: number;
    readonly y: number;
  }[];
}

const rowH = 46;
const top = 30;
/** Left edges of the columns: battery, its switch, bus, breaker, panel switch, load. */
const columns = { battery: 12, knob: 194, bus: 320, breaker: 420, feed: 480, switch: 560, load: 650 } as const;
const width = 850;
/** Wires that turn in one column turn side by side. */
const lane = 11;
const batteryW = 132;

/** The wiring as it is drawn: one row a load, in the order of the breakers that feed them; any graph can be drawn. */
export function drawWiring(rig: Rig): WiringDrawing {
  const links: readonly Link[] = rig.wiring ?? createWiring(rig);
  const rows = listRows(rig, links);
  const heights = placeNodes(rig, links, rows);
  const yOf = (node: string) => heights.get(node) ?? top;
  const xOf = (node: string) => columnOf(node, rig);
  const powerSwitches = new Set(rig.powerSwitches.map(({ id }) => id));
  const buses = [...new Set(links.flatMap(({ a, b }) => [a, b]))].filter((node) => columnOf(node, rig) === columns.bus);
  const laneOf = (node: string) =>
    Math.max(
      0,
      rig.batteries.findIndex(({ id }) => nodeOf.battery(id) === node),
    );
  const selector = rig.powerSwitches.find(
    ({ id }) => links.filter((link) => link.switch === id && !isBattery(link.b)).length > 1,
  );
  // What a selector feeds stands at its height, so that its wire runs straight on.
  for (const { a, b, switch: id } of links)
    if (selector !== undefined && id === selector.id && isBattery(a) && !isBattery(b)) {
      const ys = links.filter((link) => link.switch === id).map((link) => yOf(link.a));
      heights.set(b, (Math.min(...ys) + Math.max(...ys)) / 2);
    }
  /** Where a wire turns: each battery and each bus has a lane of its own. */
  const bendOf = (from: string, to: string) => {
    if (isBattery(from) && isBattery(to)) return columns.battery + batteryW + 12;
    if (isLoad(to)) return columns.feed + 26;
    if (isBattery(from) && columnOf(to, rig) === columns.bus && selector !== undefined) return columns.knob;
    if (isBattery(from)) return columns.knob + 40 + laneOf(from) * lane;
    return columns.bus + 14 + Math.max(0, buses.indexOf(from)) * lane;
  };
  const breakerOf = (id: string) => findBreaker(rig, id)?.id ?? id;
  const drawn = links.map((link) => {
    const [from, to] = xOf(link.a) <= xOf(link.b) ? [link.a, link.b] : [link.b, link.a];
    return { link, from, to };
  });
  return {
    width,
    height: Math.max(top + rows.length * rowH, top + rig.batteries.length * 84) + 10,
    batteries: rig.batteries.map(({ id }) => ({ id, x: columns.battery, y: yOf(nodeOf.battery(id)) })),
    loads: rows.map((id) => ({ id, x: columns.load, y: yOf(nodeOf.load(id)) })),
    wires: drawn.map(({ link, from, to }) => ({
      link: link.id,
      node: to,
      points: route([startX(from, xOf(from)), yOf(from)], [xOf(to), yOf(to)], bendOf(from, to)),
    })),
    knobs: rig.powerSwitches.flatMap(({ id }) => {
      const mine = drawn.filter(({ link }) => link.switch === id);
      if (mine.length === 0) return [];
      const isBetween = mine.every(({ to }) => isBattery(to));
      // One that joins a battery to its bus stands at the battery; one that chooses, between those it chooses from.
      const ys = mine.flatMap(({ from, to }) => (isBetween ? [yOf(from), yOf(to)] : [yOf(from)]));
      const [first = top, second = first] = [...new Set(ys)].sort((a, b) => a - b);
      // An emergency switch that joins several stands between the first two of them, clear of every battery.
      const y = isBetween ? (first + second) / 2 : (Math.min(...ys) + Math.max(...ys)) / 2;
      return [{ switch: id, x: isBetween ? columns.battery + batteryW / 2 : columns.knob, y }];
    }),
    breakers: drawn
      .filter(({ link }) => link.kind === "breaker" || link.kind === "fuse")
      .map(({ link, to }) => ({ breaker: breakerOf(link.id), link: link.id, x: columns.breaker, y: yOf(to) })),
    switches: drawn
      .filter(({ link }) => link.kind === "switch" && !powerSwitches.has(link.switch ?? ""))
      .map(({ link, to }) => ({ switch: link.switch!, link: link.id, x: columns.switch, y: yOf(to) })),
  };
}

const isBattery = (node: string) => node.startsWith("battery:");
const isLoad = (node: string) => node.startsWith("load:");

function columnOf(node: string, rig: Rig): number {
  if (isBattery(node)) return columns.battery;
  if (isLoad(node)) return columns.load;
  return node.startsWith("feed:") || rig.breakers.some(({ id }) => node === id) ? columns.feed : columns.bus;
}
const startX = (node: string, x: number) => (isBattery(node) ? x + batteryW : x);

const route = (from: Point, to: Point, bendX: number): Point[] =>
  from[1] === to[1] ? [from, to] : [from, [bendX, from[1]], [bendX, to[1]], to];

/** Loads in the order of the breakers, so that wires cross as little as can be; what no breaker feeds comes last. */
function listRows(rig: Rig, links: readonly Link[]): string[] {
  const fed = rig.breakers.flatMap(({ feeds }) => feeds);
  const named = [...new Set([...fed, ...rig.loads.map(({ id }) => id)])];
  const wired = new Set(links.flatMap(({ a, b }) => [a, b]));
  const loads = new Set(rig.loads.map(({ id }) => id));
  const rank = (id: string) => (wired.has(nodeOf.load(id)) ? 0 : 1);
  return named.filter((id) => loads.has(id)).sort((a, b) => rank(a) - rank(b));
}

/** How far down each node stands: loads in rows, what feeds them in the middle of what it feeds, batteries evenly. */
function placeNodes(rig: Rig, links: readonly Link[], rows: readonly string[]): Map<string, number> {
  const at = new Map(rows.map((id, i) => [nodeOf.load(id), top + i * rowH]));
  const near = new Map<string, string[]>();
  for (const { a, b } of links) {
    near.set(a, [...(near.get(a) ?? []), b]);
    near.set(b, [...(near.get(b) ?? []), a]);
  }
  const middle = (node: string, of: (other: string) => boolean) => {
    const ys = (near.get(node) ?? []).filter(of).flatMap((other) => at.get(other) ?? []);
    return ys.length === 0 ? null : ys.reduce((a, b) => a + b, 0) / ys.length;
  };
  const nodes = [...near.keys()].filter((node) => !isBattery(node) && !isLoad(node));
  const isFeed = (node: string) => columnOf(node, rig) === columns.feed;
  for (const node of nodes.filter(isFeed)) at.set(node, middle(node, isLoad) ?? top);
  for (const node of nodes.filter((each) => !isFeed(each)))
    at.set(node, middle(node, (other) => !isBattery(other)) ?? top);
  const span = Math.max(rows.length * rowH, rig.batteries.length * 84);
  const wanted = rig.batteries
    .map(({ id }) => ({ id, y: middle(nodeOf.battery(id), (other) => !isBattery(other)) ?? span }))
    .sort((a, b) => a.y - b.y);
  wanted.forEach(({ id }, i) => {
    at.set(nodeOf.battery(id), top + 20 + ((i + 0.5) * (span - 40)) / wanted.length - 20);
  });
  return at;
}
