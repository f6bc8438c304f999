import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Boat } from "../../../api/index.ts";
import { boatQuery, dockCallsQuery, queryClient, rigQuery } from "../../app/queries.ts";
import { CallList } from "../../calls/CallList.tsx";
import { useSyncStatus } from "../../offline/useSync.ts";
import { OwedRow } from "../../owed/OwedRow.tsx";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { PhotoLink } from "../../ui/PhotoField.tsx";
import { formatDayAndYear, formatTimeOf } from "../../ui/words.ts";
import { BreakIn } from "./BreakIn.tsx";
import { HoursForm } from "./HoursForm.tsx";
import { NewHandover } from "./NewHandover.tsx";
import { ServicesDone } from "./ServicesDone.tsx";
import { ServiceTable } from "./ServiceTable.tsx";
import { StockLine } from "./StockLine.tsx";
import { YearsLine } from "./YearsLine.tsx";

/** One boat after delivery: break-in, the limits that hold now, what falls due, its hours. */
export function BoatScreen() {
  const { boat: id } = useParams() as { boat: string };
  const boat = useQuery(boatQuery(id));
  const { lastSentAtMs } = useSyncStatus();
  const [seenSentAtMs, setSeenSentAtMs] = useState(lastSentAtMs);
  // What was settled here is on the server now: fetch the boat again.
  if (seenSentAtMs !== lastSentAtMs) {
    setSeenSentAtMs(lastSentAtMs);
    void queryClient.invalidateQueries({ queryKey: boatQuery(id).queryKey });
  }
  return (
    <Fetched query={boat} what="the boat">
      {(data) => <BoatOf boat={data} />}
    </Fetched>
  );
}

const stateWords: Record<string, string> = { planned: "planned", walking: "under way", signed: "signed" };

function BoatOf({ boat }: { boat: Boat }) {
  const [place, setPlace] = useState<string | null>(null);
  const { rig } = boat;
  // The rig sheet is one touch away from here.
  useEffect(() => void queryClient.prefetchQuery(rigQuery(boat.id)), [boat.id]);
  return (
    <BoatPage
      plan={
        <DeckPlan
          rig={rig}
          onPick={(station) => setPlace(place === station ? null : station)}
          picked={place}
          parts={rig.parts.filter(({ station }) => station === place)}
          className="size-full"
        />
      }
    >
      <h1 className="text-2xl font-bold">
        {boat.name} <span className="font-medium text-soft">{boat.hull}</span>
      </h1>
      <p>
        {rig.maker} {rig.model}, {rig.modelYear}. {boat.buyers}
      </p>
      <nav aria-label="This boat" className="flex flex-wrap gap-x-5">
        {listPages(boat).map(([to, says]) => (
          <Link key={to} to={to} className="inline-flex min-h-11 items-center underline">
            {says}
          </Link>
        ))}
      </nav>
      <StockLine boat={boat} />
      {place !== null && <AtPlace rig={rig} place={place} />}
      {boat.inService === null && (
        <p className="mt-4 border-t border-ink py-4">
          {rig.used === undefined
            ? "Not handed over yet. Break-in and service begin with the hours read when the handover is closed."
            : "Used, and not handed over yet. Read its hours and write down what was done on it, here or before; what nobody knows counts as due."}
        </p>
      )}
      {boat.inService === null && rig.used !== undefined && (
        <>
          <ServiceTable boat={boat} />
          <ServicesDone boat={boat} />
          <HoursForm boat={boat} />
        </>
      )}
      {boat.inService !== null && (
        <>
          <BreakIn boat={boat} />
          <YearsLine boat={boat} />
          <ServiceTable boat={boat} />
          <ServicesDone boat={boat} />
          <HoursForm boat={boat} />
        </>
      )}
      <Calls boat={boat.id} />
      <OwedAndHandovers boat={boat} />
    </BoatPage>
  );
}

function AtPlace({ rig, place }: { rig: Boat["rig"]; place: string }) {
  const here = rig.parts.filter(({ station }) => station === place);
  return (
    <section aria-label="At this place" className="mt-3 border-l-4 border-helm bg-panel px-4 py-2">
      <h2 className="font-bold">{rig.stations.find(({ id }) => id === place)?.label}</h2>
      {here.length === 0 && <p className="text-soft">Nothing is placed here.</p>}
      <ul>
        {here.map(({ id, label, reach, holds, photo }) => (
          <li key={id}>
            {photo !== undefined && <PhotoLink photo={photo} says={label} />}
            <strong>{label}</strong>
            <span className="text-soft">
              {reach === undefined ? "" : `: ${reach}`}
              {holds === undefined ? "" : ` (${holds.join(", ")})`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What buyers rang about on this boat, where they did. */
function Calls({ boat }: { boat: string }) {
  const { data } = useQuery(dockCallsQuery);
  const calls = [...(data?.open ?? []), ...(data?.closed ?? [])].filter((call) => call.boat === boat);
  if (calls.length === 0) return null;
  return (
    <section className="mt-8">
      <h2 className="text-lg font-bold">Calls</h2>
      <CallList label="Calls" calls={calls} isOfBoat />
    </section>
  );
}

function OwedAndHandovers({ boat }: { boat: Boat }) {
  return (
    <div className="mt-8 grid gap-x-10 gap-y-7 lg:grid-cols-2">
      <section aria-labelledby="owed">
        <h2 id="owed" className="text-lg font-bold">
          Owed to the buyer
        </h2>
        <ul className="border-t border-ink">
          {boat.owed.length === 0 && <li className="py-2 text-soft">Nothing is owed.</li>}
          {boat.owed.map((line) => (
            <OwedRow key={line.ref} delivery={line.delivery} owed={line} />
          ))}
        </ul>
      </section>
      <section aria-labelledby="handovers">
        <h2 id="handovers" className="text-lg font-bold">
          Handovers
        </h2>
        <ul className="border-t border-ink">
          {boat.deliveries.map(({ id, date, time, state }) => (
            <li key={id} className="flex items-center justify-between border-b border-rule">
              <Link
                className="inline-flex min-h-11 items-center underline"
                to={state === "signed" ? `/deliveries/${id}/record` : `/deliveries/${id}`}
              >
                {formatDayAndYear(date)}, {formatTimeOf(time)}
              </Link>
              <span className="text-soft">{stateWords[state]}</span>
            </li>
          ))}
        </ul>
        <NewHandover boat={boat} />
      </section>
    </div>
  );
}

/** Where one goes on from a boat: its sheet, and what is done with it. */
function listPages({ id, rig, deliveries }: Boat): [to: string, says: string][] {
  const handover = deliveries.at(-1)?.id;
  const hasTrailer = rig.trailer !== null;
  return [
    [`/boats/${id}/rig`, "Boat sheet"],
    [`/boats/${id}/power`, "Power"],
    ...(hasTrailer
      ? ([
          [`/boats/${id}/tow`, "Towing"],
          [`/boats/${id}/ramp`, "At the ramp"],
        ] as [string, string][])
      : []),
    ...(handover === undefined
      ? []
      : ([
          [
            `/deliveries/${handover}/steps/${hasTrailer ? "hitch" : "put-away"}`,
            hasTrailer ? "Hitch, launch, load" : "Put away",
          ],
          [`/deliveries/${handover}/trip`, "Day out"],
        ] as [string, string][])),
    [`/boats/${id}/finder`, "It does not work"],
  ];
}
