import { type Hull, halfBeamM, hullRing } from "./hull.ts";
import { boxPath, circlePath, linePath, type Point, type Shape, type ShapeRole } from "./shape.ts";

/**
 * Draws parts of a boat where a person would name them: `u` is the share of the length from the transom (0) to the stem (1),
 * `y` metres to starboard. Shapes come out in the order they were drawn, the lowest first.
 */
export function createPen(hull: Hull) {
  const { loaM } = hull;
  const shapes: Shape[] = [];
  const x = (u: number) => u * loaM;
  const side = (u: number, insetM = 0) => halfBeamM(hull, x(u), insetM);
  const add = (role: ShapeRole, ...paths: string[]) => {
    for (const d of paths) shapes.push({ role, d });
  };
  const box = (role: ShapeRole, u0: number, y0: number, u1: number, y1: number, radiusM = 0.05) =>
    add(role, boxPath(x(u0), Math.min(y0, y1), x(u1), Math.max(y0, y1), radiusM));
  const line = (role: ShapeRole, points: readonly Point[], closed = false) =>
    add(
      role,
      linePath(
        points.map(([u, y]): Point => [x(u), y]),
        closed,
      ),
    );
  const dot = (role: ShapeRole, u: number, y: number, radiusM: number) => add(role, circlePath(x(u), y, radiusM));
  const bothSides = (draw: (sign: 1 | -1) => void) => {
    draw(-1);
    draw(1);
  };
  return {
    shapes,
    x,
    side,
    add,
    box,
    line,
    dot,
    bothSides,
    /** The outer line, the rail inside it, and the floor people stand on. */
    shell(soleAft: number, soleForward: number, soleInsetM: number) {
      add("hull", linePath(hullRing(hull, 0, loaM), true));
      add("rail", linePath(hullRing(hull, 0.04, loaM - 0.09, 0.065)));
      add("sole", linePath(hullRing(hull, x(soleAft), x(soleForward), soleInsetM), true));
    },
    /** A band that follows the side, `depthM` wide: a bench, a coaming pad. One for each given side. */
    band(
      role: ShapeRole,
      u0: number,
      u1: number,
      insetM: number,
      depthM: number,
      signs: readonly (1 | -1)[] = [-1, 1],
    ) {
      for (const sign of signs) {
        const outer: Point[] = [];
        const inner: Point[] = [];
        for (let i = 0; i <= 12; i++) {
          const u = u0 + ((u1 - u0) * i) / 12;
          const y = side(u, insetM);
          outer.push([u, sign * y]);
          inner.push([u, sign * Math.max(0.08, y - depthM)]);
        }
        line(role, [...outer, ...inner.reverse()], true);
      }
    },
    /** Lines across, as of planks or a textured step. */
    planks(u0: number, u1: number, y0: number, y1: number, everyM = 0.11) {
      const count = Math.max(1, Math.floor((y1 - y0) / everyM));
      for (let i = 0; i <= count; i++) {
        const y = y0 + ((y1 - y0) * i) / count;
        line("hair", [
          [u0, y],
          [u1, y],
        ]);
      }
    },
    /** A seat for one with its back, facing forward. */
    seat(u: number, y: number, widthM = 0.48, depthM = 0.46) {
      const w = widthM / 2;
      add("cushion", boxPath(x(u), y - w, x(u) + depthM, y + w, 0.11));
      add("console", boxPath(x(u) - 0.1, y - w + 0.02, x(u) + 0.02, y + w - 0.02, 0.05));
    },
    /** Wheel, throttle and screen of a helm whose dash edge is at `u`. */
    helm(u: number, y: number) {
      add("hair", ...wheelPaths(x(u - 0.004), y));
      add("fitting", boxPath(x(u) + 0.12, y - 0.15, x(u) + 0.27, y + 0.17, 0.02));
      add("fitting", boxPath(x(u) - 0.06, y + 0.26, x(u) + 0.08, y + 0.31, 0.02));
    },
    cleats(shares: readonly number[], insetM = 0.13) {
      for (const u of shares)
        bothSides((sign) => {
          const y = sign * side(u, insetM);
          add("fitting", ...cleatPaths(x(u), y));
        });
    },
  };
}

/** A wheel with its hub and three spokes: one aft, two forward to the sides. */
export function wheelPaths(forward: number, side: number): string[] {
  const spokes = [Math.PI, Math.PI / 3, -Math.PI / 3].map((turn) => {
    const [along, across] = [Math.cos(turn), Math.sin(turn)];
    return linePath([
      [forward + along * 0.045, side + across * 0.045],
      [forward + along * 0.17, side + across * 0.17],
    ]);
  });
  return [
    circlePath(forward, side, 0.17),
    circlePath(forward, side, 0.15),
    circlePath(forward, side, 0.045),
    spokes.join(""),
  ];
}

/** A cleat: two horns over the foot that is screwed down. */
export const cleatPaths = (forward: number, side: number): string[] => [
  boxPath(forward - 0.05, side - 0.036, forward + 0.05, side + 0.036, 0.03),
  boxPath(forward - 0.12, side - 0.016, forward + 0.12, side + 0.016, 0.016),
];

export type Pen = ReturnType<typeof createPen>;
