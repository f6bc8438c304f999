import type { Receipt } from "../core/record/index.ts";
import type { Entry } from "../core/walk/index.ts";

/** What has just been stored of a delivery. */
export interface News {
  readonly entries: readonly Entry[];
  /** What the store knows of each beside it, by its id. */
  readonly receipts: Readonly<Record<string, Receipt>>;
  readonly isSealed: boolean;
}

/** Who listens to which delivery, on this server. Listening answers its own undo. */
export function createNewsService() {
  const listeners = new Map<string, Set<(news: News) => void>>();
  return {
    tell(delivery: string, news: News) {
      for (const listener of listeners.get(delivery) ?? []) listener(news);
    },
    listen(delivery: string, listener: (news: News) => void): () => void {
      const mine = listeners.get(delivery) ?? new Set();
      mine.add(listener);
      listeners.set(delivery, mine);
      return () => {
        mine.delete(listener);
        if (mine.size === 0) listeners.delete(delivery);
      };
    },
  };
}

export type NewsService = ReturnType<typeof createNewsService>;
