import { useSyncExternalStore } from "react";
import { boatQuery, ownerPageQuery, queryClient, todayQuery } from "../app/queries.ts";
import { createLetterbox, type Letter } from "./letterbox.ts";

export const letterbox = createLetterbox();

letterbox.onSent(async ({ params }) => {
  if ("token" in params) return queryClient.invalidateQueries({ queryKey: ownerPageQuery(params.token).queryKey });
  await queryClient.invalidateQueries({ queryKey: boatQuery(params.boat).queryKey });
  await queryClient.invalidateQueries({ queryKey: todayQuery.queryKey });
});

/** What was written about a boat on this device and is not at the yard yet. */
export const useLetters = (about: string): readonly Letter[] =>
  useSyncExternalStore(letterbox.subscribe, () => letterbox.listOf(about));

/** How much of it there is in all. */
export const useLetterCount = (): number => useSyncExternalStore(letterbox.subscribe, letterbox.count);
