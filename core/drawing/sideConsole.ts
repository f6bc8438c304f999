import type { Hull } from "./hull.ts";
import { createPen } from "./pen.ts";
import type { Shape } from "./shape.ts";

/** The aluminium side console: casting decks at both ends, console to starboard, pedestal seats, rod lockers. Metres. */
export function drawSideConsole(hull: Hull): Shape[] {
  const pen = createPen(hull);
  pen.shell(0.22, 0.68, 0.17);
  const wide = (u: number, inset = 0.2) => pen.side(u, inset);
  // Ribs of the pressed side, the casting deck with its lids, the aft deck with live well and battery lid.
  for (const u of [0.26, 0.34, 0.42, 0.5, 0.58])
    pen.bothSides((sign) =>
      pen.line("hair", [
        [u, sign * pen.side(u, 0.02)],
        [u, sign * pen.side(u, 0.16)],
      ]),
    );
  pen.line(
    "locker",
    [
      [0.68, -wide(0.68)],
      [0.68, wide(0.68)],
      [0.8, wide(0.8)],
      [0.9, wide(0.9)],
      [0.95, wide(0.95) * 0.8],
      [0.95, -wide(0.95) * 0.8],
      [0.9, -wide(0.9)],
      [0.8, -wide(0.8)],
    ],
    true,
  );
  pen.box("hatch", 0.71, -0.5, 0.79, -0.04, 0.04);
  pen.box("hatch", 0.71, 0.04, 0.79, 0.5, 0.04);
  pen.box("hatch", 0.82, -0.26, 0.88, 0.26, 0.04);
  pen.dot("fitting", 0.805, 0, 0.09);
  pen.box("locker", 0.03, -wide(0.1), 0.21, wide(0.1), 0.04);
  pen.box("hatch", 0.06, -wide(0.1) + 0.08, 0.18, -wide(0.1) + 0.62, 0.08);
  pen.dot("hair", 0.12, -wide(0.1) + 0.35, 0.05);
  pen.box("hatch", 0.06, wide(0.1) - 0.62, 0.18, wide(0.1) - 0.08, 0.04);
  pen.box("hatch", 0.06, -0.2, 0.18, 0.2, 0.04);
  // Rod locker along the port side, its three tubes.
  pen.box("locker", 0.3, -wide(0.4, 0.2), 0.66, -wide(0.4, 0.2) + 0.3, 0.04);
  for (const y of [0.08, 0.15, 0.22])
    pen.line("hair", [
      [0.32, -wide(0.4, 0.2) + y],
      [0.64, -wide(0.4, 0.2) + y],
    ]);
  // Console and its screen.
  pen.box("console", 0.47, wide(0.5) - 0.78, 0.6, wide(0.5) - 0.02, 0.09);
  pen.line(
    "glass",
    [
      [0.57, wide(0.5) - 0.76],
      [0.605, wide(0.5) - 0.66],
      [0.605, wide(0.5) - 0.12],
      [0.57, wide(0.5) - 0.04],
    ],
    true,
  );
  pen.helm(0.468, wide(0.5) - 0.42);
  pen.seat(0.345, wide(0.4) - 0.42);
  pen.seat(0.345, -0.28);
  pen.seat(0.075, 0.0, 0.4, 0.38);
  pen.cleats([0.05, 0.66], 0.08);
  return pen.shapes;
}
