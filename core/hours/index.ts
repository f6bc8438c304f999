export { chanceOfReaching, type Fan, fanHours, fanSchema, measureRun } from "./fan.ts";
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
export { createSeasonLine, sumSeason } from "./internal/season.ts";
export { type Fleet, learnFleet } from "./learnFleet.ts";
export { believeOwner, describeOwner, type Owner } from "./owner.ts";
export {
  askHandoverHours,
  askReading,
  findDrift,
  listAnswers,
  type Reading,
  type ReadingAnswer,
  type ReadingQuestion,
  type ReadingSource,
  type Resolved,
  readingAnswerSchema,
  readingAnswers,
  readingSources,
  resolveReadings,
} from "./readings.ts";
