import { z } from "zod";
import { limitPhasesSchema, rpmSchema } from "./traceContract.ts";

/** Input of the contract `breakin-plan`. `coveredS`: seconds run so far by the lower end of each 500-rpm band. */
export const breakInPlanInputSchema = z
  .strictObject({
    phases: limitPhasesSchema,
    hoursBefore: z.number().min(0).max(1e6),
    minutes: z.number().min(5).max(240),
    coveredS: z
      .record(z.string().regex(/^\d{1,5}$/, "must be the lower end of a band, in rpm"), z.number().min(0))
      .optional(),
    idleRpm: rpmSchema,
    topRpm: rpmSchema,
  })
  .refine(({ idleRpm, topRpm }) => idleRpm < topRpm, { path: ["topRpm"], message: "must be above idleRpm" });
export type BreakInPlanInput = z.infer<typeof breakInPlanInputSchema>;

export const legSchema = z.strictObject({ rpm: z.number(), minutes: z.number() });
export const breakInPlanOutputSchema = z.strictObject({ legs: z.array(legSchema) });
export type Leg = z.infer<typeof legSchema>;
export type BreakInPlan = z.infer<typeof breakInPlanOutputSchema>;
