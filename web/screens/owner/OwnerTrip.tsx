import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import { foldWalk, type WalkState } from "../../../core/walk/index.ts";
import { addressOf } from "../../app/client.ts";
import { guidesQuery } from "../../app/queries.ts";
import { WaitingPosts } from "../../handover/WaitingPosts.tsx";
import { OfficerView } from "../../trip/OfficerView.tsx";
import { TripPlanner } from "../../trip/TripPlanner.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay, storeZone } from "../../ui/storeTime.ts";
import { useTell } from "../../ui/tell.ts";
import { useOwnerEntries } from "./useOwnerEntries.ts";

interface OwnerTripProps {
  readonly token: string;
  readonly page: OwnerPage;
  readonly state: WalkState;
  readonly isOfficer: boolean;
}

/** A day out on the owner's own phone, and the safety gear as an officer asks for it. */
export default function OwnerTrip({ token, page, state, isOfficer }: OwnerTripProps) {
  const tell = useTell();
  const guides = useQuery(guidesQuery);
  const { entries, add, error } = useOwnerEntries(token, page);
  const { trips } = useMemo(() => foldWalk(entries), [entries]);
  const { rig, boatName, hull, buyers, id, planOptions } = page.delivery;
  return (
    <>
      {error !== null && <ErrorNotice error={error} />}
      <WaitingPosts about={token} engines={page.delivery.rig.engines} />
      <Fetched query={guides} what={tell("the rules")}>
        {({ gearPacks, hasForecast }) =>
          isOfficer ? (
            <>
              <h2 className="mb-3 text-2xl font-extrabold">{tell("Safety check")}</h2>
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
                trips,
                counted: state.gear,
                packs: gearPacks,
                care: page.care,
                today: storeDay(Date.now()),
                timeZone: storeZone(),
                hasForecast,
                isAtYard: (trip) => page.delivery.entries.some(({ id: known }) => known === trips.get(trip)?.id),
                onSave: (trip, plan) => add({ kind: "trip", trip, plan }, tell("a trip")),
                pdfOf: (trip) => addressOf("ownerTripPdf", { token, trip }),
                language: planOptions.language ?? "en",
              }}
            />
          )
        }
      </Fetched>
    </>
  );
}
