import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Boat } from "../../../api/index.ts";
import { boatQuery, deliveryQuery, faultsQuery } from "../../app/queries.ts";
import { FaultFinder } from "../../finder/Finder.tsx";
import { type Finder, sayFindings } from "../../finder/useFinder.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";

/** A dock call: somebody is on the phone with a boat that does something it should not. */
export function FinderScreen() {
  const { boat: id } = useParams() as { boat: string };
  const boat = useQuery(boatQuery(id));
  const faults = useQuery(faultsQuery);
  const [part, setPart] = useState<string | null>(null);
  return (
    <Fetched query={boat} what="the boat">
      {(data) => (
        <BoatPage
          plan={
            <DeckPlan rig={data.rig} parts={data.rig.parts.filter((each) => each.id === part)} className="size-full" />
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
              <FaultFinder
                rig={data.rig}
                content={content}
                phone={null}
                onPart={setPart}
                end={(finder) => <LogCall boat={data} finder={finder} />}
              />
            )}
          </Fetched>
        </BoatPage>
      )}
    </Fetched>
  );
}

/** The call with what was found, put down with the boat's handover: there it counts for what is forgotten in walks. */
function LogCall({ boat, finder }: { boat: Boat; finder: Finder }) {
  const handover = boat.deliveries.find(({ state }) => state === "signed") ?? boat.deliveries[0];
  const delivery = useQuery({ ...deliveryQuery(handover?.id ?? ""), enabled: handover !== undefined });
  const [isKept, setKept] = useState(false);
  const [isBusy, setBusy] = useState(false);
  if (handover === undefined)
    return (
      <p className="text-soft">This boat has no handover yet, so that there is nothing to put the call down with.</p>
    );
  if (isKept) return <p role="status">The call is put down with the boat's handover.</p>;
  const log = async () => {
    setBusy(true);
    const minutes = Math.max(1, Math.round((Date.now() - finder.beganMs) / 60_000));
    const of = boat.rig.parts.find(({ id }) => id === finder.fault?.part)?.kind;
    const topic = delivery.data?.topics.find((each) => of !== undefined && each.of === of)?.id ?? null;
    const note = `Dock call, ${minutes} min. ${sayFindings(finder)}`.slice(0, 1000);
    await syncQueue.add(handover.id, { kind: "call", topic, note });
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
        {finder.fault === null ? "Put the call down, cause open" : "Put the call down"}
      </Button>
      <span className="text-soft">{sayFindings(finder)}</span>
    </p>
  );
}
