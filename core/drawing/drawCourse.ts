import { createMoveMap, type Rig } from "../rig/index.ts";
import { curvePath, type Point } from "./shape.ts";

/** The course line of a walk: a path for each move from one stop to the next, round the hull and up the boarding place. */
export function drawCourse(rig: Rig, stops: readonly { readonly station: string }[]): string[] {
  const map = createMoveMap(rig);
  const index = new Map(rig.stations.map(({ id }, i) => [id, i]));
  return stops.slice(1).map(({ station }, i) => {
    const way = map.course(index.get(stops[i]!.station)!, index.get(station)!);
    return curvePath(bend(way.map(({ xM, yM }): Point => [xM, yM])));
  });
}

/** A straight leg is bowed a little to starboard, so that the way there and the way back are two lines. */
function bend(points: readonly Point[]): readonly Point[] {
  if (points.length !== 2) return points;
  const [[x0, y0], [x1, y1]] = points as [Point, Point];
  const length = Math.hypot(x1 - x0, y1 - y0) || 1;
  const off = Math.min(0.28, length * 0.1);
  return [
    [x0, y0],
    [(x0 + x1) / 2 + ((y1 - y0) / length) * off, (y0 + y1) / 2 - ((x1 - x0) / length) * off],
    [x1, y1],
  ];
}
