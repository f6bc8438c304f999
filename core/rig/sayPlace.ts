import { findPlace, findText, type PhraseBook } from "../language/index.ts";
import { lowerFirst } from "../text/index.ts";
import type { Part, Rig } from "./rig.ts";

/**
 * Where a part is, inside a sentence: how to reach it, or the place to stand at. "under the helm seat"; "at the transom". In
 * another language it is the whole phrase of its book, as near as there is one; nothing is put together from words.
 */
export function sayPlace(rig: Rig, part: Pick<Part, "reach" | "station">, book?: PhraseBook): string {
  const { label } = rig.stations.find(({ id }) => id === part.station)!;
  if (book === undefined) return part.reach === undefined ? `at the ${lowerFirst(label)}` : lowerFirst(part.reach);
  const exact = part.reach === undefined ? undefined : findPlace(book, part.reach);
  const shownThere = "where we will show you";
  return exact ?? findPlace(book, label) ?? findText(book, shownThere) ?? shownThere;
}
