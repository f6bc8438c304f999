import { addDays, type LocalDate } from "../dates/index.ts";
import type { DueDay } from "../service/index.ts";

/** Where a boat stands with the store, from stock to its years in use. */
export const boatStages = ["in-stock", "to-hand-over", "in-break-in", "service-due", "in-use"] as const;
export type BoatStage = (typeof boatStages)[number];

/** A service this near is called due. Days; as on Today. */
const soonDays = 30;

/**
 * The stage of a boat: what wants doing first. A boat that is handed over again is to be handed over; one whose service is due is that,
 * also in its break-in.
 */
export function findStage(
  {
    inService,
    nextDelivery,
    isBreakInOpen,
    due,
  }: {
    readonly inService: LocalDate | null;
    readonly nextDelivery: LocalDate | null;
    readonly isBreakInOpen: boolean;
    readonly due: Pick<DueDay, "dueDate" | "state"> | null;
  },
  today: LocalDate,
): BoatStage {
  if (nextDelivery !== null) return "to-hand-over";
  if (inService === null) return "in-stock";
  if (due !== null && (due.state === "overdue" || (due.dueDate !== null && due.dueDate <= addDays(today, soonDays))))
    return "service-due";
  return isBreakInOpen ? "in-break-in" : "in-use";
}
