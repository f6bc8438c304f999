import { nameKey } from "../repositories/buyers.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";

type Handover = Pick<DeliveryRecord, "id" | "date" | "buyers">;

/** The handovers of a boat before this one to people of whom none is here now: a second session is no resale. */
export function listFormer<H extends Handover>(now: Handover, ofBoat: readonly H[]): H[] {
  const names = new Set(now.buyers.map(({ name }) => nameKey(name)));
  return ofBoat.filter(
    ({ id, date, buyers }) =>
      id !== now.id && date <= now.date && !buyers.some((buyer) => names.has(nameKey(buyer.name))),
  );
}

/** Whether the boat is to go, or has gone, to others after this handover. */
export async function isForOthers(
  deliveries: Pick<Deliveries, "listOfBoats">,
  { id, boatId }: Pick<DeliveryRecord, "id" | "boatId">,
  isLater: (later: DeliveryRecord) => boolean = () => true,
): Promise<boolean> {
  const ofBoat = await deliveries.listOfBoats([boatId]);
  return ofBoat.some((later) => isLater(later) && listFormer(later, ofBoat).some((former) => former.id === id));
}

/** Whether it has been handed to them: its former people get no page of it any more. */
export const isResold = (...[deliveries, of]: Parameters<typeof isForOthers>): Promise<boolean> =>
  isForOthers(deliveries, of, ({ summary }) => summary.state === "signed");
