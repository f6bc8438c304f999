import type { Hull } from "./hull.ts";
import { createPen } from "./pen.ts";
import { curvePath, type Point, type Shape } from "./shape.ts";

/** The pontoon: two or three tubes under a fenced deck, lounges at both ends, gates fore, port and aft. Metres. */
export function drawPontoon(hull: Hull, tubes: 2 | 3): Shape[] {
  const pen = createPen(hull);
  const { loaM, beamM } = hull;
  const half = beamM / 2;
  const tubeM = 0.32;
  const places = tubes === 3 ? [-half + tubeM, 0, half - tubeM] : [-half + tubeM, half - tubeM];
  for (const y of places) {
    const ring: Point[] = [
      [-0.02, y - tubeM * 0.8],
      [loaM * 0.3, y - tubeM],
      [loaM * 0.84, y - tubeM],
      [loaM * 0.95, y - tubeM * 0.66],
      [loaM * 0.995, y],
      [loaM * 0.95, y + tubeM * 0.66],
      [loaM * 0.84, y + tubeM],
      [loaM * 0.3, y + tubeM],
      [-0.02, y + tubeM * 0.8],
    ];
    pen.add("hull", curvePath(ring, true));
    pen.line("hair", [
      [0.86, y],
      [0.985, y],
    ]);
  }
  const rail = half - 0.09;
  pen.box("hull", 0.015, -half, 0.945, half, 0.12);
  pen.box("sole", 0.1, -rail, 0.925, rail, 0.1);
  // The fence, open at three gates, each with its leaf drawn standing open a hand's width.
  const gate = 0.36;
  pen.line("rail", [
    [0.925, gate],
    [0.925, rail],
    [0.1, rail],
    [0.1, gate],
  ]);
  pen.line("rail", [
    [0.1, -gate],
    [0.1, -rail],
    [0.5, -rail],
  ]);
  pen.line("rail", [
    [0.61, -rail],
    [0.925, -rail],
    [0.925, -gate],
  ]);
  pen.line("hair", [
    [0.925, gate],
    [0.955, gate * 0.2],
  ]);
  pen.line("hair", [
    [0.5, -rail],
    [0.55, -rail - 0.06],
  ]);
  pen.line("hair", [
    [0.1, -gate],
    [0.07, -gate * 0.2],
  ]);
  // Swim deck.
  pen.planks(0.025, 0.09, -half + 0.12, half - 0.12, 0.16);
  // Bow lounges, port one with its changing stall behind; the aft sun pad and its backrest.
  pen.bothSides((sign) => {
    pen.box("cushion", 0.64, sign * (rail - 0.04), 0.905, sign * (rail - 0.62), 0.1);
    pen.box("console", 0.64, sign * (rail - 0.04), 0.905, sign * (rail - 0.17), 0.05);
    pen.line("hair", [
      [0.77, sign * (rail - 0.17)],
      [0.77, sign * (rail - 0.62)],
    ]);
  });
  pen.box("cushion", 0.125, -rail + 0.55, 0.275, rail - 0.05, 0.1);
  pen.box("console", 0.275, -rail + 0.55, 0.3, rail - 0.05, 0.05);
  for (const y of [-rail + 1.05, -rail + 1.55])
    pen.line("hair", [
      [0.13, y],
      [0.27, y],
    ]);
  pen.box("cushion", 0.32, -rail + 0.04, 0.46, -rail + 0.6, 0.1);
  pen.box("console", 0.32, -rail + 0.04, 0.46, -rail + 0.16, 0.05);
  // Helm to starboard, captain's chair, the table's socket.
  pen.box("console", 0.47, rail - 0.92, 0.58, rail - 0.05, 0.12);
  pen.line(
    "glass",
    [
      [0.57, rail - 0.88],
      [0.588, rail - 0.82],
      [0.588, rail - 0.12],
      [0.57, rail - 0.06],
    ],
    true,
  );
  pen.helm(0.468, rail - 0.52);
  pen.seat(0.365, rail - 0.5, 0.58, 0.52);
  pen.dot("fitting", 0.4, -rail + 1.0, 0.28);
  pen.dot("hair", 0.4, -rail + 1.0, 0.05);
  for (const u of [0.14, 0.88])
    pen.bothSides((sign) => pen.box("fitting", u - 0.015, sign * (half - 0.02), u + 0.015, sign * (half - 0.07), 0.02));
  return pen.shapes;
}
