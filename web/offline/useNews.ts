import { useEffect } from "react";
import type { Entry } from "../../core/walk/index.ts";
import { addressOf } from "../app/client.ts";
import { deliveryQuery, queryClient } from "../app/queries.ts";
import { syncQueue } from "./useSync.ts";

/** Listens to what others enter in this handover while its screen is open; after a break it is fetched anew. */
export function useNews(delivery: string) {
  useEffect(() => {
    if (!("EventSource" in globalThis)) return;
    let isFirst = true;
    const source = new EventSource(addressOf("news", { delivery }));
    const fetchAnew = () => void queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery).queryKey });
    source.addEventListener("hello", () => {
      if (!isFirst) {
        fetchAnew();
        syncQueue.lookAgain();
      }
      isFirst = false;
    });
    // Opened without signal, the first answer comes after what it could have told.
    source.addEventListener("error", () => {
      isFirst = false;
    });
    source.addEventListener("news", (event) => {
      const { entries, isSealed } = JSON.parse(event.data as string) as { entries: Entry[]; isSealed: boolean };
      void syncQueue.receive(entries);
      if (isSealed) fetchAnew();
    });
    return () => source.close();
  }, [delivery]);
}
