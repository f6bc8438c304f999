export { type ChargeSources, type Charging, listCharging } from "./charging.ts";
export {
  askEndurance,
  compareSelectors,
  type Drain,
  type Drawing,
  derate,
  findDeadPumps,
  hasOwnButton,
  listDrawing,
  listFloatPumps,
  pumpRunMin,
} from "./drain.ts";
export { drawWiring, type WiringDrawing } from "./drawWiring.ts";
export {
  type Chemistry,
  type EnduranceInput,
  type EnduranceOutput,
  endurance,
  enduranceInputSchema,
  enduranceOutputSchema,
  groupBatteries,
  usualFloor,
} from "./endurance.ts";
export { findOffSwitch, type LeftOn, listLeftOn, underWay } from "./leftOn.ts";
export { listUnreachable } from "./listUnreachable.ts";
export { live } from "./live.ts";
export { type LiveInput, type LiveOutput, linkSchema, liveInputSchema, liveOutputSchema } from "./liveContract.ts";
export {
  askLive,
  explainPower,
  findFeed,
  listLiveLinks,
  type PowerReason,
  type PowerSetting,
  turnAllOff,
} from "./powerState.ts";
export { listStartHelp, type StartHelp } from "./startSteps.ts";
export {
  atRest,
  createWiring,
  listNodes,
  listSwitches,
  nodeOf,
  toLiveInput,
  type Wiring,
  type WiringLink,
} from "./wireRig.ts";
