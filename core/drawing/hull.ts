import type { Point } from "./shape.ts";

/** Half the beam of a planing hull at `alongShare` of its length from the transom (0) to the stem (1), of a beam of 2. */
export function halfBeamShare(alongShare: number): number {
  const fullest = 0.42;
  if (alongShare <= fullest) return 0.93 + 0.07 * Math.sin(((alongShare / fullest) * Math.PI) / 2);
  const u = Math.min(1, (alongShare - fullest) / (1 - fullest));
  return (1 - u ** 2.3) ** 0.78;
}

/** Half-beam in metres at `forwardM`, drawn in by `insetM` (also from the stem); 0 where the inset leaves nothing. */
export function halfBeamM(loaM: number, beamM: number, forwardM: number, insetM = 0): number {
  const stem = loaM - insetM * 1.35;
  if (forwardM < 0 || forwardM > stem) return 0;
  return Math.max(0, (beamM / 2) * halfBeamShare((forwardM / stem) * 0.999) - insetM);
}

/** The side line from `aftM` to `forwardM` and back on the other side, as a closed ring of points. */
export function hullRing(loaM: number, beamM: number, aftM: number, forwardM: number, insetM = 0): Point[] {
  const steps = 44;
  const starboard: Point[] = [];
  for (let i = 0; i <= steps; i++) {
    // Closer steps toward the bow, where the line turns.
    const t = 1 - (1 - i / steps) ** 1.6;
    const forward = aftM + (forwardM - aftM) * t;
    starboard.push([forward, halfBeamM(loaM, beamM, forward, insetM)]);
  }
  const port = starboard.map(([forward, side]): Point => [forward, -side]).reverse();
  return [...starboard, ...port];
}
