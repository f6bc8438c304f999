import { SaxesParser } from "saxes";
import { fail, type Result, succeed } from "../result.ts";
import { courseDeg, distanceNm, type Position } from "./chart.ts";

/** One leg of a route, out: how far it is and which way, as far as that is known. */
export interface RouteLeg {
  readonly to: string;
  readonly nm: number;
  /** Degrees from true north. */
  readonly courseDeg?: number | undefined;
}
export interface ReadRoute {
  readonly name: string;
  readonly from: Position;
  readonly legs: readonly RouteLeg[];
  /** Points that were read. */
  readonly points: number;
}
export type GpxFault =
  | { readonly code: "not-gpx" }
  | { readonly code: "no-points" }
  | { readonly code: "bad-position"; readonly line: number }
  | { readonly code: "too-many-points"; readonly most: number };

interface Point extends Position {
  readonly name: string;
}

const mostPoints = 1_000_000;
/** A route of more turns than this is drawn with this many legs; their lengths are those of the whole track. */
const mostLegs = 20;

/**
 * A route out of a GPX file (GPX 1.0 and 1.1): its first route, else its first track, else its waypoints in order. Lengths are
 * great circles in sea miles, a track's measured along every one of its points; a long one is told in at most 20 legs, broken where
 * it turns most.
 */
export function readGpx(text: string): Result<ReadRoute, GpxFault> {
  const kinds = { rtept: [] as Point[], trkpt: [] as Point[], wpt: [] as Point[] };
  let fault: GpxFault | null = null;
  let isGpx = false;
  let name = "";
  let at: { kind: keyof typeof kinds; lat: number; lon: number; name: string } | null = null;
  let isName = false;
  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", ({ name: tag, attributes }) => {
    if (tag === "gpx") isGpx = true;
    isName = tag === "name";
    if (tag !== "rtept" && tag !== "trkpt" && tag !== "wpt") return;
    const [lat, lon] = [Number(attributes.lat), Number(attributes.lon)];
    if (!(Math.abs(lat) <= 90 && Math.abs(lon) <= 180) || attributes.lat === "" || attributes.lon === "")
      fault ??= { code: "bad-position", line: parser.line };
    at = { kind: tag, lat, lon, name: "" };
  });
  parser.on("text", (said) => {
    if (!isName) return;
    if (at !== null) at = { ...at, name: at.name + said };
    else name += name === "" ? said : "";
  });
  parser.on("closetag", ({ name: tag }) => {
    isName = false;
    if (at === null || tag !== at.kind) return;
    kinds[at.kind].push({ lat: at.lat, lon: at.lon, name: at.name.trim() });
    at = null;
    if (kinds.trkpt.length + kinds.rtept.length + kinds.wpt.length > mostPoints)
      fault ??= { code: "too-many-points", most: mostPoints };
  });
  try {
    parser.write(text).close();
  } catch {
    return fail({ code: "not-gpx" });
  }
  if (!isGpx) return fail({ code: "not-gpx" });
  if (fault !== null) return fail(fault);
  const points = [kinds.rtept, kinds.trkpt, kinds.wpt].find(({ length }) => length > 1);
  if (points === undefined) return fail({ code: "no-points" });
  return succeed({
    name: name.trim().slice(0, 80),
    from: bare(points[0]!),
    legs: toLegs(points),
    points: points.length,
  });
}

const bare = ({ lat, lon }: Position): Position => ({ lat, lon });

/** Legs between the points that are kept, each as long as the way along all points between. */
function toLegs(points: readonly Point[]): RouteLeg[] {
  const along = new Float64Array(points.length);
  for (let i = 1; i < points.length; i++) along[i] = along[i - 1]! + distanceNm(points[i - 1]!, points[i]!);
  const kept = keepTurns(points);
  return kept.slice(1).flatMap((end, i) => {
    const begin = kept[i]!;
    const nm = along[end]! - along[begin]!;
    if (nm === 0) return [];
    const to = points[end]!.name || (end === points.length - 1 ? "the end" : `turn ${i + 1}`);
    return [{ to: to.slice(0, 60), nm, courseDeg: courseDeg(points[begin]!, points[end]!) }];
  });
}

/**
 * The points at which a line turns most (Douglas and Peucker, 1973, the worst span split first until there are enough), by their
 * number, first and last among them.
 */
function keepTurns(points: readonly Position[]): number[] {
  if (points.length <= mostLegs + 1) return points.map((_, i) => i);
  const kept = [0, points.length - 1];
  const spans = [farthest(points, 0, points.length - 1)];
  while (kept.length < mostLegs + 1) {
    spans.sort((a, b) => b.off - a.off);
    const worst = spans.shift();
    if (worst === undefined || worst.off === 0) break;
    kept.push(worst.at);
    spans.push(farthest(points, worst.from, worst.at), farthest(points, worst.at, worst.to));
  }
  return kept.sort((a, b) => a - b);
}

/** The point farthest from the straight line between two, on a chart that is flat around them. */
function farthest(points: readonly Position[], from: number, to: number) {
  const [a, b] = [points[from]!, points[to]!];
  const scale = Math.cos(((a.lat + b.lat) / 2) * (Math.PI / 180));
  const [bx, by] = [(b.lon - a.lon) * scale, b.lat - a.lat];
  const length = Math.hypot(bx, by);
  let [at, off] = [from, 0];
  for (let i = from + 1; i < to; i++) {
    const [px, py] = [(points[i]!.lon - a.lon) * scale, points[i]!.lat - a.lat];
    const away = length === 0 ? Math.hypot(px, py) : Math.abs(px * by - py * bx) / length;
    if (away > off) [at, off] = [i, away];
  }
  return { from, to, at, off };
}
