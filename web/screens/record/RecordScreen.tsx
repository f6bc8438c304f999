import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { type Entry, foldWalk, listOwed } from "../../../core/walk/index.ts";
import { deliveryQuery } from "../../app/queries.ts";
import { OwnerLink } from "../../handover/OwnerLink.tsx";
import { useStaffName } from "../../handover/useStaffName.ts";
import { useNews } from "../../offline/useNews.ts";
import { useEntries, useWalkState } from "../../offline/useSync.ts";
import { OwedList } from "../../owed/OwedList.tsx";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeliveryPlan } from "../../plan/DeliveryPlan.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { PhotoRow } from "../../ui/Photos.tsx";
import { AddedSince } from "./AddedSince.tsx";
import { BuyerTakes } from "./BuyerTakes.tsx";
import { Downloads } from "./Downloads.tsx";
import { Explained } from "./Explained.tsx";
import { RecordHead, SealLine } from "./RecordHead.tsx";
import { Arrived, Cautions, HoursAndGear, Measured, PutRightList, Signed } from "./RecordParts.tsx";
import { TheirData } from "./TheirData.tsx";

/** The record: what was explained, given and owed, as sealed, and what was added since. */
export function RecordScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useQuery(deliveryQuery(id));
  return (
    <Fetched query={delivery} what="the record">
      {(data) => <RecordOf delivery={data} />}
    </Fetched>
  );
}

function RecordOf({ delivery }: { delivery: Delivery }) {
  const now = useWalkState(delivery);
  const entries = useEntries(delivery);
  const { sealedEntries, later } = splitAtSeal(delivery, entries);
  // Sealed, the record shows what was sealed; what was added stands below it.
  const state = delivery.seal === null ? now : foldWalk(sealedEntries);
  useNews(delivery.id);
  const nameOf = useStaffName(delivery);
  const owed = listOwed(delivery.topics, delivery.rig.gear, now);
  return (
    <BoatPage plan={<DeliveryPlan delivery={delivery} state={state} />}>
      <RecordHead delivery={delivery} state={state} nameOf={nameOf} />
      {delivery.seal !== null && <BuyerTakes delivery={delivery} state={state} />}
      <SealLine delivery={delivery} />
      <div className="mt-6 grid gap-x-10 gap-y-7 xl:grid-cols-[minmax(0,1fr)_310px]">
        <Explained delivery={delivery} state={state} nameOf={nameOf} />
        <div className="space-y-7 max-xl:order-first">
          <section aria-labelledby="owed">
            <h2 id="owed" className="text-lg font-bold">
              Owed to the buyer
            </h2>
            <OwedList delivery={delivery} state={state} owed={owed} />
          </section>
          <PutRightList state={state} nameOf={nameOf} />
          <HoursAndGear delivery={delivery} state={state} />
          <Measured delivery={delivery} state={state} />
          {state.photos.length > 0 && (
            <section aria-labelledby="photos">
              <h2 id="photos" className="text-lg font-bold">
                Photos <span className="num font-normal text-soft">{state.photos.length}</span>
              </h2>
              <div className="border-t border-ink">
                <PhotoRow photos={state.photos} says="Of this handover" />
              </div>
            </section>
          )}
          <Arrived delivery={delivery} state={state} />
          <Signed delivery={delivery} state={state} nameOf={nameOf} />
          <AddedSince delivery={delivery} later={later} nameOf={nameOf} />
          {delivery.seal === null && <OwnerLink delivery={delivery} state={state} />}
          <Downloads delivery={delivery} />
          <TheirData delivery={delivery} />
          <Cautions delivery={delivery} state={state} />
        </div>
      </div>
    </BoatPage>
  );
}

/** The sealed entries and, in the order of their coming, those that came after or were not covered. */
function splitAtSeal({ seal, added, receipts, strikes, entries: known }: Delivery, entries: readonly Entry[]) {
  if (seal === null) return { sealedEntries: entries, later: [] };
  const later = new Set(added);
  const struck = new Set(strikes.flatMap((strike) => strike.entries));
  const inside = new Set(known.map(({ id }) => id).filter((id) => !later.has(id)));
  const orderOf = ({ id }: Entry) => receipts[id]?.number ?? Number.POSITIVE_INFINITY;
  return {
    sealedEntries: entries.filter(({ id }) => inside.has(id)),
    later: entries
      .filter(({ id, kind }) => !inside.has(id) && !struck.has(id) && kind !== "close")
      .sort((a, b) => orderOf(a) - orderOf(b)),
  };
}
