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
export { listUnreachable } from "./listUnreachable.ts";
export { live } from "./live.ts";
export { type LiveInput, type LiveOutput, linkSchema, liveInputSchema, liveOutputSchema } from "./liveContract.ts";
export { createWiring, listNodes, listSwitches, nodeOf, toLiveInput, type Wiring, type WiringLink } from "./wireRig.ts";
