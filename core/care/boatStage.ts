import { addDays, type LocalDate } from "../dates/index.ts";
import type { DueDay } from "../service/index.ts";

/** Where a boat stands with the store, from stock to its years in use. */
export const boatStages = ["in-stock", "making-ready", "to-hand-over", "in-break-in", "service-due", "in-use"] as const;
/** By what boats are listed: the next handover or service, name, who has it, stock number, when it was handed over. */
export const boatSorts = ["next", "name", "buyer", "stock", "sold"] as const;
export type BoatSort = (typeof boatSorts)[number];
export type BoatStage = (typeof boatStages)[number];

/** A service this near is called due. Days; as on Today. */
const soonDays = 30;
/** The last day on which a service is called due, seen from a day. */
export const soonBy = (today: LocalDate): LocalDate => addDays(today, soonDays);

/**
 * The stage of a boat: what wants doing first. A boat that is handed over again is to be handed over; one whose service is due is that,
 * also in its break-in. `dueBy`: see `soonBy`.
 */
export function findStage(
  {
    inService,
    nextDelivery,
    isMakingReady,
    isBreakInOpen,
    due,
  }: {
    readonly inService: LocalDate | null;
    readonly nextDelivery: LocalDate | null;
    /** The workshop has begun to make it ready for that handover. */
    readonly isMakingReady: boolean;
    readonly isBreakInOpen: boolean;
    readonly due: Pick<DueDay, "dueDate" | "state"> | null;
  },
  dueBy: LocalDate,
): BoatStage {
  if (nextDelivery !== null) return isMakingReady ? "making-ready" : "to-hand-over";
  if (inService === null) return "in-stock";
  if (due !== null && (due.state === "overdue" || (due.dueDate !== null && due.dueDate <= dueBy))) return "service-due";
  return isBreakInOpen ? "in-break-in" : "in-use";
}
