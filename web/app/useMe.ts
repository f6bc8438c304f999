import { useQuery } from "@tanstack/react-query";
import type { Me } from "../../api/index.ts";
import { meQuery } from "./queries.ts";

/** Who is signed in. Only inside the Gate, which has fetched it. */
export function useMe(): Me {
  const { data } = useQuery(meQuery);
  if (data === undefined) throw new Error("useMe: expected to be inside the Gate");
  return data;
}
