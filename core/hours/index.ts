export {
  type FleetYear,
  type ForecastInput,
  type ForecastOutput,
  fleetYearSchema,
  forecastInputSchema,
  forecastOutputSchema,
  seasonShareSchema,
} from "./forecastContract.ts";
export { forecastHours, listIntervals, usualTripH } from "./forecastHours.ts";
export { believeOwner, describeOwner, type Owner } from "./owner.ts";
