export { findChargeShare, type Judged, judgeMeasure, sayMeasure, type Verdict, verdicts } from "./judgeMeasure.ts";
export { listMeasures, type Measure, type MeasureKind, measureKinds } from "./listMeasures.ts";
