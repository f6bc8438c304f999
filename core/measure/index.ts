export {
  findChargeShare,
  formatMeasure,
  type Judged,
  judgeMeasure,
  type Reading,
  type Verdict,
  verdicts,
} from "./judgeMeasure.ts";
export { listMeasures, type Measure, type MeasureKind, measureKinds } from "./listMeasures.ts";
