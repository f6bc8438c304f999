import { createMoveMap, type Rig } from "../rig/index.ts";
import { curvePath, type Point } from "./shape.ts";

/**
 * The course line of a walk: a path for each move from one stop to the next, round the hull and up the boarding place. Each
 * leg can be bowed a little or more to either side; of those ways the one is drawn that crosses the others least, so that
 * the line crosses itself only where no leg drawn otherwise would spare it.
 */
export function drawCourse(rig: Rig, stops: readonly { readonly station: string }[]): string[] {
  const legs = listLegs(rig, stops);
  return chooseWays(legs).map((way, leg) => curvePath(legs[leg]![way]!));
}

/** How often the course line crosses itself, as it is drawn, or with `ways` the legs drawn so. */
export function countCrossings(
  rig: Rig,
  stops: readonly { readonly station: string }[],
  ways?: readonly number[],
): { readonly crossings: number; readonly ways: readonly number[] } {
  const legs = listLegs(rig, stops);
  const drawn = ways ?? chooseWays(legs);
  const lines = legs.map((leg, i) => spanLine(sampleCurve(leg[drawn[i]!]!)));
  let crossings = 0;
  for (let i = 0; i < lines.length; i++)
    for (let j = i + 1; j < lines.length; j++) crossings += countMeets(lines[i]!, lines[j]!);
  return { crossings, ways: drawn };
}

/** Of each move the ways it can be drawn, the usual one first. */
function listLegs(rig: Rig, stops: readonly { readonly station: string }[]): Point[][][] {
  const map = createMoveMap(rig);
  const index = new Map(rig.stations.map(({ id }, i) => [id, i]));
  return stops.slice(1).map(({ station }, i) => {
    const way = map.course(index.get(stops[i]!.station)!, index.get(station)!);
    return bends.map((bend) =>
      bendWay(
        way.map(({ xM, yM }): Point => [xM, yM]),
        bend,
      ),
    );
  });
}

/** How far a leg is bowed to starboard of its direction, as a share of its length; the way there and back are two lines. */
const bends = [0.1, -0.1, 0.2, -0.2, 0.32, -0.32, 0.02, 0.5, -0.5] as const;
const mostOffM = 0.28;
const nearMiddleM = 0.7;

/** A straight leg is bowed at its middle; one that goes round something is moved outward at its corners. */
function bendWay(points: readonly Point[], bend: number): Point[] {
  const [first, last] = [points[0]!, points.at(-1)!];
  if (points.length > 2) {
    const outM = Math.max(0, (Math.abs(bend) - 0.1) * 0.9) * (bend < 0 ? 0.6 : 1);
    return points.map((point, i) => (i === 0 || i === points.length - 1 ? point : moveOut(point, outM, bend * 0.7)));
  }
  const [[x0, y0], [x1, y1]] = [first, last];
  const length = Math.hypot(x1 - x0, y1 - y0) || 1;
  const off = Math.sign(bend) * Math.min((mostOffM * Math.abs(bend)) / bends[0], length * Math.abs(bend));
  return [first, [(x0 + x1) / 2 + ((y1 - y0) / length) * off, (y0 + y1) / 2 - ((x1 - x0) / length) * off], last];
}

/** A corner on the ground goes farther from the hull; the boarding place is passed a little to one side. */
const moveOut = ([xM, yM]: Point, byM: number, asideM: number): Point =>
  Math.abs(yM) < nearMiddleM ? [xM, yM + asideM] : [xM < 0 ? xM - byM : xM, yM + Math.sign(yM) * byM];

const mostPasses = 8;

