import type { Rig } from "../rig/index.ts";
import type { Point } from "./shape.ts";

/** What the outline of a boat depends on. */
export type Hull = Pick<Rig, "family" | "loaM" | "beamM">;

/** A side line from above, in shares: width at the transom, where it is fullest, and how it closes toward the stem. */
interface HullForm {
  readonly transomShare: number;
  readonly fullestShare: number;
  /** The higher, the longer the full width is held. */
  readonly hold: number;
  /** The lower, the blunter the bow. */
  readonly close: number;
}

const forms: Record<Rig["family"], HullForm> = {
  "centre-console": { transomShare: 0.93, fullestShare: 0.42, hold: 2.3, close: 0.78 },
  pontoon: { transomShare: 1, fullestShare: 0.6, hold: 40, close: 0.5 },
  bowrider: { transomShare: 0.94, fullestShare: 0.46, hold: 3.1, close: 0.62 },
  "side-console": { transomShare: 0.9, fullestShare: 0.4, hold: 2.5, close: 0.66 },
  "tow-sport": { transomShare: 0.9, fullestShare: 0.5, hold: 5, close: 0.46 },
  cuddy: { transomShare: 0.92, fullestShare: 0.44, hold: 2.1, close: 0.82 },
  runabout: { transomShare: 0.9, fullestShare: 0.4, hold: 2.4, close: 0.8 },
};

/** Half the beam at `alongShare` of the length from the transom (0) to the stem (1), of a beam of 2. */
export function halfBeamShare(family: Rig["family"], alongShare: number): number {
  const { transomShare, fullestShare, hold, close } = forms[family];
  if (alongShare <= fullestShare)
    return transomShare + (1 - transomShare) * Math.sin(((alongShare / fullestShare) * Math.PI) / 2);
  const u = Math.min(1, (alongShare - fullestShare) / (1 - fullestShare));
  return (1 - u ** hold) ** close;
}

/** Half-beam in metres at `forwardM`, drawn in by `insetM` (also from the stem); 0 where the inset leaves nothing. */
export function halfBeamM({ family, loaM, beamM }: Hull, forwardM: number, insetM = 0): number {
  const stem = loaM - insetM * 1.35;
  if (forwardM < 0 || forwardM > stem) return 0;
  return Math.max(0, (beamM / 2) * halfBeamShare(family, (forwardM / stem) * 0.999) - insetM);
}

/** The side line from `aftM` to `forwardM` and back on the other side, as a closed ring of points. */
export function hullRing(hull: Hull, aftM: number, forwardM: number, insetM = 0): Point[] {
  const steps = 44;
  const starboard: Point[] = [];
  for (let i = 0; i <= steps; i++) {
    // Closer steps toward the bow, where the line turns.
    const t = 1 - (1 - i / steps) ** 1.6;
    const forward = aftM + (forwardM - aftM) * t;
    starboard.push([forward, halfBeamM(hull, forward, insetM)]);
  }
  const port = starboard.map(([forward, side]): Point => [forward, -side]).reverse();
  return [...starboard, ...port];
}

/** Whether a place on the boat lies within its hull line. (0.5, 0) on any boat → true. */
export function isWithinHull(hull: Hull, at: { xM: number; yM: number }): boolean {
  const half = halfBeamM(hull, at.xM);
  return half > 0 && Math.abs(at.yM) <= half;
}
