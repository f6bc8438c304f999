import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { boatQuery } from "../../app/queries.ts";
import { useDelivery } from "../../handover/useDelivery.ts";
import { useWalkState } from "../../offline/useSync.ts";
import { PowerView } from "../../power/PowerView.tsx";
import { Fetched } from "../../ui/Fetched.tsx";

const backLook = "inline-flex min-h-11 items-center underline";

/** The power map of a boat. */
export function PowerScreen() {
  const { boat: id } = useParams() as { boat: string };
  const query = useQuery(boatQuery(id));
  return (
    <Fetched query={query} what="the boat">
      {({ rig, name, hull }) => (
        <PowerView
          rig={rig}
          back={
            <Link to={`/boats/${id}`} className={backLook}>
              {name} {hull}
            </Link>
          }
        />
      )}
    </Fetched>
  );
}

/** Volts of each battery as the walk read them; one just off charge reads high and is left out. */
function WalkPower({ delivery }: { delivery: Delivery }) {
  const { measures } = useWalkState(delivery);
  const volts = Object.fromEntries(
    delivery.rig.batteries.flatMap(({ id }) => {
      const read = measures.get(`battery-${id}`);
      return read === undefined || read.isJustCharged === true ? [] : [[id, read.value]];
    }),
  );
  return (
    <PowerView
      rig={delivery.rig}
      volts={volts}
      back={
        <Link to={`/deliveries/${delivery.id}/walk`} className={backLook}>
          Back to the walk
        </Link>
      }
    />
  );
}

/** The power map out of a walk: of the boat as the walk has it, so that it opens without signal. */
export function WalkPowerScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const query = useDelivery(id);
  return (
    <Fetched query={query} what="the handover">
      {(delivery) => <WalkPower delivery={delivery} />}
    </Fetched>
  );
}
