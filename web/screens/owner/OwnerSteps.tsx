import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { ulid } from "ulid";
import type { OwnerPage } from "../../../api/index.ts";
import { toInstant } from "../../../core/dates/index.ts";
import { type Entry, type EntryOf, ownerId } from "../../../core/walk/index.ts";
import { guidesQuery } from "../../app/queries.ts";
import type { NewEntry, Post } from "../../offline/syncQueue.ts";
import { syncQueue, usePosts } from "../../offline/useSync.ts";
import { StepRun } from "../../sequence/StepRun.tsx";
import { Fetched } from "../../ui/Fetched.tsx";

interface OwnerStepsProps {
  readonly token: string;
  readonly page: OwnerPage;
  readonly sequence: string;
}

const isStep = (entry: Entry): entry is EntryOf<"step"> => entry.kind === "step";

/** Hitching up, launching and the rest on the owner's own phone; what is done is kept here until there is signal. */
export default function OwnerSteps({ token, page: { delivery }, sequence: id }: OwnerStepsProps) {
  const guides = useQuery(guidesQuery);
  const posts = usePosts(token);
  const entries = useMemo(() => {
    const waiting = posts.flatMap((post) =>
      post.name === "addOwnerEntries" ? (post as Post<"addOwnerEntries">).body.entries : [],
    );
    const known = new Map([...delivery.entries, ...waiting].filter(isStep).map((entry) => [entry.id, entry]));
    return [...known.values()];
  }, [delivery.entries, posts]);
  const onAdd = (entry: NewEntry) => {
    const nowMs = Date.now();
    const own = { id: ulid(nowMs), delivery: delivery.id, at: toInstant(nowMs), by: ownerId, device: "owner-page" };
    const whole = { ...entry, ...own } as Entry;
    void syncQueue
      .post({
        id: whole.id,
        name: "addOwnerEntries",
        params: { token },
        body: { entries: [whole] },
        about: token,
        says: "a step",
      })
      // It stays among what was not taken, and is said there.
      .catch(() => undefined);
  };
  return (
    <Fetched query={guides} what="the steps">
      {({ sequences }) => {
        const sequence = sequences.find((each) => each.id === id);
        return sequence === undefined ? (
          <p>There are no such steps.</p>
        ) : (
          <StepRun key={id} sequence={sequence} port={{ rig: delivery.rig, entries, onAdd }} />
        );
      }}
    </Fetched>
  );
}
