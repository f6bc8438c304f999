import type { Content } from "pdfmake/interfaces.js";
import type { Photos } from "../repositories/photos.ts";
import type { Settings } from "../repositories/settings.ts";

/** What a store puts at the head of its papers: what it says of itself, and its logo as JPEG where it has one. */
export interface Letterhead extends Settings {
  readonly picture: Uint8Array | null;
}

export async function readLetterhead(
  settings: { read(): Promise<Settings> },
  photos: Pick<Photos, "find">,
): Promise<Letterhead> {
  const store = await settings.read();
  return { ...store, picture: store.logo === null ? null : await photos.find(store.logo, "small") };
}

/** The logo, no higher than `highPt` and no wider than four times that; nothing where there is none. */
export const printLogo = (picture: Uint8Array | null, highPt: number): Content[] =>
  picture === null
    ? []
    : [
        {
          image: `data:image/jpeg;base64,${Buffer.from(picture).toString("base64")}`,
          fit: [highPt * 4, highPt],
          margin: [0, 0, 0, 6],
        },
      ];
