import { useEffect } from "react";
import type { Entry } from "../../core/walk/index.ts";
import { addressOf } from "../app/client.ts";
import { deliveryQuery, queryClient } from "../app/queries.ts";
import { syncQueue } from "./useSync.ts";

/** A browser tries again by itself where it lost the line, and no more once it was refused: a tablet whose PIN the server had not heard of. */
const againAfterMs = 5000;

/** Listens to what others enter in this handover while its screen is open; after a break it is fetched anew. */
export function useNews(delivery: string) {
  useEffect(() => {
    if (!("EventSource" in globalThis)) return;
    let isFirst = true;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let source = listen();
    const fetchAnew = () => void queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery).queryKey });
    function listen() {
      const made = new EventSource(addressOf("news", { delivery }));
      made.addEventListener("hello", () => {
        if (!isFirst) {
          fetchAnew();
          syncQueue.lookAgain();
        }
        isFirst = false;
      });
      // Opened without signal, the first answer comes after what it could have told.
      made.addEventListener("error", () => {
        isFirst = false;
        if (made.readyState !== EventSource.CLOSED) return;
        timer = setTimeout(() => {
          source = listen();
        }, againAfterMs);
      });
      made.addEventListener("news", (event) => {
        const { entries, isSealed } = JSON.parse(event.data as string) as { entries: Entry[]; isSealed: boolean };
        void syncQueue.receive(entries);
        if (isSealed) fetchAnew();
      });
      return made;
    }
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [delivery]);
}
