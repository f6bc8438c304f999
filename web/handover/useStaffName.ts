import type { Delivery } from "../../api/index.ts";
import { ownerId } from "../../core/walk/index.ts";
import { useMe } from "../app/useMe.ts";

/** Names of who entered what in a handover: of staff it knows, of whoever is here now and entered since, and of its owner. */
export function useStaffName({ staff }: Pick<Delivery, "staff">): (id: string) => string {
  const me = useMe();
  return (id) =>
    id === ownerId
      ? "the owner"
      : (staff.find((person) => person.id === id)?.name ?? (id === me.id ? me.name : "a colleague"));
}
