export {
  type BreakInPack,
  type BreakInStanding,
  breakInPackSchema,
  breakInStandingSchema,
  findBreakInStanding,
} from "./breakIn.ts";
export { breakInPlan, type NoPlan, sampleLegs } from "./breakInPlan.ts";
export { bandRpm, breakInTrace } from "./breakInTrace.ts";
export { adviseNext, createHoursAt, formatBreach, formatSeconds, minuteAt } from "./formatRun.ts";
export { createLimits, usualIdleRpm } from "./limits.ts";
export {
  type BreakInPlan,
  type BreakInPlanInput,
  breakInPlanInputSchema,
  breakInPlanOutputSchema,
  type Leg,
  legSchema,
} from "./planContract.ts";
export { planTogether, type Together } from "./planTogether.ts";
export { addBands, type Coverage, coverageSchema, describeCoverage, measureProgress } from "./progress.ts";
export {
  burnOf,
  type Fill,
  type FuelUse,
  measureFuel,
  type TankBurn,
  tanksBurnt,
  toHours,
  turnTanks,
} from "./tanks.ts";
export {
  type Breach,
  breachSchema,
  type LimitPhase,
  limitPhaseSchema,
  limitPhasesSchema,
  rpmSchema,
  type TraceInput,
  type TraceOutput,
  traceInputSchema,
  traceOutputSchema,
} from "./traceContract.ts";
