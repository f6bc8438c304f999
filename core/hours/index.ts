export {
  type DayRange,
  dayRangeSchema,
  describeExpected,
  type ExpectedDay,
  expectedDaySchema,
} from "./expected.ts";
export { type Fan, fanHours, fanSchema } from "./fan.ts";
export { type Belief, type DatesThen, forecastEngine, type HourForecast, usualTripH } from "./forecast.ts";
export {
  type FleetYear,
  type ForecastInput,
  type ForecastOutput,
  fleetYearSchema,
  forecastInputSchema,
  forecastOutputSchema,
  seasonShareSchema,
} from "./forecastContract.ts";
export { forecastHours, listIntervals } from "./forecastHours.ts";
export { type Fleet, learnFleet } from "./learnFleet.ts";
export { believeOwner, describeOwner, findRate, type Owner } from "./owner.ts";
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
export { createSeason, type Season } from "./season.ts";
