export { checkRig } from "./checkRig.ts";
export { compareRigs, type Difference } from "./compareRigs.ts";
export { type Condition, conditionSchema, isMet } from "./condition.ts";
export { type Ask, type ConditionRows, type Fact, readRows, writeRows } from "./conditionRows.ts";
export { type BoatFacts, createRig, createTrailer } from "./createRig.ts";
export {
  addItem,
  changeItem,
  changePart,
  createItemId,
  createPart,
  findNearestStation,
  type ItemOf,
  isReachDoubtful,
  moveItem,
  type RigList,
  removeItem,
  rigLists,
} from "./editRig.ts";
export { explainCondition } from "./explainCondition.ts";
export {
  describeCondition,
  describeFact,
  describeRows,
  findFact,
  type OfferedFact,
  offeredFacts,
  schemeNames,
} from "./facts.ts";
export { quantityOf, readFigure, sayFigure, setFigure, typedOf } from "./figures.ts";
export {
  type CheckAids,
  type Finding,
  type FindingKind,
  findingKinds,
  type SheetSection,
  sheetSections,
} from "./finding.ts";
export { hasBehind } from "./hasBehind.ts";
export { type HullNumber, readHullNumber, serialOf } from "./hullNumber.ts";
export { cornersOf, createMoveMap, findStation, type MoveMap, movePace } from "./moves.ts";
export { nameBattery } from "./nameBattery.ts";
export { formatPartKind, namePart, partGroups } from "./partGroups.ts";
export { resizeRig } from "./resizeRig.ts";
export {
  batteryUses,
  breakerSchema,
  type Engine,
  engineKinds,
  engineSchema,
  families,
  loadSchema,
  type MeterKind,
  meterKinds,
  type PanelSwitch,
  type Part,
  type PartKind,
  type Place,
  panelSwitchSchema,
  partKinds,
  partSchema,
  placeSchema,
  plainText,
  powerSchemes,
  type Rig,
  rigSchema,
  type Station,
  type StationKind,
  stationKinds,
  stationSchema,
  switchKinds,
  trailerSchema,
} from "./rig.ts";
export { sayPlace } from "./sayPlace.ts";
export { type PowerChoice, readPower, setPower } from "./setPower.ts";
export { isStandIn, listUnread, sumTankL, type Unread } from "./unread.ts";
export { confirmUsual, listUsual, putUsual } from "./usualPlaces.ts";
export {
  completeWorks,
  drawBy,
  feedBy,
  findWorks,
  guardBy,
  isPowered,
  isPumped,
  isSwitchedOnPanel,
  isWatered,
  listMissingWorks,
  switchBy,
  type WorksBy,
} from "./worksBy.ts";
