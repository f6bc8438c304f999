export { type FirstService, type FirstServiceFate, firstServiceFates, judgeFirstService } from "./firstService.ts";
export {
  areApart,
  type Estimate,
  estimateMean,
  estimateMedian,
  estimateRate,
  estimateShare,
  leastForMean,
} from "./interval.ts";
export { type MinutesLine, type MinutesReport, reportMinutes, type SpentGroup } from "./minutesReport.ts";
export {
  type Call,
  type Counting,
  callDays,
  judgePromise,
  listCalls,
  type OwedEntry,
  type OwedTale,
  type PromiseFate,
  reportCalls,
  reportPromises,
  reportSnags,
  tellOwed,
} from "./owedReport.ts";
export { type Counted, reportShares, type ShareLine } from "./shares.ts";
