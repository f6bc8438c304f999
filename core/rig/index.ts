export { type Condition, conditionSchema, explainCondition, isMet } from "./condition.ts";
export { hasBehind } from "./hasBehind.ts";
export { cornersOf, createMoveMap, findStation, type MoveMap, movePace } from "./moves.ts";
export {
  families,
  type PanelSwitch,
  type Part,
  type PartKind,
  type Place,
  partKinds,
  placeSchema,
  plainText,
  type Rig,
  rigSchema,
  type Station,
  type StationKind,
  stationKinds,
} from "./rig.ts";
