import { useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import type { AnswerOf, Endpoints } from "../../api/index.ts";
import { boatsQuery, foundBoatsQuery } from "./queries.ts";

export type BoatList = AnswerOf<Endpoints["boats"]>;

/**
 * The boats whose name, hull number or people hold every word of a text: looked for here, also without signal, in the list the
 * server sent; where it has more boats than it sends, it is asked.
 */
export function useFoundBoats(text: string, isWanted = true) {
  const all = useQuery({ ...boatsQuery, enabled: isWanted });
  const find = useDeferredValue(text.trim().toLowerCase());
  const isPart = all.data !== undefined && all.data.boatsInAll > all.data.boats.length;
  const asked = useQuery({ ...foundBoatsQuery(find), enabled: isPart && find !== "" });
  const list = isPart && find !== "" ? asked.data : all.data && filterBoats(all.data, find);
  return { all, list, find, error: asked.error };
}

function filterBoats(list: BoatList, find: string): BoatList {
  if (find === "") return list;
  const words = find.split(/\s+/);
  const boats = list.boats.filter(({ name, hull, buyers }) => {
    const said = `${name} ${hull} ${buyers}`.toLowerCase();
    return words.every((word) => said.includes(word));
  });
  return { ...list, boats, boatsFound: boats.length };
}
