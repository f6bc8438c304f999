import type { BreakInPack } from "./breakIn.ts";
import type { LimitPhase } from "./traceContract.ts";

/** From this share of the rated top an engine counts as at full throttle: what tachometers and hands do not tell apart. */
const fullThrottleShare = 0.95;
/** Below this share of the rated top a boat is off the plane and its engine not loaded: one speed does no harm there. */
const loadedShare = 0.25;
/** Two speeds this close count as one: the width of a hand on the throttle. Our own choice; makers do not say. */
const oneSpeedRpm = 200;
const idleBelowRpm = 1000;
const usualIdleMaxMin = 10;
export const usualIdleRpm = 650;

const downTo50 = (rpm: number) => Math.floor(rpm / 50) * 50;

/**
 * The limits of a break-in for one engine, off the top of its own rated band. Speeds are rounded down to 50 rpm.
 *
 * @example half speed until 1 h on an engine rated to 6000 rpm → the first phase has maxRpm 3000.
 */
export function createLimits(pack: BreakInPack, ratedToRpm: number): LimitPhase[] {
  return pack.phases.map((phase): LimitPhase => {
    const isUnderFull = phase.maxShare < fullThrottleShare;
    return {
      fromH: phase.fromH,
      toH: phase.toH,
      ...(phase.maxShare < 1 ? { maxRpm: downTo50(ratedToRpm * phase.maxShare) } : {}),
      ...(isUnderFull ? {} : { wot: { rpm: downTo50(ratedToRpm * fullThrottleShare), maxContinuousS: phase.wotMaxS } }),
      steady: { bandRpm: oneSpeedRpm, aboveRpm: downTo50(ratedToRpm * loadedShare), maxMin: phase.steadyMaxMin },
      idle: { belowRpm: idleBelowRpm, maxMin: phase.idleMaxMin ?? usualIdleMaxMin },
    };
  });
}
