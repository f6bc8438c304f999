export { type FirstService, type FirstServiceFate, firstServiceFates, judgeFirstService } from "./firstService.ts";
export { areApart, type Estimate, estimateMean, estimateShare, leastForMean } from "./interval.ts";
export { type MinutesLine, type MinutesReport, reportMinutes, type SpentGroup } from "./minutesReport.ts";
export { type Counted, reportShares, type ShareLine } from "./shares.ts";
