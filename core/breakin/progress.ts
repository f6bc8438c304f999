import { z } from "zod";
import { bandRpm } from "./breakInTrace.ts";
import type { LimitPhase } from "./traceContract.ts";

export const coverageSchema = z.array(
  z.strictObject({ fromRpm: z.number(), s: z.number(), goalS: z.number(), isOpen: z.boolean() }),
);
export type Coverage = z.infer<typeof coverageSchema>;

/** How long each band should be turned by the end of the break-in: our own measure of "the whole band". */
const goalS = 1200;
const fullThrottleGoalS = 180;
const fromRpmOfCoverage = 1000;

/**
 * The bands of an engine and how long each was turned. Goals are halved for short break-ins; full throttle has its own.
 * `isOpen`: its limits allow the band at these hours. Bands under 1000 rpm are left out: nobody needs to idle more.
 */
export function describeCoverage(
  limits: readonly LimitPhase[],
  coveredS: Readonly<Record<string, number>>,
  hours: number,
  topRpm: number,
): Coverage {
  const now = limits.find(({ fromH, toH }) => fromH <= hours && hours < toH);
  const total = limits.at(-1)?.toH ?? 0;
  const wot = limits.find((phase) => phase.wot !== undefined)?.wot?.rpm ?? Number.POSITIVE_INFINITY;
  const bands: Coverage = [];
  for (let fromRpm = fromRpmOfCoverage; fromRpm < topRpm; fromRpm += bandRpm) {
    const isFull = fromRpm + bandRpm > wot;
    const goal = (isFull ? fullThrottleGoalS : goalS) * (total < 8 ? 0.5 : 1);
    const isUnder = now?.maxRpm === undefined || fromRpm < now.maxRpm;
    const isFullOpen = !isFull || now?.wot === undefined || now.wot.maxContinuousS > 0;
    bands.push({ fromRpm, s: coveredS[fromRpm] ?? 0, goalS: goal, isOpen: isUnder && isFullOpen });
  }
  return bands;
}

/** How far a break-in has come, 0 to 1: hours and coverage count half each, for hours at one speed break nothing in. */
export function measureProgress(
  coverage: Coverage,
  hours: number,
  totalH: number,
): { hoursShare: number; bandShare: number; share: number } {
  const hoursShare = totalH <= 0 ? 1 : Math.min(1, hours / totalH);
  const bandShare =
    coverage.length === 0
      ? 1
      : coverage.reduce((sum, { s, goalS: goal }) => sum + Math.min(1, s / goal), 0) / coverage.length;
  return { hoursShare, bandShare, share: (hoursShare + bandShare) / 2 };
}

/** Seconds by band of several runs together. */
export function addBands(runs: readonly (readonly { fromRpm: number; s: number }[])[]): Record<string, number> {
  const sum: Record<string, number> = {};
  for (const { fromRpm, s } of runs.flat()) sum[fromRpm] = (sum[fromRpm] ?? 0) + s;
  return sum;
}
