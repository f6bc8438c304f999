import { serialOf } from "../../core/rig/index.ts";
import { formatBuyers, unnamedOwner } from "../../core/walk/index.ts";
import type { BoatHead, Boats } from "../repositories/boats.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";
import { contactOf } from "./contactOf.ts";
import { groupByBoat } from "./groupByBoat.ts";

/** What a boat is called where it stands in a list. */
export interface NamedBoat {
  readonly boatName: string;
  readonly serial: string;
  /** Its people in one line; empty of a boat that nobody has bought yet. */
  readonly buyers: string;
}

/** Whose a boat is: the people it was handed to last, or whom its contact names; empty of one that nobody has bought yet. */
export function sayPeople(
  { contact, inService }: Pick<BoatHead, "contact" | "inService">,
  lastBuyers: DeliveryRecord["buyers"] | null,
): string {
  if (lastBuyers !== null) return formatBuyers(lastBuyers);
  return contactOf({ contact }).name || (inService === null ? "" : unnamedOwner);
}

/** The same; `sold`: handovers from first to last, the boat's own among them. */
export const listPeople = (boat: BoatHead, sold: readonly DeliveryRecord[]): string =>
  sayPeople(boat, sold.findLast(({ boatId }) => boatId === boat.id)?.buyers ?? null);

/** A boat's names for a list; `sold`: handovers, its own among them. */
export const nameBoat = (boat: BoatHead, sold: readonly DeliveryRecord[]): NamedBoat => ({
  boatName: boat.name,
  serial: serialOf(boat.hull),
  buyers: listPeople(boat, sold),
});

/** The names of these boats, whichever stage each is at. Throws at an id that no boat has. */
export async function nameBoats(
  { boats, deliveries }: { readonly boats: Boats; readonly deliveries: Deliveries },
  ids: readonly string[],
): Promise<(id: string) => NamedBoat> {
  const [heads, sold] = await Promise.all([boats.listHeads(ids), deliveries.listOfBoats(ids)]);
  const soldOf = groupByBoat(sold);
  const named = new Map(heads.map((boat) => [boat.id, nameBoat(boat, soldOf.get(boat.id) ?? [])]));
  return (id) => {
    const found = named.get(id);
    if (found === undefined) throw new Error(`nameBoats: expected a boat with the id ${id}`);
    return found;
  };
}
