import { useMemo, useState } from "react";
import { ulid } from "ulid";
import type { OwnerPage } from "../../../api/index.ts";
import { toInstant } from "../../../core/dates/index.ts";
import { type Entry, ownerId } from "../../../core/walk/index.ts";
import type { NewEntry, Post } from "../../offline/syncQueue.ts";
import { syncQueue, usePosts } from "../../offline/useSync.ts";

/** What an owner enters on the dock, kept on their phone until there is signal; and all entries with what waits here. */
export function useOwnerEntries(token: string, { delivery }: OwnerPage) {
  const posts = usePosts(token);
  const [error, setError] = useState<Error | null>(null);
  const entries = useMemo(() => {
    const waiting = posts.flatMap((post) =>
      post.name === "addOwnerEntries" ? (post as Post<"addOwnerEntries">).body.entries : [],
    );
    return [...new Map([...delivery.entries, ...waiting].map((entry) => [entry.id, entry])).values()];
  }, [delivery.entries, posts]);
  const add = (entry: NewEntry, says: string) => {
    const nowMs = Date.now();
    const own = { id: ulid(nowMs), delivery: delivery.id, at: toInstant(nowMs), by: ownerId, device: "owner-page" };
    const whole = { ...entry, ...own } as Entry;
    const body = { entries: [whole] };
    setError(null);
    syncQueue
      .post({ id: whole.id, name: "addOwnerEntries", params: { token }, body, about: token, says })
      // Not taken, it is not kept either: that is said where it was entered.
      .catch((refusal: unknown) => setError(refusal instanceof Error ? refusal : new Error(String(refusal))));
  };
  return { entries, add, error };
}
