export { createCsvRun, findDelimiter, guessRunColumns, type RunColumns, readNumber, readTime } from "./csvRun.ts";
export { checksumOf, createNmeaRun } from "./nmeaRun.ts";
export { mostRpm, type ReadRun, type TraceFault } from "./readRows.ts";
