import { z } from "zod";
import { plainText } from "../rig/index.ts";

/** One stage of a break-in, from `fromH` to before `toH` engine hours (or tanks, see `per`); limits as shares of the engine's rated rpm. */
const phaseSchema = z.strictObject({
  fromH: z.number().min(0),
  toH: z.number().positive(),
  maxShare: z.number().positive().max(1),
  say: plainText(200),
  wotMaxS: z.number().min(0),
  steadyMaxMin: z.number().positive(),
  /** Minutes it may idle at a time; ten where it is not said. */
  idleMaxMin: z.number().positive().optional(),
});

/** A break-in as data. The engine maker's manual comes first where it differs. */
export const breakInPackSchema = z
  .strictObject({
    id: z.string(),
    title: plainText(80),
    basis: plainText(200),
    /** What its stages are counted in: engine hours, or tanks of fuel, then turned into hours by tank and burn. */
    per: z.enum(["hour", "tank"]).optional(),
    totalH: z.number().positive(),
    phases: z.array(phaseSchema).min(1),
  })
  .superRefine((pack, check) => {
    pack.phases.forEach((phase, i) => {
      const from = i === 0 ? 0 : pack.phases[i - 1]!.toH;
      if (phase.fromH !== from)
        check.addIssue({
          code: "custom",
          path: ["phases", i, "fromH"],
          message: `must be ${from}, where the last ends`,
        });
      if (phase.toH <= phase.fromH)
        check.addIssue({ code: "custom", path: ["phases", i, "toH"], message: "must be later than fromH" });
    });
    const last = pack.phases.at(-1);
    if (last !== undefined && last.toH !== pack.totalH)
      check.addIssue({ code: "custom", path: ["totalH"], message: "must be where the last phase ends" });
  });
export type BreakInPack = z.infer<typeof breakInPackSchema>;

export const breakInStandingSchema = z.strictObject({
  done: z.boolean(),
  hours: z.number(),
  totalH: z.number(),
  phase: z
    .strictObject({
      fromH: z.number(),
      toH: z.number(),
      maxRpm: z.number(),
      wotMaxS: z.number(),
      steadyMaxMin: z.number(),
      say: z.string(),
    })
    .nullable(),
});
export type BreakInStanding = z.infer<typeof breakInStandingSchema>;

/**
 * Where an engine stands in its break-in and which limits hold now. Hours run before delivery count.
 * `ratedToRpm` is the top of the engine's own rated band; limits are rounded down to 50 rpm.
 *
 * @example half speed until 1 h on an engine rated to 6000 rpm, at 0.4 h → phase.maxRpm 3000.
 */
export function findBreakInStanding(pack: BreakInPack, hours: number, ratedToRpm: number): BreakInStanding {
  const phase = pack.phases.find(({ fromH, toH }) => fromH <= hours && hours < toH) ?? null;
  return {
    done: hours >= pack.totalH,
    hours,
    totalH: pack.totalH,
    phase:
      phase === null
        ? null
        : {
            fromH: phase.fromH,
            toH: phase.toH,
            maxRpm: Math.floor((ratedToRpm * phase.maxShare) / 50) * 50,
            wotMaxS: phase.wotMaxS,
            steadyMaxMin: phase.steadyMaxMin,
            say: phase.say,
          },
  };
}
