import { useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";
import type { Delivery, Guides } from "../../../api/index.ts";
import { formatBuyers } from "../../../core/walk/index.ts";
import { addressOf } from "../../app/client.ts";
import { boatQuery, guidesQuery } from "../../app/queries.ts";
import { useDelivery } from "../../handover/useDelivery.ts";
import { syncQueue, useSyncStatus, useWalkState } from "../../offline/useSync.ts";
import { OfficerView } from "../../trip/OfficerView.tsx";
import { TripPlanner } from "../../trip/TripPlanner.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { storeDay, storeZone } from "../../ui/storeTime.ts";

/** The first day out, planned with the handover it belongs to; and the safety gear as an officer asks for it. */
export function TripScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useDelivery(id);
  const guides = useQuery(guidesQuery);
  return (
    <main className="px-4 pt-4 pb-12 md:px-8">
      <Fetched query={delivery} what="the handover">
        {(data) => (
          <Fetched query={guides} what="the rules">
            {(content) => <TripOf delivery={data} guides={content} />}
          </Fetched>
        )}
      </Fetched>
    </main>
  );
}

function TripOf({ delivery, guides: { gearPacks, hasForecast } }: { delivery: Delivery; guides: Guides }) {
  const state = useWalkState(delivery);
  // What is still to be sent changes with it.
  useSyncStatus();
  const [search] = useSearchParams();
  // Hours and break-in come with the boat's page; without signal the trip is planned all the same.
  const boat = useQuery({ ...boatQuery(delivery.boat), retry: false });
  const isOfficer = search.get("view") === "officer";
  const { id, rig, boatName, hull, buyers, planOptions } = delivery;
  return (
    <>
      <nav aria-label="Trip of" className="head mb-2 flex flex-wrap items-center gap-x-4 text-soft">
        <Link to={`/boats/${delivery.boat}`} className="inline-flex min-h-11 items-center underline">
          {boatName} {hull}
        </Link>
        <span className="min-w-0 break-words">{formatBuyers(buyers)}</span>
        <Link to={isOfficer ? "?" : "?view=officer"} className="inline-flex min-h-11 items-center underline">
          {isOfficer ? "Back to the trip" : "Show it to an officer"}
        </Link>
      </nav>
      {isOfficer ? (
        <>
          <h1 className="mb-3 text-2xl font-extrabold">Safety check</h1>
          <OfficerView rig={rig} pack={gearPacks[0]!} counted={state.gear} />
        </>
      ) : (
        <TripPlanner
          port={{
            key: id,
            rig,
            boatName,
            hull,
            buyers: buyers.map(({ name }) => name),
            trips: state.trips,
            counted: state.gear,
            packs: gearPacks,
            care: boat.data?.care ?? [],
            today: storeDay(Date.now()),
            timeZone: storeZone(),
            hasForecast,
            isAtYard: (trip) => {
              const entry = state.trips.get(trip);
              return entry !== undefined && !syncQueue.isUnsent(entry.id);
            },
            onSave: (trip, plan) => void syncQueue.add(id, { kind: "trip", trip, plan }),
            pdfOf: (trip) => addressOf("tripPdf", { delivery: id, trip }),
            language: planOptions.language ?? "en",
          }}
        />
      )}
    </>
  );
}
