import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import { applyLearned, describeCall } from "../../../core/faults/index.ts";
import { faultsQuery } from "../../app/queries.ts";
import { FaultFinder } from "../../finder/Finder.tsx";
import { type Finder, sayFindings } from "../../finder/useFinder.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { tellPlain, useTell } from "../../ui/tell.ts";
import { useOwner } from "./useOwner.ts";

const nothing: OwnerPage["learnedFaults"] = [];

interface OwnerFinderProps {
  readonly token: string;
  readonly page: OwnerPage;
}

/** The finder on an owner's own page, which ends in a question to the yard with what was found already told. */
export default function OwnerFinder({ token, page }: OwnerFinderProps) {
  const faults = useQuery(faultsQuery);
  const tell = useTell();
  const { family } = page.delivery.rig;
  // A page that was saved by an older version has none.
  const learned = page.learnedFaults ?? nothing;
  const content = useMemo(
    () => faults.data && applyLearned(faults.data, learned, family),
    [faults.data, learned, family],
  );
  return (
    <>
      <h2 className="mb-3 text-2xl font-bold">{tell("It does not work")}</h2>
      <Fetched query={faults} what={tell("what fails on boats")}>
        {(shipped) => (
          <FaultFinder
            rig={page.delivery.rig}
            content={content ?? shipped}
            phone={page.phone}
            end={(finder) => <TellTheYard token={token} page={page} finder={finder} />}
          />
        )}
      </Fetched>
    </>
  );
}

function TellTheYard({ token, page, finder }: OwnerFinderProps & { finder: Finder }) {
  const { add } = useOwner(token, page);
  const [isTold, setTold] = useState(false);
  const tell = useTell();
  if (isTold) return <p role="status">{tell("The yard has what you found. It is listed under your questions.")}</p>;
  return (
    <>
      <Button
        className="min-h-12"
        disabled={add.isPending}
        onClick={() =>
          add.mutate(
            [
              {
                kind: "ask",
                topic: null,
                note: `It does not work. ${sayFindings({ ...finder, model: finder.yardModel }, tellPlain)}`.slice(
                  0,
                  1000,
                ),
                fault: describeCall(finder.model, finder.findings, {
                  minutes: (Date.now() - finder.beganMs) / 60_000,
                  goesOn: null,
                }),
              },
            ],
            { onSuccess: () => setTold(true) },
          )
        }
      >
        {tell(add.isPending ? "Telling the yard …" : "Tell the yard what you found")}
      </Button>
      <p className="mt-1 text-soft">{sayFindings(finder, tell)}</p>
      {add.error !== null && <ErrorNotice error={add.error} />}
    </>
  );
}
