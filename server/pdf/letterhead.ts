import type { Content } from "pdfmake/interfaces.js";
import type { Tell } from "../../core/language/index.ts";
import type { Photos } from "../repositories/photos.ts";
import type { Settings } from "../repositories/settings.ts";
import { soft } from "./ink.ts";
import { write } from "./printer.ts";

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

/** The store in one line: its name, its address and its phone, as far as it has said them. */
export const sayStore = ({ store, place, phone }: Pick<Settings, "store" | "place" | "phone">): string =>
  [
    store,
    place
      .split("\n")
      .filter((line) => line.trim() !== "")
      .join(", "),
    phone,
  ]
    .filter((part) => part !== "")
    .join(" · ");

/** The foot of every page of a paper: what it is of and which page, and below whose paper it is and how they are reached. */
export const printFoot =
  (of: string, store: Pick<Settings, "store" | "place" | "phone">, tell: Tell) =>
  (page: number, pages: number): Content => ({
    margin: [48, 12, 48, 0],
    stack: [
      {
        columns: [
          { text: write(of, { fontSize: 8, color: soft }) },
          {
            width: "auto",
            text: tell("page {0} of {1}", page, pages),
            fontSize: 8,
            color: soft,
            alignment: "right",
          },
        ],
      },
      { text: write(sayStore(store), { fontSize: 8, color: soft }), margin: [0, 2, 0, 0] },
    ],
  });
