import type { Delivery } from "../../api/index.ts";
import type { WalkState } from "../../core/walk/index.ts";
import { DeckPlan } from "./DeckPlan.tsx";
import { listWrong } from "./listWrong.ts";
import { signStations } from "./signs.ts";

/** The deck plan of a handover as a picture: its course and how far it has been walked. */
export function DeliveryPlan({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  return (
    <DeckPlan
      rig={delivery.rig}
      plan={delivery.plan}
      signs={signStations(delivery.plan, delivery.topics, state, null)}
      wrong={listWrong(state)}
      className="size-full"
    />
  );
}
