import type { Rig } from "../rig/index.ts";
import { drawCentreConsole } from "./centreConsole.ts";
import { drawOutboards } from "./engines.ts";
import { halfBeamM, hullRing } from "./hull.ts";
import { linePath, type Shape } from "./shape.ts";
import { drawTrailer } from "./trailer.ts";

/** A deck plan: shapes from the lowest to the topmost, and the paper they need. Metres, x to starboard, y aft. */
export interface DeckDrawing {
  readonly shapes: readonly Shape[];
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

/**
 * The boat from above, bow up, true to its length and beam, with its engines and (if `trailer`) its trailer.
 * Every family is drawn as a centre console until it has a drawing of its own (hull and numbers are right all the same).
 */
export function drawDeck(rig: Rig, options: { readonly trailer: boolean }): DeckDrawing {
  const { loaM, beamM } = rig;
  const trailer = options.trailer ? rig.trailer : null;
  const outboards = rig.engines.filter((engine) => engine.kind === "outboard").length;
  const shapes: Shape[] = [
    ...(trailer === null ? [] : drawTrailer(trailer, loaM, beamM)),
    ...drawOutboards(outboards, beamM),
    ...drawCentreConsole(loaM, beamM),
  ];
  const ahead = trailer === null ? loaM + 0.15 : trailer.hitchToTransomM + 0.25;
  const behind = outboards > 0 ? 1.0 : 0.3;
  const side = beamM / 2 + (trailer === null ? 0.15 : 0.45);
  return { shapes, box: { x: -side, y: -ahead, width: side * 2, height: ahead + behind } };
}

/** The hull's outline alone, for small pictures and for telling what is inside. */
export function drawHullLine(rig: Pick<Rig, "loaM" | "beamM">): string {
  return linePath(hullRing(rig.loaM, rig.beamM, 0, rig.loaM), true);
}

/** Whether a place on the boat lies within its hull line. (0.5, 0) on any boat → true. */
export function isWithinHull(rig: Pick<Rig, "loaM" | "beamM">, at: { xM: number; yM: number }): boolean {
  return at.xM >= 0 && Math.abs(at.yM) <= halfBeamM(rig.loaM, rig.beamM, at.xM);
}
