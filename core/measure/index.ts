export {
  findChargeShare,
  formatMeasure,
  type Judged,
  judgeMeasure,
  type Reading,
  type Verdict,
  verdicts,
} from "./judgeMeasure.ts";
export {
  bilgeChoices,
  listMeasures,
  type Measure,
  type MeasureKind,
  measureKinds,
  oilChoices,
  tyreNames,
} from "./listMeasures.ts";
