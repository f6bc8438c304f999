import { z } from "zod";
import { instantSchema } from "../dates/index.ts";
import { plainText } from "../rig/index.ts";
import type { RampInput } from "./ramp.ts";
import { ramp } from "./ramp.ts";

/** One launch as it was seen: on which grade the stern floated with the top of the fender how far under (negative: out of the water). */
export const launchSchema = z.strictObject({
  id: z.string().min(1).max(60),
  at: instantSchema,
  by: plainText(80),
  ramp: plainText(60),
  gradePct: z.number().gt(0).max(45),
  fenderUnderM: z.number().min(-2).max(2),
});
export type Launch = z.infer<typeof launchSchema>;

/**
 * How far the figures of the sheet are believed before anybody has launched, and how well a mark is seen from the dock: standard
 * deviations in metres. Ours: a bunk measured in the yard gives under the boat, a draft is the maker's of an empty boat, and
 * ripples hide a hand's width.
 */
const bunkSdM = 0.06;
const draftSdM = 0.08;
const seenSdM = 0.04;

export interface FittedRamp {
  readonly bunkHeightM: number;
  readonly sternDraftM: number;
  /** How sure the mark is on the grade asked about: its standard deviation, metres. */
  readonly markSdM: number;
}

/**
 * Bunk height and draft by the launches that were seen (least squares with the sheet's figures as prior: a linear Gaussian
 * update). With the stern just afloat, draft + bunk · cos θ = s · sin θ, and s follows from the mark: two unknowns of which each
 * launch gives one sum, so that only launches on ramps of different grades tell them apart; the mark needs no more than the sum.
 */
export function fitLaunches(ask: RampInput, launches: readonly Launch[]): FittedRamp {
  const { trailer } = ask;
  let [bunk, draft] = [trailer.bunkHeightM, ask.boat.sternDraftM];
  // Covariance of (bunk, draft).
  let [bb, bd, dd] = [bunkSdM ** 2, 0, draftSdM ** 2];
  for (const { gradePct, fenderUnderM } of launches) {
    const angle = Math.atan(gradePct / 100);
    const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
    const seen = fenderUnderM + trailer.fenderHeightM * cos + trailer.fenderFromTransomM * sin;
    const [gb, gd] = [bb * cos + bd, bd * cos + dd];
    const variance = gb * cos + gd + seenSdM ** 2;
    const off = seen - (bunk * cos + draft);
    bunk += (gb / variance) * off;
    draft += (gd / variance) * off;
    [bb, bd, dd] = [bb - (gb * gb) / variance, bd - (gb * gd) / variance, dd - (gd * gd) / variance];
  }
  const cos = Math.cos(Math.atan(ask.gradePct / 100));
  return {
    // Whatever was seen, a bunk is not below the ground nor a draft above the water.
    bunkHeightM: Math.max(0, bunk),
    sternDraftM: Math.max(0, draft),
    markSdM: Math.sqrt(Math.max(0, bb * cos * cos + 2 * bd * cos + dd)),
  };
}

/** The question with the fitted figures in the sheet's place. */
export const withFitted = (ask: RampInput, { bunkHeightM, sternDraftM }: FittedRamp): RampInput => ({
  ...ask,
  trailer: { ...ask.trailer, bunkHeightM },
  boat: { sternDraftM },
});

/** What the mark is on a grade with these figures. */
export const markOn = (ask: RampInput, gradePct: number): number => ramp({ ...ask, gradePct }).fenderUnderM;
