import { useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import type { AnswerOf, Endpoints } from "../../api/index.ts";
import type { BoatSort, BoatStage } from "../../core/care/index.ts";
import { toPlainLetters } from "../../core/text/toPlainLetters.ts";
import { boatsQuery, foundBoatsQuery } from "./queries.ts";

export type BoatList = AnswerOf<Endpoints["boats"]>;

export interface BoatWish {
  readonly stage?: BoatStage | "all";
  readonly page?: number;
  readonly sort?: BoatSort;
  readonly isWanted?: boolean;
}

/** A phone number is not in the list the server sends: for that it is asked. */
const someDigits = /\d{3}/;

/**
 * The boats whose name, hull number, phone or people hold every word of a text, at a stage: looked for here, also without signal,
 * in the list the server sent; where it has more boats than it sends, it is asked.
 */
export function useFoundBoats(
  text: string,
  { stage = "all", page = 0, sort = "next", isWanted = true }: BoatWish = {},
) {
  const all = useQuery({ ...boatsQuery, enabled: isWanted });
  const find = useDeferredValue(toPlainLetters(text.trim()));
  const isPart = all.data !== undefined && all.data.boatsInAll > all.data.boats.length;
  const isNarrowed = find !== "" || stage !== "all" || page > 0 || sort !== "next";
  const isAsked = isWanted && isNarrowed && (isPart || sort !== "next" || someDigits.test(find));
  const asked = useQuery({ ...foundBoatsQuery(find, stage, page, sort), enabled: isAsked });
  const here = all.data && filterBoats(all.data, find, stage);
  // Without signal what is found here is better than nothing.
  // Until the answer is here the list that stood stands on: nothing blinks, and nothing is said to be missing.
  const meanwhile = asked.error !== null || asked.fetchStatus === "paused" ? here : all.data;
  const list = isAsked ? (asked.data ?? meanwhile) : here;
  return { all, list, find, error: isPart ? asked.error : null };
}

function filterBoats(list: BoatList, find: string, stage: BoatStage | "all"): BoatList {
  if (find === "" && stage === "all") return list;
  const words = find.split(/\s+/);
  const boats = list.boats.filter((boat) => {
    const said = toPlainLetters(`${boat.name} ${boat.hull} ${boat.stock} ${boat.buyers}`);
    return (stage === "all" || boat.stage === stage) && words.every((word) => said.includes(word));
  });
  return { ...list, boats, boatsFound: boats.length };
}
