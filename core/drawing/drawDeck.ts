import type { Rig } from "../rig/index.ts";
import { drawFamily } from "./drawFamily.ts";
import { drawEngines, drawTabs, engineReachM } from "./engines.ts";
import { drawWater, engrave, waterM } from "./engrave.ts";
import { drawFittings, platformM } from "./fittings.ts";
import { boxPath, type PaperBox, type Shape } from "./shape.ts";
import { drawTrailer } from "./trailer.ts";

/** A deck plan: shapes from the lowest to the topmost, and the paper they need. Metres, x to starboard, y aft. */
export interface DeckDrawing {
  readonly shapes: readonly Shape[];
  readonly box: PaperBox;
}

/** What a drawing is made from; a rig is one. */
export type DeckBoat = Pick<Rig, "family" | "loaM" | "beamM" | "engines" | "parts" | "trailer" | "tubes">;

/**
 * The boat from above, bow up, true to its length and beam and of its family, with its engines, what its rig has overhead
 * and outboard, as an engraver would (`engrave`), and (if `trailer`) its trailer.
 */
export function drawDeck(boat: DeckBoat, options: { readonly trailer: boolean }): DeckDrawing {
  const { loaM, beamM } = boat;
  const trailer = options.trailer ? boat.trailer : null;
  const fittings = drawFittings(boat);
  const isTopmost = (shape: Shape) => shape.role === "overhead";
  // Without a trailer under it a boat lies in the water.
  const water = trailer === null ? drawWater(boat) : [];
  const reachM = trailer === null ? waterM.at(-1)! + 0.06 : 0;
  const shapes: Shape[] = [
    ...water,
    ...(trailer === null ? [] : drawTrailer(trailer, loaM, beamM)),
    ...(boat.family === "pontoon" ? [drawMotorPod()] : []),
    ...drawEngines(boat),
    ...(boat.parts.some(({ kind }) => kind === "tabs") ? drawTabs(beamM) : []),
    ...engrave(boat, drawFamily(boat, boat.tubes ?? 2)),
    ...fittings.filter((shape) => !isTopmost(shape)),
    ...fittings.filter(isTopmost),
  ];
  const ahead = trailer === null ? loaM + reachM * 1.4 : trailer.hitchToTransomM + 0.25;
  const behind = Math.max(engineReachM(boat), platformM(boat) + (engineReachM(boat) > 0 ? 0.1 : 0), 0.2) + 0.1;
  const side = beamM / 2 + (trailer === null ? reachM : 0.45);
  return { shapes, box: { x: -side, y: -ahead, width: side * 2, height: ahead + behind } };
}

/** Where a pontoon's engine hangs, between the tubes. */
function drawMotorPod(): Shape {
  return { role: "fitting", d: boxPath(-0.12, -0.3, 0.4, 0.3, 0.05) };
}