/** Of each leg the way that crosses the others least, gone through until none is better drawn otherwise. */
function chooseWays(legs: readonly (readonly Point[][])[]): number[] {
  const lines = legs.map((ways) => ways.map((way) => spanLine(sampleCurve(way))));
  const known = new Map<number, number>();
  const meets = (i: number, a: number, j: number, b: number): number => {
    if (i > j) return meets(j, b, i, a);
    const key = ((i * bends.length + a) * legs.length + j) * bends.length + b;
    const before = known.get(key);
    if (before !== undefined) return before;
    const count = countMeets(lines[i]![a]!, lines[j]![b]!);
    known.set(key, count);
    return count;
  };
  const ways = legs.map(() => 0);
  for (let pass = 0; pass < mostPasses; pass++) {
    let isSettled = true;
    for (let i = 0; i < legs.length; i++) {
      const countOf = (way: number) =>
        ways.reduce((sum, other, j) => (j === i ? sum : sum + meets(i, way, j, other)), 0);
      // Most legs cross nothing as they are: nothing is better, and the other ways are never looked at.
      if (countOf(ways[i]!) === 0) continue;
      const counts = bends.map((_, way) => countOf(way));
      const best = counts.indexOf(Math.min(...counts));
      if (counts[best]! < counts[ways[i]!]!) {
        ways[i] = best;
        isSettled = false;
      }
    }
    if (isSettled) break;
  }
  return ways;
}

const piecesPerCurve = 8;

/** Points along the curve that `curvePath` draws. */
function sampleCurve(points: readonly Point[]): Point[] {
  const pick = (i: number) => points[Math.min(points.length - 1, Math.max(0, i))]!;
  const sampled: Point[] = [points[0]!];
  for (let i = 0; i + 1 < points.length; i++) {
    const [p0, p1, p2, p3] = [pick(i - 1), pick(i), pick(i + 1), pick(i + 2)];
    for (let piece = 1; piece <= piecesPerCurve; piece++) {
      const t = piece / piecesPerCurve;
      const mix = (axis: 0 | 1) => {
        const c1 = p1[axis] + (p2[axis] - p0[axis]) / 6;
        const c2 = p2[axis] - (p3[axis] - p1[axis]) / 6;
        const u = 1 - t;
        return u ** 3 * p1[axis] + 3 * u * u * t * c1 + 3 * u * t * t * c2 + t ** 3 * p2[axis];
      };
      sampled.push([mix(0), mix(1)]);
    }
  }
  return sampled;
}

interface Line {
  readonly points: readonly Point[];
  /** From the least to the greatest, along each axis. */
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
}

function spanLine(points: readonly Point[]): Line {
  const span = (axis: 0 | 1) => {
    const values = points.map((point) => point[axis]);
    return [Math.min(...values), Math.max(...values)] as const;
  };
  return { points, x: span(0), y: span(1) };
}

/** How often two lines cross, but for a stop at which both begin or end. */
function countMeets({ points: a, ...one }: Line, { points: b, ...other }: Line): number {
  if (isApart(...one.x, ...other.x) || isApart(...one.y, ...other.y)) return 0;
  const ends = [a[0]!, a.at(-1)!, b[0]!, b.at(-1)!];
  let count = 0;
  for (let i = 0; i + 1 < a.length; i++)
    for (let j = 0; j + 1 < b.length; j++) {
      if (isApart(a[i]![0], a[i + 1]![0], b[j]![0], b[j + 1]![0])) continue;
      if (isApart(a[i]![1], a[i + 1]![1], b[j]![1], b[j + 1]![1])) continue;
      const at = findMeeting(a[i]!, a[i + 1]!, b[j]!, b[j + 1]!);
      if (at !== null && !ends.some(([x, y]) => Math.hypot(x - at[0], y - at[1]) < 0.02)) count++;
    }
  return count;
}

/** Whether two stretches of one axis have nothing in common. */
const isApart = (a0: number, a1: number, b0: number, b1: number) =>
  Math.max(a0, a1) < Math.min(b0, b1) || Math.max(b0, b1) < Math.min(a0, a1);

/** Where two straight pieces cross; null where they do not. */
function findMeeting(a: Point, b: Point, c: Point, d: Point): Point | null {
  const [rx, ry] = [b[0] - a[0], b[1] - a[1]];
  const [sx, sy] = [d[0] - c[0], d[1] - c[1]];
  const cross = rx * sy - ry * sx;
  if (Math.abs(cross) < 1e-12) return null;
  const [qx, qy] = [c[0] - a[0], c[1] - a[1]];
  const t = (qx * sy - qy * sx) / cross;
  const u = (qx * ry - qy * rx) / cross;
  return t <= 0 || t >= 1 || u <= 0 || u >= 1 ? null : [a[0] + t * rx, a[1] + t * ry];
}
