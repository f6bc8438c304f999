import { z } from "zod";

const hoursSchema = z.number().min(0).max(1e6);
export const rpmSchema = z.number().min(0, "must not be negative").max(20_000, "is more than any engine turns");

/** The limits that hold from `fromH` to before `toH` engine hours. A rule that is left out does not hold there. */
export const limitPhaseSchema = z
  .strictObject({
    fromH: hoursSchema,
    toH: hoursSchema,
    maxRpm: rpmSchema.optional(),
    wot: z.strictObject({ rpm: rpmSchema, maxContinuousS: z.number().min(0) }).optional(),
    steady: z.strictObject({ bandRpm: rpmSchema, aboveRpm: rpmSchema, maxMin: z.number().min(0) }).optional(),
    idle: z.strictObject({ belowRpm: rpmSchema, maxMin: z.number().min(0) }).optional(),
  })
  .refine(({ fromH, toH }) => fromH < toH, { path: ["toH"], message: "must be later than fromH" });
export type LimitPhase = z.infer<typeof limitPhaseSchema>;

export const limitPhasesSchema = z
  .array(limitPhaseSchema)
  .max(200)
  .superRefine((phases, check) => {
    const inOrder = phases.map((phase, i) => ({ ...phase, i })).sort((a, b) => a.fromH - b.fromH);
    inOrder.forEach(({ fromH, i }, n) => {
      if (n > 0 && fromH < inOrder[n - 1]!.toH)
        check.addIssue({ code: "custom", path: [i, "fromH"], message: "overlaps another phase" });
    });
  });

/** Input of the contract `breakin-trace`: rpm against seconds, and the limits of each stretch of engine hours. */
export const traceInputSchema = z.strictObject({
  phases: limitPhasesSchema,
  hoursBefore: hoursSchema,
  samples: z
    .array(z.tuple([z.number(), rpmSchema]))
    .max(2_000_000)
    .superRefine((samples, check) => {
      for (let i = 1; i < samples.length; i++)
        if (samples[i]![0] <= samples[i - 1]![0]) {
          check.addIssue({ code: "custom", path: [i, 0], message: "must be later than the sample before" });
          return;
        }
    }),
  runningRpm: rpmSchema.optional(),
  gapS: z.number().positive().optional(),
  graceS: z.number().min(0).optional(),
});
export type TraceInput = z.infer<typeof traceInputSchema>;

export const traceRules = ["over-rpm", "wot", "steady", "idle"] as const;
export const breachSchema = z.strictObject({
  rule: z.enum(traceRules),
  startS: z.number(),
  endS: z.number(),
  peakRpm: z.number(),
});
export type Breach = z.infer<typeof breachSchema>;

export const traceOutputSchema = z.strictObject({
  runS: z.number(),
  hoursAfter: z.number(),
  gaps: z.int(),
  bands: z.array(z.strictObject({ fromRpm: z.number(), s: z.number() })),
  breaches: z.array(breachSchema),
  longestSteadyS: z.number(),
  wotS: z.number(),
});
export type TraceOutput = z.infer<typeof traceOutputSchema>;
