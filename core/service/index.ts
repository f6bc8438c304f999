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
export {
  compareDue,
  type DueDay,
  dueDaySchema,
  findDue,
  listDue,
  type Scope,
  type ServiceDue,
} from "./listDue.ts";
export {
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
} from "./planYears.ts";
export { type Done, findLast, findTarget } from "./targets.ts";
export { type VisitsInput, type VisitsOutput, visits, visitsInputSchema, visitsOutputSchema } from "./visits.ts";
