import { keepPreviousData, QueryClient, queryOptions } from "@tanstack/react-query";
import { setStoreZone } from "../ui/storeTime.ts";
import { ask, Refused } from "./client.ts";

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
export function settle<A extends { readonly timeZone: string }>(answer: A): A {
  setStoreZone(answer.timeZone);
  return answer;
}

export const meQuery = queryOptions({
  queryKey: ["me"],
  queryFn: async () => settle(await ask("me")),
  staleTime: 300_000,
  retry: false,
});
export const todayQuery = queryOptions({ queryKey: ["today"], queryFn: () => ask("today") });
export const owedQuery = queryOptions({ queryKey: ["owed"], queryFn: () => ask("owed") });
export const ownerPageQuery = (token: string) =>
  queryOptions({
    queryKey: ["owner", token],
    queryFn: async () => settle(await ask("ownerPage", { params: { token } })),
  });
export const boatsQuery = queryOptions({ queryKey: ["boats"], queryFn: () => ask("boats") });
/** Asked of the server where a store has more boats than it sends. */
export const foundBoatsQuery = (find: string) =>
  queryOptions({
    queryKey: ["boats", find],
    queryFn: () => ask("boats", { query: { find } }),
    placeholderData: keepPreviousData,
  });
export const hullsQuery = queryOptions({ queryKey: ["boats", "hulls"], queryFn: () => ask("hulls") });
export const boatQuery = (boat: string) =>
  queryOptions({ queryKey: ["boat", boat], queryFn: () => ask("boat", { params: { boat } }) });
export const rigQuery = (boat: string) =>
  queryOptions({ queryKey: ["rig", boat], queryFn: () => ask("rig", { params: { boat } }) });
export const templatesQuery = queryOptions({ queryKey: ["templates"], queryFn: () => ask("templates") });
export const templateQuery = (template: string) =>
  queryOptions({ queryKey: ["template", template], queryFn: () => ask("template", { params: { template } }) });
export const libraryQuery = queryOptions({ queryKey: ["library"], queryFn: () => ask("library") });
export const glossaryQuery = queryOptions({
  queryKey: ["glossary"],
  queryFn: () => ask("glossary"),
  staleTime: Number.POSITIVE_INFINITY,
});
export const deliveryQuery = (delivery: string) =>
  queryOptions({ queryKey: ["delivery", delivery], queryFn: () => ask("delivery", { params: { delivery } }) });
export const plansQuery = (delivery: string) =>
  queryOptions({
    queryKey: ["plans", delivery],
    queryFn: () => ask("plans", { params: { delivery } }),
    staleTime: 300_000,
  });
export const careQuery = queryOptions({ queryKey: ["care"], queryFn: () => ask("callList") });
export const workshopQuery = queryOptions({ queryKey: ["workshop"], queryFn: () => ask("workshop") });
export const packsQuery = queryOptions({ queryKey: ["packs"], queryFn: () => ask("packs") });
