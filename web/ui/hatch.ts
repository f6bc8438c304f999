import type { Inks } from "./Chart.tsx";

/** A colour of a chart that is drawn as slanted strokes. */
export interface Hatch {
  readonly image: HTMLCanvasElement;
  readonly repeat: "repeat";
}
const hatchPx = 6;

/** Slanted strokes: told from a full colour in the black and white of the sunlight theme too. */
export function hatch({ helm, panel }: Inks): Hatch {
  const image = document.createElement("canvas");
  [image.width, image.height] = [hatchPx, hatchPx];
  const pen = image.getContext("2d")!;
  pen.fillStyle = panel;
  pen.fillRect(0, 0, hatchPx, hatchPx);
  pen.strokeStyle = helm;
  pen.lineWidth = 2;
  for (const at of [-hatchPx / 2, hatchPx / 2, (3 * hatchPx) / 2]) {
    pen.moveTo(at - hatchPx, hatchPx);
    pen.lineTo(at + hatchPx, -hatchPx);
  }
  pen.stroke();
  return { image, repeat: "repeat" };
}

/** The same strokes in a legend. */
export const hatched = "bg-[repeating-linear-gradient(135deg,var(--helm)_0_2px,var(--panel)_2px_4px)]";
