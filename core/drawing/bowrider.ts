import type { Hull } from "./hull.ts";
import { createPen, type Pen } from "./pen.ts";
import { curvePath, type Point, type Shape } from "./shape.ts";

/** The glass across a boat at `u`, swept aft at the sides; open in the middle where one walks through. */
export function drawWindshield(pen: Pen, u: number, insetM: number, isWalkThrough: boolean): void {
  const y = pen.side(u - 0.02, insetM);
  const pane = (from: number, to: number): Point[] => {
    const points: Point[] = [];
    for (let i = 0; i <= 6; i++) {
      const at = from + ((to - from) * i) / 6;
      points.push([pen.x(u) - pen.x(0.11) * Math.abs(at) ** 2.4, at * y]);
    }
    return [...points, ...points.toReversed().map(([x, side]): Point => [x - 0.1, side * 0.985])];
  };
  const gap = isWalkThrough ? 0.2 : 0;
  pen.add("glass", curvePath(pane(gap, 1), true), curvePath(pane(-gap, -1), true));
}

/** The bowrider: seats in the bow through the windshield, two consoles, bench and sun pad over the engine. Metres. */
export function drawBowrider(hull: Hull): Shape[] {
  const pen = createPen(hull);
  pen.shell(0.2, 0.93, 0.24);
  const wide = (u: number, inset = 0.28) => pen.side(u, inset);
  // Bow seats in a U, their seam, and the anchor lid at the stem.
  pen.band("cushion", 0.63, 0.9, 0.29, 0.5);
  pen.bothSides((sign) =>
    pen.line("hair", [
      [0.74, sign * wide(0.74)],
      [0.74, sign * (wide(0.74) - 0.48)],
    ]),
  );
  pen.line(
    "locker",
    [
      [0.945, -pen.side(0.945, 0.16)],
      [0.975, -pen.side(0.975, 0.12) * 0.7],
      [0.975, pen.side(0.975, 0.12) * 0.7],
      [0.945, pen.side(0.945, 0.16)],
    ],
    true,
  );
  // Consoles either side of the walk-through, the helm to starboard, then the glass over both.
  pen.box("console", 0.51, 0.28, 0.6, wide(0.55, 0.26), 0.08);
  pen.box("console", 0.51, -0.28, 0.6, -wide(0.55, 0.26), 0.08);
  pen.box("locker", 0.525, -0.36, 0.58, -wide(0.55, 0.42), 0.03);
  pen.helm(0.507, (0.28 + wide(0.55, 0.26)) / 2);
  drawWindshield(pen, 0.625, 0.16, true);
  pen.seat(0.395, (0.28 + wide(0.42, 0.26)) / 2);
  pen.seat(0.395, -(0.28 + wide(0.42, 0.26)) / 2);
  // Bench, sun pad over the engine hatch with its lifting seam, walk-through to starboard.
  pen.box("cushion", 0.235, -wide(0.25), 0.305, wide(0.25) - 0.46, 0.08);
  pen.box("console", 0.215, -wide(0.25), 0.238, wide(0.25) - 0.46, 0.05);
  pen.box("cushion", 0.035, -wide(0.1, 0.2), 0.205, wide(0.1, 0.2) - 0.5, 0.12);
  for (const share of [0.36, 0.64]) {
    const y = -wide(0.1, 0.2) + (2 * wide(0.1, 0.2) - 0.5) * share;
    pen.line("hair", [
      [0.045, y],
      [0.195, y],
    ]);
  }
  pen.planks(0.03, 0.2, wide(0.1, 0.2) - 0.4, wide(0.1, 0.2) - 0.04, 0.12);
  pen.box("locker", 0.32, -0.17, 0.48, 0.17, 0.04);
  pen.cleats([0.06, 0.47, 0.86]);
  return pen.shapes;
}
