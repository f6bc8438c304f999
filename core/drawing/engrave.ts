import { type Hull, halfBeamM, hullRing } from "./hull.ts";
import {
  boxPath,
  circlePath,
  curvePath,
  linePath,
  type Point,
  readPoints,
  type Shape,
  type ShapeRole,
} from "./shape.ts";

/** Metres between the joints of a floor, and how far the joint of a lid or the piping of a cushion lies inside its edge. */
const plankM = 0.13;
const jointM = 0.035;
/** A lid smaller than this is drawn as it is. */
const leastLidM = 0.3;
const hatchM = 0.06;
const stanchionM = 0.48;
/** A plank is so long; its butt lies a third of that farther than its neighbour's. */
const plankLengthM = 1.2;
/** How long the shade of what stands above the floor is drawn: nearly as long as it is high. */
const shadeM: Partial<Record<ShapeRole, number>> = { console: 0.1, cushion: 0.06, locker: 0.035 };
const strokeM = 0.03;

/**
 * What an engraver would add to a plan: planks with their butts, lids with hinges and ring, piping on cushions, stanchions,
 * and hatching for shade, away from a light that comes over the port bow: along the gunwale, and beside whatever stands above
 * the floor. Shapes stay in their order, each detail above what it belongs to, a shade below what throws it.
 */
export function engrave(hull: Hull, shapes: readonly Shape[]): Shape[] {
  const firstSole = shapes.findIndex(({ role }) => role === "sole");
  return shapes.flatMap((shape, i): Shape[] => {
    if (i === firstSole) return [shape, ...drawJoints(shape)];
    if (shape.role === "rail" && hull.family !== "pontoon") return [shape, ...drawSides(hull)];
    const shade = drawShade(shape, hull);
    if (shape.role === "locker") return [...shade, shape, ...drawLid(shape, hull)];
    if (shape.role === "cushion") return [...shade, shape, ...drawPiping(shape)];
    return [...shade, shape];
  });
}

/** Three lines on the water round a boat that lies afloat, the farther the fainter. */
export function drawWater(hull: Hull): Shape[] {
  return waterM.map((outM) => {
    const ring = hullRing(hull, 0, hull.loaM + outM, -outM);
    const [starboard, port] = [ring.slice(0, ring.length / 2), ring.slice(ring.length / 2)];
    // Round before the stem, and open behind the transom.
    return { role: "water", d: curvePath([...starboard, [hull.loaM + outM * stemShare, 0], ...port]) };
  });
}
export const waterM = [0.1, 0.22, 0.38] as const;
/** A line on the water lies so much farther from the stem than from the side. */
const stemShare = 1.4;

/** Many strokes of one kind as one shape: a page draws it as quickly as a single line. */
const join = (role: Shape["role"], paths: readonly string[]): Shape[] =>
  paths.length === 0 ? [] : [{ role, d: paths.join("") }];

interface Box {
  readonly aft: number;
  readonly forward: number;
  readonly port: number;
  readonly starboard: number;
}

/** The rectangle a path is; null of any other form. */
function readBox({ d }: Shape): Box | null {
  if ((d.match(/A/g)?.length ?? 0) !== 4) return null;
  const points = readPoints(d);
  const along = points.map(([forward]) => forward);
  const across = points.map(([, side]) => side);
  return {
    aft: Math.min(...along),
    forward: Math.max(...along),
    port: Math.min(...across),
    starboard: Math.max(...across),
  };
}

/** Joints from aft forward, each as far as the floor reaches there. */
function drawJoints({ d }: Shape): Shape[] {
  const ring = readPoints(d);
  const widest = Math.max(...ring.map(([, side]) => side));
  const joints: string[] = [];
  for (let side = -Math.floor(widest / plankM) * plankM; side < widest; side += plankM) {
    const crossed = ring.flatMap(([forward, from], i) => {
      const [next, to] = ring[(i + 1) % ring.length]!;
      if (from > side === to > side) return [];
      return [forward + ((side - from) / (to - from)) * (next - forward)];
    });
    const [aft, forward] = [Math.min(...crossed), Math.max(...crossed)];
    if (crossed.length < 2 || forward - aft <= plankM) continue;
    joints.push(
      linePath([
        [aft, side],
        [forward, side],
      ]),
    );
    const row = Math.round(side / plankM);
    const shift = ((((row % 3) + 3) % 3) / 3) * plankLengthM;
    for (let butt = aft + plankM + shift; butt < forward - plankM; butt += plankLengthM)
      if (isInRing(ring, [butt, side + plankM]))
        joints.push(
          linePath([
            [butt, side],
            [butt, side + plankM],
          ]),
        );
  }
  return join("grain", joints);
}

