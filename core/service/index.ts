export { due } from "./due.ts";
export {
  type DueInput,
  type DueItem,
  type DueOutput,
  type DueState,
  dueInputSchema,
  dueOutputSchema,
  dueStateSchema,
} from "./dueContract.ts";
export { createHoursLine } from "./hoursLine.ts";
export { findLast, type ItemTarget, nextTargets } from "./nextTargets.ts";
export {
  estimateHours,
  keptServicePackSchema,
  listComing,
  type ServiceItem,
  type ServicePack,
  seasonEnd,
  seasonStart,
  servicePackSchema,
} from "./pack.ts";
export {
  type Dated,
  type PlannedItem,
  type PlannedVisit,
  plannedItemSchema,
  plannedVisitSchema,
  planYears,
  type Scope,
} from "./planYears.ts";
export { type VisitsInput, type VisitsOutput, visits, visitsInputSchema, visitsOutputSchema } from "./visits.ts";
