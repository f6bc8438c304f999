import { z } from "zod";

const lengthM = z.number().min(0).max(100);

/** Input of the contract `ramp`: grade as rise over run × 100, lengths in metres along the trailer, heights square to it. */
export const rampInputSchema = z.strictObject({
  gradePct: z.number().gt(0).max(1000),
  trailer: z.strictObject({
    hitchToTransomM: lengthM,
    bunkHeightM: lengthM,
    fenderFromTransomM: lengthM,
    fenderHeightM: lengthM,
  }),
  boat: z.strictObject({ sternDraftM: lengthM }),
  vehicle: z.strictObject({ hitchToRearAxleM: lengthM, wadeLimitM: lengthM }),
});
export const rampOutputSchema = z.strictObject({
  transomS: z.number(),
  rearWheelDepthM: z.number().min(0),
  fenderUnderM: z.number(),
  verdict: z.enum(["ok", "wheels-too-deep"]),
  minGradePct: z.number().nullable(),
});
export type RampInput = z.infer<typeof rampInputSchema>;
export type RampOutput = z.infer<typeof rampOutputSchema>;

const steepestPct = 40;
const stepsPerPct = 10;

/**
 * How far to back in until the stern floats (contract `ramp`), with the trailer parallel to the ramp: how far down the transom
 * is then, how deep the vehicle's rear wheels stand, how far the top of the fender is under, and the gentlest grade at which
 * the wheels stay within their limit.
 */
export function ramp(input: RampInput): RampOutput {
  const here = backIn(input, input.gradePct);
  let minGradePct: number | null = null;
  for (let step = 1; step <= steepestPct * stepsPerPct && minGradePct === null; step++)
    if (backIn(input, step / stepsPerPct).verdict === "ok") minGradePct = step / stepsPerPct;
  return { ...here, minGradePct };
}

function backIn({ trailer, boat, vehicle }: RampInput, gradePct: number): Omit<RampOutput, "minGradePct"> {
  const angle = Math.atan(gradePct / 100);
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  const transomS = (boat.sternDraftM + trailer.bunkHeightM * cos) / sin;
  const rearWheelDepthM = Math.max(0, (transomS - trailer.hitchToTransomM - vehicle.hitchToRearAxleM) * sin);
  const fenderUnderM = (transomS - trailer.fenderFromTransomM) * sin - trailer.fenderHeightM * cos;
  const verdict = rearWheelDepthM > vehicle.wadeLimitM ? "wheels-too-deep" : "ok";
  return { transomS, rearWheelDepthM, fenderUnderM, verdict };
}