/** Whether a place lies within a closed ring of points. */
function isInRing(ring: readonly Point[], [forward, side]: Point): boolean {
  return ring.reduce((isIn, [x, y], i) => {
    const [nextX, nextY] = ring[(i + 1) % ring.length]!;
    const crosses = y > side !== nextY > side && forward < x + ((side - y) / (nextY - y)) * (nextX - x);
    return crosses ? !isIn : isIn;
  }, false);
}

/** Strokes from the edges that the light does not reach, aft and to starboard, as far as the boat goes there. */
function drawShade(shape: Shape, hull: Hull): Shape[] {
  const length = shadeM[shape.role];
  const ring = readPoints(shape.d);
  if (length === undefined || !shape.d.endsWith("Z") || ring.length < 4) return [];
  const area = ring.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = ring[(i + 1) % ring.length]!;
    return sum + x * nextY - nextX * y;
  }, 0);
  const strokes: string[] = [];
  ring.forEach(([x, y], i) => {
    const [nextX, nextY] = ring[(i + 1) % ring.length]!;
    const [along, across] = [nextX - x, nextY - y];
    const edge = Math.hypot(along, across);
    // The outward normal, times where the shade falls: aft and to starboard.
    const away = ((across * -1 + along * -1) / edge) * Math.sign(area);
    if (edge < strokeM || away < 0.3) return;
    for (let at = strokeM / 2; at < edge; at += strokeM) {
      const from: Point = [x + (along * at) / edge, y + (across * at) / edge];
      const to: Point = [from[0] - length * 0.7, from[1] + length * 0.7];
      if (Math.abs(to[1]) < halfBeamM(hull, to[0], 0.02)) strokes.push(linePath([from, to]));
    }
  });
  return join("shade", strokes);
}

/** A lid's joint, its two hinges and its ring: hinged outboard where it lies at a side, else at its forward edge. */
function drawLid(shape: Shape, { beamM }: Hull): Shape[] {
  const box = readBox(shape);
  if (box === null) return [];
  const { aft, forward, port, starboard } = box;
  if (forward - aft < leastLidM || starboard - port < leastLidM) return [];
  const joint = boxPath(aft + jointM, port + jointM, forward - jointM, starboard - jointM, jointM / 2);
  const middle = (port + starboard) / 2;
  const isAside = Math.abs(middle) > beamM / 4;
  const outboard = middle > 0 ? starboard : port;
  const inboard = middle > 0 ? port + 2 * jointM : starboard - 2 * jointM;
  const hinges = [0.24, 0.76].map((share) => {
    const [along, across] = [aft + (forward - aft) * share, port + (starboard - port) * share];
    return isAside
      ? boxPath(along - 0.06, outboard - 0.018, along + 0.06, outboard + 0.018, 0.01)
      : boxPath(forward - 0.018, across - 0.06, forward + 0.018, across + 0.06, 0.01);
  });
  const ring = isAside ? circlePath((aft + forward) / 2, inboard, 0.024) : circlePath(aft + 2 * jointM, middle, 0.024);
  return [{ role: "grain", d: joint }, ...join("fitting", hinges), { role: "hair", d: ring }];
}

function drawPiping(shape: Shape): Shape[] {
  const box = readBox(shape);
  if (box === null) return [];
  const { aft, forward, port, starboard } = box;
  if (Math.min(forward - aft, starboard - port) < 4 * jointM) return [];
  return [{ role: "grain", d: boxPath(aft + jointM, port + jointM, forward - jointM, starboard - jointM, 2 * jointM) }];
}

/** Stanchions of the bow rail on both sides; on the starboard side the shade of the gunwale. */
function drawSides(hull: Hull): Shape[] {
  const { loaM } = hull;
  const shade: string[] = [];
  for (let forward = 0.12; forward < loaM * 0.96; forward += hatchM) {
    const outer = halfBeamM(hull, forward, 0.012);
    const inner = halfBeamM(hull, forward + hatchM / 2, 0.056);
    if (outer > 0 && inner > 0)
      shade.push(
        linePath([
          [forward, outer],
          [forward + hatchM / 2, inner],
        ]),
      );
  }
  const stanchions: string[] = [];
  for (let forward = loaM * 0.56; forward < loaM * 0.95; forward += stanchionM)
    for (const sign of [-1, 1]) {
      const side = halfBeamM(hull, forward, 0.065);
      if (side > 0.05) stanchions.push(circlePath(forward, sign * side, 0.02));
    }
  return [...join("shade", shade), ...join("fitting", stanchions)];
}
