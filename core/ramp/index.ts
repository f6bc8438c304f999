export { drawRamp, type RampDrawing, type RampPoint, type RampScene } from "./drawRamp.ts";
export { type FittedRamp, fitLaunches, type Launch, launchSchema, markOn, withFitted } from "./fitLaunches.ts";
export { type RampInput, type RampOutput, ramp, rampInputSchema, rampOutputSchema } from "./ramp.ts";
export { gradeOf, type RampSheet, rampSheetSchema, surfaces } from "./rampSheet.ts";
