import type { EngineCare } from "../../api/index.ts";
import { type Leg, planTogether, usualIdleRpm } from "../../core/breakin/index.ts";

/** A run shorter than this is no break-in run. Minutes. */
export const leastMin = 5;

/** The legs of the next run of so many minutes for engines that turn together; null where there is no plan. */
export function planOf(care: readonly EngineCare[], minutes: number): Leg[] | null {
  if (minutes < leastMin) return null;
  const engines = care.map(({ limits, reportedH, coverage, ratedToRpm }) => ({
    phases: limits,
    hoursBefore: reportedH ?? 0,
    coveredS: Object.fromEntries(coverage.map(({ fromRpm, s }) => [String(fromRpm), s])),
    topRpm: ratedToRpm,
  }));
  const answer = planTogether(engines, minutes, usualIdleRpm);
  return answer.ok ? answer.value.legs : null;
}
