/** How a shape is to be inked; screen, print and PDF map each to their own colours. */
export const shapeRoles = [
  "shadow",
  "frame",
  "wheel",
  "hull",
  "rail",
  "sole",
  "locker",
  "cushion",
  "console",
  "glass",
  "engine",
  "engine-line",
  "fitting",
  "hatch",
  "overhead",
  "hair",
  "grain",
  "shade",
  "water",
] as const;
export type ShapeRole = (typeof shapeRoles)[number];

/** One closed or open path in plan coordinates: metres, x to starboard, y aft (so the bow is up on paper). */
export interface Shape {
  readonly role: ShapeRole;
  readonly d: string;
}

/** A point of the boat: metres forward of the transom, metres to starboard. */
export type Point = readonly [forwardM: number, starboardM: number];

const round = (value: number) => Math.round(value * 1000) / 1000;
const at = ([forward, starboard]: Point) => `${round(starboard)} ${round(-forward)}`;

/** Straight lines through the points. */
export function linePath(points: readonly Point[], closed = false): string {
  return `M${points.map(at).join("L")}${closed ? "Z" : ""}`;
}

/** A smooth curve through the points (Catmull–Rom, written as Bézier pieces). */
export function curvePath(points: readonly Point[], closed = false): string {
  const n = points.length;
  const pick = (i: number): Point => points[closed ? (i + n) % n : Math.min(n - 1, Math.max(0, i))]!;
  let d = `M${at(pick(0))}`;
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const [p0, p1, p2, p3] = [pick(i - 1), pick(i), pick(i + 1), pick(i + 2)];
    const c1: Point = [p1[0] + (p2[0] - p0[0]) / 6, p1[1] + (p2[1] - p0[1]) / 6];
    const c2: Point = [p2[0] - (p3[0] - p1[0]) / 6, p2[1] - (p3[1] - p1[1]) / 6];
    d += `C${at(c1)} ${at(c2)} ${at(p2)}`;
  }
  return closed ? `${d}Z` : d;
}

/** A rectangle from (aft, port) to (forward, starboard) with rounded corners. */
export function boxPath(aft: number, port: number, forward: number, starboard: number, radius = 0): string {
  const r = Math.min(radius, (forward - aft) / 2, (starboard - port) / 2);
  if (r <= 0)
    return linePath(
      [
        [aft, port],
        [forward, port],
        [forward, starboard],
        [aft, starboard],
      ],
      true,
    );
  const arc = (to: Point) => `A${round(r)} ${round(r)} 0 0 1 ${at(to)}`;
  return (
    `M${at([aft + r, port])}L${at([forward - r, port])}${arc([forward, port + r])}` +
    `L${at([forward, starboard - r])}${arc([forward - r, starboard])}` +
    `L${at([aft + r, starboard])}${arc([aft, starboard - r])}L${at([aft, port + r])}${arc([aft + r, port])}Z`
  );
}

export function circlePath(forward: number, starboard: number, radius: number): string {
  const r = round(radius);
  return `M${at([forward + radius, starboard])}A${r} ${r} 0 1 1 ${at([forward - radius, starboard])}A${r} ${r} 0 1 1 ${at([forward + radius, starboard])}Z`;
}

/** Where the pieces of a path end; paper coordinates as points of the boat. */
export function readPoints(d: string): Point[] {
  const ends: Point[] = [];
  for (const [, letter, rest] of d.matchAll(/([MLCA])([^MLCAZ]*)/g)) {
    const numbers = rest!.trim().split(/[ ,]+/).map(Number);
    const step = letter === "C" ? 6 : letter === "A" ? 7 : 2;
    for (let i = step; i <= numbers.length; i += step) ends.push([-numbers[i - 1]!, numbers[i - 2]!]);
  }
  return ends;
}

/** A part of the paper. Metres, x to starboard, y aft. */
export interface PaperBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The paper between the ends of a path's pieces; a curve may bulge a little beyond. */
export function boundsOf({ d }: Shape): PaperBox {
  const points = readPoints(d);
  const [across, along] = [points.map(([, side]) => side), points.map(([forward]) => -forward)];
  const [x, y] = [Math.min(...across), Math.min(...along)];
  return { x, y, width: Math.max(...across) - x, height: Math.max(...along) - y };
}
