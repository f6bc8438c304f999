export { expectJob } from "./expectJobs.ts";
export { flattenLoad, type Offer, offerSchema } from "./flatten.ts";
export {
  chanceIn,
  type ExpectedJob,
  type JobKind,
  jobKinds,
  type LoadWeek,
  loadWeekSchema,
  loadWeeks,
  sumLoad,
} from "./load.ts";
export {
  capacityOfDay,
  capacityOfWeek,
  createWeekGrid,
  findOpenDay,
  listWeeks,
  startOfWeek,
  type WeekGrid,
  type Workshop,
  weekOf,
  workshopSchema,
} from "./weeks.ts";
