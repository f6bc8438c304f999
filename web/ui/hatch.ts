import type { Inks } from "./Chart.tsx";

/** A colour of a chart that is drawn as slanted strokes. */
export interface Hatch {
  readonly image: string;
  readonly imageWidth: number;
  readonly imageHeight: number;
  readonly repeat: "repeat";
}
const px = 6;

/** Slanted strokes: told from a full colour in the black and white of the sunlight theme too. */
export function hatch({ helm, panel }: Inks): Hatch {
  const strokes = [-px / 2, px / 2, (3 * px) / 2].map((at) => `M${at - px} ${px}L${at + px} ${-px}`).join("");
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${px}" height="${px}"><rect width="${px}" height="${px}" fill="${panel}"/><path d="${strokes}" stroke="${helm}" stroke-width="2"/></svg>`;
  return {
    image: `data:image/svg+xml,${encodeURIComponent(svg)}`,
    imageWidth: px,
    imageHeight: px,
    repeat: "repeat",
  };
}

/** The same strokes in a legend. */
export const hatched = "bg-[repeating-linear-gradient(135deg,var(--helm)_0_2px,var(--panel)_2px_4px)]";
