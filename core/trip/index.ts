export { courseDeg, distanceNm, type Position } from "./chart.ts";
export {
  type JudgedTrip,
  judgeTrip,
  type ReasonWeight,
  type TripReason,
  tripReasons,
} from "./judgeTrip.ts";
export { type GpxFault, type ReadRoute, type RouteLeg, readGpx } from "./readGpx.ts";
export { readWind, type WindFault } from "./readWind.ts";
export {
  type ClockIdiom,
  fromContractClock,
  overdueAfterMin,
  sayClock,
  sayContractClock,
  sayReason,
  writeAshoreMessage,
} from "./sayTrip.ts";
export { type SunDay, sunOn } from "./sun.ts";
export { type TripInput, type TripOutput, trip, tripInputSchema, tripOutputSchema } from "./trip.ts";
export { type TripPlan, tripPlanSchema, windSources } from "./tripPlan.ts";
