import { drawWindshield } from "./bowrider.ts";
import type { Hull } from "./hull.ts";
import { createPen } from "./pen.ts";
import type { Shape } from "./shape.ts";

/** The inboard tow-sport boat: blunt bow, wrap-around lounge, ballast under the corners, engine under the pad. Metres. */
export function drawTowSport(hull: Hull): Shape[] {
  const pen = createPen(hull);
  pen.shell(0.17, 0.94, 0.22);
  const wide = (u: number, inset = 0.25) => pen.side(u, inset);
  // Bow lounge and its middle step.
  pen.band("cushion", 0.66, 0.925, 0.26, 0.52);
  pen.box("locker", 0.88, -0.2, 0.93, 0.2, 0.04);
  pen.bothSides((sign) =>
    pen.line("hair", [
      [0.78, sign * wide(0.78)],
      [0.78, sign * (wide(0.78) - 0.5)],
    ]),
  );
  pen.box("console", 0.55, 0.26, 0.64, wide(0.58, 0.22), 0.08);
  pen.box("console", 0.55, -0.26, 0.64, -wide(0.58, 0.22), 0.08);
  pen.helm(0.547, (0.26 + wide(0.58, 0.22)) / 2);
  drawWindshield(pen, 0.665, 0.14, true);
  pen.seat(0.435, (0.3 + wide(0.46, 0.22)) / 2, 0.56, 0.5);
  // The lounge: down the port side, across the stern, a stub to starboard; the observer's seat faces aft.
  pen.band("cushion", 0.21, 0.53, 0.25, 0.55, [-1]);
  pen.band("cushion", 0.21, 0.36, 0.25, 0.55, [1]);
  pen.box("cushion", 0.185, -wide(0.2), 0.26, wide(0.2), 0.1);
  for (const u of [0.33, 0.43])
    pen.line("hair", [
      [u, -wide(u)],
      [u, -wide(u) + 0.55],
    ]);
  // Sun pad over the engine, its two lids, and the ballast in the corners (seen through the deck).
  pen.box("cushion", 0.02, -wide(0.09, 0.18), 0.165, wide(0.09, 0.18), 0.12);
  pen.line("hair", [
    [0.025, -0.36],
    [0.16, -0.36],
  ]);
  pen.line("hair", [
    [0.025, 0.36],
    [0.16, 0.36],
  ]);
  pen.bothSides((sign) => pen.box("overhead", 0.04, sign * 0.48, 0.15, sign * wide(0.1, 0.26), 0.1));
  pen.box("overhead", 0.69, -0.24, 0.82, 0.24, 0.1);
  // Shaft, strut and rudder under the hull.
  pen.line("hair", [
    [0.3, 0],
    [0.07, 0],
  ]);
  pen.cleats([0.08, 0.55, 0.9], 0.1);
  return pen.shapes;
}
