export { type RampInput, type RampOutput, ramp, rampInputSchema, rampOutputSchema } from "./ramp.ts";
