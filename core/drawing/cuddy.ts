import { drawWindshield } from "./bowrider.ts";
import type { Hull } from "./hull.ts";
import { createPen } from "./pen.ts";
import { circlePath, linePath, type Point, type Shape } from "./shape.ts";

/** The cuddy cruiser: a cabin with berth, head and galley forward of the helm, side decks, bench aft. Metres. */
export function drawCuddy(hull: Hull): Shape[] {
  const pen = createPen(hull);
  pen.shell(0.1, 0.47, 0.24);
  const wide = (u: number, inset = 0.28) => pen.side(u, inset);
  // The cabin top with its windows; below it, seen through, the berth in the bow, head to port, galley to starboard.
  const top: Point[] = [];
  for (let i = 0; i <= 16; i++) {
    const u = 0.5 + (0.4 * i) / 16;
    top.push([pen.x(u), pen.side(u, 0.27) * (1 - 0.12 * (i / 16) ** 2)]);
  }
  pen.add("console", linePath([...top, ...top.toReversed().map(([x, y]): Point => [x, -y])], true));
  pen.bothSides((sign) =>
    pen.line(
      "glass",
      [
        [0.53, sign * (wide(0.53) - 0.03)],
        [0.7, sign * (wide(0.7) - 0.05)],
        [0.69, sign * (wide(0.69) - 0.15)],
        [0.53, sign * (wide(0.53) - 0.16)],
      ],
      true,
    ),
  );
  pen.band("overhead", 0.7, 0.87, 0.36, 0.46);
  pen.box("overhead", 0.54, -wide(0.56, 0.44), 0.66, -0.2, 0.06);
  pen.box("overhead", 0.54, wide(0.56, 0.44), 0.66, 0.24, 0.06);
  pen.add("hatch", circlePath(pen.x(0.79), 0, 0.24));
  pen.add("glass", circlePath(pen.x(0.79), 0, 0.17));
  // Foredeck: anchor lid, rails on the side decks.
  pen.box("locker", 0.915, -0.14, 0.955, 0.14, 0.03);
  pen.bothSides((sign) => {
    const rail: Point[] = [];
    for (let i = 0; i <= 14; i++) {
      const u = 0.5 + (0.46 * i) / 14;
      rail.push([u, sign * pen.side(u, 0.1)]);
    }
    pen.line("hair", rail);
  });
  // Cabin door, helm to starboard, companion seat to port, then the glass.
  pen.box("console", 0.44, 0.24, 0.5, wide(0.47, 0.22), 0.06);
  pen.box("console", 0.44, -0.24, 0.5, -wide(0.47, 0.22), 0.06);
  pen.line("hair", [
    [0.5, -0.22],
    [0.5, 0.22],
  ]);
  pen.helm(0.437, (0.24 + wide(0.47, 0.22)) / 2);
  drawWindshield(pen, 0.53, 0.16, false);
  pen.seat(0.33, (0.24 + wide(0.36, 0.24)) / 2, 0.56, 0.5);
  pen.seat(0.33, -(0.24 + wide(0.36, 0.24)) / 2, 0.56, 0.5);
  // Bench across the stern, engine hatch in the cockpit floor, door in the transom.
  pen.box("cushion", 0.12, -wide(0.14, 0.26), 0.195, wide(0.14, 0.26) - 0.58, 0.09);
  pen.box("console", 0.1, -wide(0.14, 0.26), 0.122, wide(0.14, 0.26) - 0.58, 0.05);
  pen.box("hatch", 0.21, -0.42, 0.315, 0.42, 0.04);
  pen.line("hair", [
    [0.225, 0],
    [0.3, 0],
  ]);
  pen.box("locker", 0.025, -wide(0.05, 0.16), 0.09, wide(0.05, 0.16) - 0.6, 0.06);
  pen.line("hair", [
    [0.05, wide(0.05, 0.16) - 0.56],
    [0.05, wide(0.05, 0.16)],
  ]);
  pen.cleats([0.05, 0.48, 0.9], 0.1);
  return pen.shapes;
}
