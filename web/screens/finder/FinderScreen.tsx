import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Boat, DockCallSheet } from "../../../api/index.ts";
import {
  applyLearned,
  type CallFault,
  describeCall,
  type FaultContent,
  findTaught,
} from "../../../core/faults/index.ts";
import { boatQuery, deliveryQuery, dockCallsQuery, faultsQuery, queryClient } from "../../app/queries.ts";
import { FaultFinder } from "../../finder/Finder.tsx";
import { type Finder, sayFindings } from "../../finder/useFinder.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { tellPlain } from "../../ui/tell.ts";

/** A dock call: somebody is on the phone with a boat that does something it should not. */
export function FinderScreen() {
  const { boat: id } = useParams() as { boat: string };
  const [params] = useSearchParams();
  const boat = useQuery(boatQuery(id));
  const faults = useQuery(faultsQuery);
  const calls = useQuery(dockCallsQuery);
  const [part, setPart] = useState<string | null>(null);
  const [place, setPlace] = useState<string | null>(null);
  const call = params.get("call");
  const of = params.get("of");
  return (
    <Fetched query={boat} what="the boat">
      {(data) => (
        <BoatPage
          plan={
            <DeckPlan
              rig={data.rig}
              parts={data.rig.parts.filter((each) => each.id === part)}
              onPick={setPlace}
              picked={place}
              className="size-full"
            />
          }
        >
          <p className="head text-soft">
            <Link to={`/boats/${id}`} className="inline-flex min-h-11 items-center underline">
              {data.name} {data.hull}
            </Link>{" "}
            {data.buyers}
          </p>
          <h1 className="mb-3 text-2xl font-bold">It does not work</h1>
          <Fetched query={faults} what="what fails on boats">
            {(content) => (
              <ResumedCall handover={handoverOf(data, of)} call={call}>
                {(before) => (
                  <OurFinder
                    boat={data}
                    content={content}
                    learned={calls.data?.learned ?? nothing}
                    begin={before}
                    says={params.get("says") ?? ""}
                    of={of}
                    place={place}
                    goesOn={before === null ? null : call}
                    onPart={setPart}
                  />
                )}
              </ResumedCall>
            )}
          </Fetched>
        </BoatPage>
      )}
    </Fetched>
  );
}
const nothing: DockCallSheet["learned"] = [];

interface Earlier {
  readonly fault: CallFault;
  /** An owner's question: it is answered by a cause that is found. */
  readonly isQuestion: boolean;
}

interface ResumedProps {
  readonly handover: Handover;
  readonly call: string | null;
  readonly children: (before: Earlier | null) => React.ReactNode;
}

/** What an earlier call of this boat had found, where one goes on. */
function ResumedCall({ handover, call, children }: ResumedProps) {
  const delivery = useQuery({ ...deliveryQuery(handover?.id ?? ""), enabled: call !== null && handover !== undefined });
  if (call === null || handover === undefined) return children(null);
  return (
    <Fetched query={delivery} what="the call">
      {({ entries }) => {
        const entry = entries.find(({ id }) => id === call);
        if (entry === undefined || (entry.kind !== "call" && entry.kind !== "ask") || entry.fault === undefined)
          return children(null);
        return children({ fault: entry.fault, isQuestion: entry.kind === "ask" });
      }}
    </Fetched>
  );
}

type Handover = Boat["deliveries"][number] | undefined;
/** The one a call goes on with; else the last that was signed, for the boat is theirs. */
const handoverOf = ({ deliveries }: Boat, of: string | null): Handover =>
  deliveries.find(({ id }) => id === of) ?? deliveries.findLast(({ state }) => state === "signed") ?? deliveries[0];

interface OurFinderProps {
  readonly boat: Boat;
  readonly content: FaultContent;
  readonly learned: DockCallSheet["learned"];
  readonly begin: Earlier | null;
  readonly says: string;
  readonly of: string | null;
  readonly place: string | null;
  readonly goesOn: string | null;
  readonly onPart: (part: string | null) => void;
}

/** The finder with what this store's calls have taught. */
function OurFinder({ boat, content, learned, begin, says, of, place, goesOn, onPart }: OurFinderProps) {
  const ours = useMemo(() => applyLearned(content, learned, boat.rig.family), [content, learned, boat.rig.family]);
  return (
    <FaultFinder
      rig={boat.rig}
      content={ours}
      phone={null}
      begin={begin?.fault ?? null}
      says={says}
      place={place}
      onPart={onPart}
      end={(finder) => (
        <LogCall
          handover={handoverOf(boat, of)}
          content={content}
          finder={finder}
          goesOn={goesOn}
          isQuestion={begin?.isQuestion ?? false}
        />
      )}
    />
  );
}

interface LogCallProps {
  readonly handover: Handover;
  readonly content: FaultContent;
  readonly finder: Finder;
  readonly goesOn: string | null;
  readonly isQuestion: boolean;
}

/** The call with what was found, put down with the boat's handover: there it counts for what fails and what is taught further. */
function LogCall({ handover, content, finder, goesOn, isQuestion }: LogCallProps) {
  const delivery = useQuery({ ...deliveryQuery(handover?.id ?? ""), enabled: handover !== undefined });
  const [isKept, setKept] = useState(false);
  const [isBusy, setBusy] = useState(false);
  if (handover === undefined)
    return <p className="text-soft">This boat has no handover yet, so the call cannot be logged.</p>;
  if (isKept)
    return (
      <p role="status">
        The call is logged with the boat's handover. It is listed under{" "}
        <Link to="/aftercare/calls" className="underline">
          Calls
        </Link>
        .
      </p>
    );
  const log = async () => {
    setBusy(true);
    const minutes = (Date.now() - finder.beganMs) / 60_000;
    const fault = describeCall(finder.model, finder.findings, { minutes, goesOn });
    const here = new Set(delivery.data?.topics.map(({ id }) => id));
    const topic = fault.cause === null ? null : findTaught(content, fault.cause.kind, here);
    const note = `Dock call, ${fault.minutes} min. ${sayFindings(finder, tellPlain)}`.slice(0, 1000);
    await syncQueue.add(handover.id, { kind: "call", topic, note, fault });
    if (isQuestion && goesOn !== null && fault.cause !== null)
      await syncQueue.add(handover.id, { kind: "settle", ref: goesOn, note: `By phone: ${fault.cause.label}` });
    void queryClient.invalidateQueries({ queryKey: dockCallsQuery.queryKey });
    setKept(true);
  };
  return (
    <p className="flex flex-wrap items-center gap-3">
      <Button
        look={finder.fault === null ? "plain" : "primary"}
        className="min-h-12"
        disabled={isBusy || delivery.isLoading}
        onClick={() => void log()}
      >
        {finder.fault === null ? "Log the call, cause open" : "Log the call"}
      </Button>
      <span className="text-soft">{sayFindings(finder, tellPlain)}</span>
    </p>
  );
}
