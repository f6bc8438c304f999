import type { Rig } from "../rig/index.ts";
import { type Hull, halfBeamM } from "./hull.ts";
import { boxPath, circlePath, curvePath, linePath, type Point, type Shape } from "./shape.ts";

type FittingBoat = Hull & Pick<Rig, "parts">;

/** What is drawn only where the rig has it: platform, tank, bow motor, windlass, and what is overhead. Metres. */
export function drawFittings(boat: FittingBoat): Shape[] {
  const shapes: Shape[] = [];
  for (const part of boat.parts) {
    const draw = drawers[part.kind];
    if (draw !== undefined) shapes.push(...draw(boat, [part.at.xM, part.at.yM]));
  }
  return shapes;
}

/** How far a swim platform reaches behind the transom; 0 without one. */
export function platformM(boat: Pick<Rig, "parts">): number {
  return boat.parts.some(({ kind }) => kind === "swim-platform") ? 0.62 : 0;
}

type Drawer = (boat: FittingBoat, at: Point) => Shape[];

const drawers: Partial<Record<Rig["parts"][number]["kind"], Drawer>> = {
  "swim-platform": (boat) => {
    const half = halfBeamM(boat, 0) * 0.9;
    const shapes: Shape[] = [{ role: "sole", d: boxPath(-platformM(boat), -half, 0.02, half, 0.16) }];
    for (let y = -half + 0.14; y <= half - 0.12; y += 0.14)
      shapes.push({
        role: "hair",
        d: linePath([
          [-platformM(boat) + 0.08, y],
          [-0.04, y],
        ]),
      });
    return shapes;
  },
  ladder: (_, [x, y]) => [
    { role: "fitting", d: boxPath(x - 0.3, y - 0.17, x, y + 0.17, 0.04) },
    {
      role: "hair",
      d: linePath([
        [x - 0.15, y - 0.17],
        [x - 0.15, y + 0.17],
      ]),
    },
  ],
  "portable-tank": (_, [x, y]) => [
    { role: "fitting", d: boxPath(x - 0.16, y - 0.24, x + 0.16, y + 0.24, 0.06) },
    { role: "hair", d: circlePath(x, y - 0.12, 0.05) },
  ],
  windlass: (_, [x, y]) => [
    { role: "fitting", d: boxPath(x - 0.09, y - 0.1, x + 0.13, y + 0.1, 0.05) },
    { role: "fitting", d: circlePath(x, y + 0.12, 0.07) },
  ],
  "bow-motor": (_, [x, y]) => [
    // Stowed flat: shaft along the deck, head aft, propeller forward over the bow.
    {
      role: "fitting",
      d: boxPath(x - 0.75, y - 0.035, x + 0.45, y + 0.035, 0.03),
    },
    { role: "engine", d: boxPath(x - 0.98, y - 0.09, x - 0.72, y + 0.09, 0.07) },
    { role: "engine", d: boxPath(x + 0.42, y - 0.06, x + 0.7, y + 0.06, 0.05) },
    {
      role: "hair",
      d: linePath([
        [x + 0.72, y - 0.17],
        [x + 0.72, y + 0.17],
      ]),
    },
  ],
  "hard-top": (boat, [x]) => {
    const half = Math.min(0.93, boat.beamM * 0.37);
    const length = boat.loaM * 0.32;
    return [
      { role: "overhead", d: boxPath(x - length / 2, -half, x + length / 2, half, 0.18) },
      ...[-1, 1].flatMap((sign): Shape[] => [
        { role: "fitting", d: circlePath(x - length * 0.37, sign * (half - 0.2), 0.03) },
        { role: "fitting", d: circlePath(x + length * 0.34, sign * (half - 0.25), 0.03) },
      ]),
    ];
  },
  bimini: (boat, [x]) => {
    const half = boat.beamM / 2 - 0.16;
    const length = Math.min(2.3, boat.loaM * 0.36);
    const bow = (at: number): Shape => ({
      role: "hair",
      d: curvePath([
        [at - 0.05, -half],
        [at, -half * 0.5],
        [at, half * 0.5],
        [at - 0.05, half],
      ]),
    });
    return [
      { role: "overhead", d: boxPath(x - length / 2, -half, x + length / 2, half, 0.1) },
      bow(x - length * 0.22),
      bow(x + length * 0.16),
    ];
  },
  tower: (boat, [x]) => {
    const half = halfBeamM(boat, x, 0.08);
    const arch = (at: number, sweep: number): Shape => ({
      role: "overhead",
      d: curvePath(
        [
          [at, -half],
          [at + sweep, -half * 0.72],
          [at + sweep * 1.2, 0],
          [at + sweep, half * 0.72],
          [at, half],
          [at - 0.09, half],
          [at + sweep - 0.09, half * 0.7],
          [at + sweep * 1.2 - 0.09, 0],
          [at + sweep - 0.09, -half * 0.7],
          [at - 0.09, -half],
        ],
        true,
      ),
    });
    return [
      arch(x + boat.loaM * 0.05, -0.28),
      arch(x - boat.loaM * 0.06, 0.12),
      { role: "fitting", d: circlePath(x - 0.02, 0, 0.06) },
      ...[-1, 1].map(
        (sign): Shape => ({
          role: "fitting",
          d: boxPath(x - 0.5, sign * half - 0.05, x + 0.1, sign * half + 0.05, 0.04),
        }),
      ),
    ];
  },
};
