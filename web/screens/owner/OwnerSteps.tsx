import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import type { Entry, EntryOf } from "../../../core/walk/index.ts";
import { guidesQuery } from "../../app/queries.ts";
import { WaitingPosts } from "../../handover/WaitingPosts.tsx";
import type { NewEntry } from "../../offline/syncQueue.ts";
import { StepRun } from "../../sequence/StepRun.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { useTell } from "../../ui/tell.ts";
import { useOwnerEntries } from "./useOwnerEntries.ts";

interface OwnerStepsProps {
  readonly token: string;
  readonly page: OwnerPage;
  readonly sequence: string;
}

const isStep = (entry: Entry): entry is EntryOf<"step"> => entry.kind === "step";

/** Hitching up, launching and the rest on the owner's own phone; what is done is kept here until there is signal. */
export default function OwnerSteps({ token, page, sequence: id }: OwnerStepsProps) {
  const tell = useTell();
  const guides = useQuery(guidesQuery);
  const { entries, add, error } = useOwnerEntries(token, page);
  const steps = useMemo(() => entries.filter(isStep), [entries]);
  return (
    <>
      {error !== null && <ErrorNotice error={error} />}
      <WaitingPosts about={token} engines={page.delivery.rig.engines} />
      <Fetched query={guides} what={tell("the steps")}>
        {({ sequences }) => {
          const sequence = sequences.find((each) => each.id === id);
          if (sequence === undefined) return <p>{tell("There are no such steps.")}</p>;
          const onAdd = (entry: NewEntry) => add(entry, tell("a step"));
          return <StepRun key={id} sequence={sequence} port={{ rig: page.delivery.rig, entries: steps, onAdd }} />;
        }}
      </Fetched>
    </>
  );
}
