import type { Rig } from "../rig/index.ts";
import { boxPath, curvePath, linePath, type Shape } from "./shape.ts";

type EngineBoat = Pick<Rig, "engines" | "beamM">;

/** How far engines reach behind the transom, metres; 0 for one inside. */
export function engineReachM({ engines }: Pick<Rig, "engines">): number {
  return Math.max(0, ...engines.map(({ kind }) => reach[kind]));
}

const reach = { outboard: 0.9, kicker: 0.62, sterndrive: 0.5, inboard: 0 } as const;

/** The engines as seen from above: outboards side by side, a kicker beside them, the leg of a sterndrive. Metres. */
export function drawEngines({ engines, beamM }: EngineBoat): Shape[] {
  const outboards = engines.filter(({ kind }) => kind === "outboard").length;
  const drives = engines.filter(({ kind }) => kind === "sterndrive").length;
  const kickers = engines.filter(({ kind }) => kind === "kicker").length;
  const spread = (count: number, pitch: number) =>
    Array.from({ length: count }, (_, i) => (i - (count - 1) / 2) * pitch);
  const kickerY = beamM * 0.27;
  return [
    ...spread(outboards, 0.68).flatMap((y) => drawOutboard(y, 1)),
    ...spread(drives, 0.8).flatMap(drawSterndrive),
    ...Array.from({ length: kickers }, (_, i) => drawOutboard(kickerY + i * 0.4, 0.66)).flat(),
    ...(engines.some(({ kind }) => kind === "inboard") ? drawPropeller() : []),
  ];
}

/** Trim tabs either side of the transom. */
export function drawTabs(beamM: number): Shape[] {
  const outer = (beamM / 2) * 0.93;
  return [-1, 1].map((sign): Shape => {
    const a = sign * (outer - 0.06);
    const b = sign * (outer - 0.4);
    return { role: "fitting", d: boxPath(-0.2, Math.min(a, b), 0, Math.max(a, b), 0.02) };
  });
}

function drawOutboard(y: number, scale: number): Shape[] {
  const at = (x: number, side: number): readonly [number, number] => [x * scale, y + side * scale];
  return [
    { role: "fitting", d: boxPath(-0.2 * scale, y - 0.15 * scale, 0.03, y + 0.15 * scale, 0.03) },
    {
      role: "engine",
      d: curvePath(
        [
          at(-0.16, -0.17),
          at(-0.12, -0.08),
          at(-0.12, 0.08),
          at(-0.16, 0.17),
          at(-0.46, 0.215),
          at(-0.72, 0.19),
          at(-0.86, 0.1),
          at(-0.88, 0),
          at(-0.86, -0.1),
          at(-0.72, -0.19),
          at(-0.46, -0.215),
        ],
        true,
      ),
    },
    // The seam of the cowl, its ridge, and the slits it breathes through.
    {
      role: "engine-line",
      d: curvePath(
        [
          at(-0.22, -0.12),
          at(-0.2, 0),
          at(-0.22, 0.12),
          at(-0.46, 0.16),
          at(-0.7, 0.14),
          at(-0.8, 0),
          at(-0.7, -0.14),
          at(-0.46, -0.16),
        ],
        true,
      ),
    },
    {
      role: "engine-line",
      d:
        linePath([at(-0.28, 0), at(-0.52, 0)]) +
        [-0.6, -0.66, -0.72].map((x) => linePath([at(x, -0.07), at(x, 0.07)])).join(""),
    },
  ];
}

function drawSterndrive(y: number): Shape[] {
  return [
    { role: "fitting", d: boxPath(-0.1, y - 0.22, 0.02, y + 0.22, 0.04) },
    {
      role: "engine",
      d: curvePath(
        [
          [-0.06, y - 0.13],
          [-0.06, y + 0.13],
          [-0.32, y + 0.11],
          [-0.48, y + 0.04],
          [-0.48, y - 0.04],
          [-0.32, y - 0.11],
        ],
        true,
      ),
    },
    {
      role: "engine-line",
      d: [-0.14, -0.2, -0.38]
        .map((x) =>
          linePath([
            [x, y - 0.07],
            [x, y + 0.07],
          ]),
        )
        .join(""),
    },
  ];
}

/** The propeller and rudder of an inboard, under the hull. */
function drawPropeller(): Shape[] {
  return [
    {
      role: "hair",
      d: linePath([
        [0.42, -0.2],
        [0.42, 0.2],
      ]),
    },
    { role: "hair", d: boxPath(0.12, -0.03, 0.36, 0.03, 0.03) },
  ];
}
