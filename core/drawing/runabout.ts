import { drawWindshield } from "./bowrider.ts";
import type { Hull } from "./hull.ts";
import { createPen } from "./pen.ts";
import type { Point, Shape } from "./shape.ts";

/** The small runabout: closed foredeck, windshield, back-to-back seats, a portable tank at the transom. Metres. */
export function drawRunabout(hull: Hull): Shape[] {
  const pen = createPen(hull);
  pen.shell(0.06, 0.62, 0.17);
  const wide = (u: number, inset = 0.2) => pen.side(u, inset);
  // Foredeck with its crown line and two seams, the tow eye at the stem.
  for (const share of [-0.45, 0, 0.45]) {
    const seam: Point[] = [];
    for (let i = 0; i <= 10; i++) {
      const u = 0.66 + (0.29 * i) / 10;
      seam.push([u, share * pen.side(u, 0.12)]);
    }
    pen.line("hair", seam);
  }
  pen.dot("fitting", 0.96, 0, 0.035);
  pen.box("console", 0.545, 0.06, 0.62, wide(0.58, 0.18), 0.06);
  pen.box("console", 0.545, -0.06, 0.62, -wide(0.58, 0.18), 0.06);
  pen.helm(0.542, (0.06 + wide(0.58, 0.18)) / 2);
  drawWindshield(pen, 0.655, 0.12, false);
  // Back-to-back seats either side of the way through.
  pen.bothSides((sign) => {
    const y = sign * (0.12 + wide(0.42)) * 0.5;
    const half = (wide(0.42) - 0.14) / 2;
    pen.box("cushion", 0.41, y - half, 0.5, y + half, 0.07);
    pen.box("console", 0.39, y - half, 0.41, y + half, 0.03);
    pen.box("cushion", 0.3, y - half, 0.39, y + half, 0.07);
  });
  // Jump seats in the corners, the well between them for the tank.
  pen.bothSides((sign) => pen.box("cushion", 0.08, sign * (wide(0.1) - 0.02), 0.19, sign * (wide(0.1) - 0.44), 0.06));
  pen.box("hatch", 0.01, -0.42, 0.06, 0.42, 0.04);
  pen.cleats([0.05, 0.9], 0.09);
  return pen.shapes;
}
