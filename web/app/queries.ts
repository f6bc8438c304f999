import { keepPreviousData, QueryClient, type QueryFunctionContext, queryOptions } from "@tanstack/react-query";
import type { EndpointName, Me, MessageLine } from "../../api/index.ts";
import type { BoatSort, BoatStage } from "../../core/care/index.ts";
import type { Region } from "../../core/region/index.ts";
import { setStoreRegion, setStoreZone } from "../ui/storeTime.ts";
import { type Ask, ask, Refused } from "./client.ts";
import { findHeld, getFront } from "./held.ts";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 15_000,
      networkMode: "always",
      retry: (count, error) => error instanceof Refused && error.code === "no-signal" && count < 2,
    },
    mutations: { networkMode: "always" },
  },
});

/** Whose page it is says whose days are shown. */
export function settle<A extends { readonly timeZone: string; readonly region: Region }>(answer: A): A {
  setStoreZone(answer.timeZone);
  setStoreRegion(answer.region);
  return answer;
}

/** Asks for what a query holds. Once it holds something, only the server's own answer takes its place. */
const fetcher =
  <N extends EndpointName>(name: N, args: Ask<N> = {}) =>
  ({ client, queryKey }: QueryFunctionContext) =>
    ask(name, { ...args, anew: client.getQueryData(queryKey) !== undefined });

/** Who is signed in; on a shared tablet without signal, as it was known here last. */
async function readMe(context: QueryFunctionContext): Promise<Me> {
  const front = getFront();
  const known = front === null ? undefined : findHeld(front)?.me;
  try {
    return await fetcher("me")(context);
  } catch (error) {
    if (known !== undefined && error instanceof Refused && error.code === "no-signal") return known;
    throw error;
  }
}

export const meQuery = queryOptions({
  queryKey: ["me"],
  queryFn: async (context) => settle(await readMe(context)),
  staleTime: 300_000,
  retry: false,
});
export const todayQuery = queryOptions({ queryKey: ["today"], queryFn: fetcher("today") });
export const owedQuery = queryOptions({ queryKey: ["owed"], queryFn: fetcher("owed") });
export const ownerPageQuery = (token: string) =>
  queryOptions({
    queryKey: ["owner", token],
    queryFn: async (context) => settle(await fetcher("ownerPage", { params: { token } })(context)),
  });
export const boatsQuery = queryOptions({ queryKey: ["boats"], queryFn: fetcher("boats") });
/** Asked of the server where a store has more boats than it sends. */
export const foundBoatsQuery = (find: string, stage: BoatStage | "all" = "all", page = 0, sort: BoatSort = "next") =>
  queryOptions({
    queryKey: ["boats", find, stage, page, sort],
    queryFn: fetcher("boats", { query: { find, stage, sort, page: String(page) } }),
    placeholderData: keepPreviousData,
  });
export const hullsQuery = queryOptions({ queryKey: ["boats", "hulls"], queryFn: fetcher("hulls") });
export const boatQuery = (boat: string) =>
  queryOptions({ queryKey: ["boat", boat], queryFn: fetcher("boat", { params: { boat } }) });
export const rigQuery = (boat: string) =>
  queryOptions({ queryKey: ["rig", boat], queryFn: fetcher("rig", { params: { boat } }) });
export const templatesQuery = queryOptions({ queryKey: ["templates"], queryFn: fetcher("templates") });
export const templateQuery = (template: string) =>
  queryOptions({ queryKey: ["template", template], queryFn: fetcher("template", { params: { template } }) });
export const libraryQuery = queryOptions({ queryKey: ["library"], queryFn: fetcher("library") });
export const languagesQuery = queryOptions({ queryKey: ["languages"], queryFn: fetcher("languages") });
export const glossaryQuery = queryOptions({
  queryKey: ["glossary"],
  queryFn: fetcher("glossary"),
  staleTime: Number.POSITIVE_INFINITY,
});
/** What is done step by step, and what must be aboard. */
export const guidesQuery = queryOptions({
  queryKey: ["guides"],
  queryFn: fetcher("guides"),
  staleTime: Number.POSITIVE_INFINITY,
});
export const faultsQuery = queryOptions({
  queryKey: ["faults"],
  queryFn: fetcher("faults"),
  staleTime: Number.POSITIVE_INFINITY,
});
export const towingQuery = (boat: string) =>
  queryOptions({ queryKey: ["towing", boat], queryFn: fetcher("towing", { params: { boat } }) });
/** Asked anew wherever it is opened: whoever is rung next goes on from there. */
export const dockCallsQuery = queryOptions({ queryKey: ["dock-calls"], queryFn: fetcher("dockCalls"), staleTime: 0 });
export const deliveryQuery = (delivery: string) =>
  queryOptions({ queryKey: ["delivery", delivery], queryFn: fetcher("delivery", { params: { delivery } }) });
export const plansQuery = (delivery: string) =>
  queryOptions({
    queryKey: ["plans", delivery],
    queryFn: fetcher("plans", { params: { delivery } }),
    staleTime: 300_000,
  });
export const messagesQuery = (find: string, state: MessageLine["state"] | "all", page: number) =>
  queryOptions({
    queryKey: ["all-messages", find, state, page],
    queryFn: fetcher("allMessages", { query: { find, state, page: String(page) } }),
    placeholderData: keepPreviousData,
  });
export const careQuery = queryOptions({ queryKey: ["care"], queryFn: fetcher("callList") });
export const workshopQuery = queryOptions({ queryKey: ["workshop"], queryFn: fetcher("workshop") });
export const packsQuery = queryOptions({ queryKey: ["packs"], queryFn: fetcher("packs") });
export const staffQuery = queryOptions({ queryKey: ["staff"], queryFn: fetcher("staff") });
export const sessionsQuery = queryOptions({ queryKey: ["sessions"], queryFn: fetcher("sessions") });
export const storeQuery = queryOptions({ queryKey: ["store"], queryFn: fetcher("storeFacts") });
export const rightsQuery = queryOptions({
  queryKey: ["rights"],
  queryFn: fetcher("rights"),
  staleTime: Number.POSITIVE_INFINITY,
});
