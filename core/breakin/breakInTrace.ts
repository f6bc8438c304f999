import { findSteadyRows } from "./internal/steadyRows.ts";
import { type Steps, splitSteps } from "./internal/steps.ts";
import type { Breach, LimitPhase, TraceInput, TraceOutput } from "./traceContract.ts";

export const bandRpm = 500;

/**
 * Was the engine run as its break-in asks (contract `breakin-trace`)? A sample holds until the next; a longer step than
 * `gapS` is not counted and ends every episode. Seconds and rpm; engine hours go on only while it runs.
 *
 * @example an hour at 3000 rpm where 10 min at one speed are allowed → one breach `steady`, from 0 to 3600 s.
 */
export function breakInTrace(input: TraceInput): TraceOutput {
  const steps = splitSteps(input);
  const { phases } = input;
  const graceS = input.graceS ?? 5;
  const steady = findSteadyRows(steps, phases);
  const breaches: Breach[] = [
    ...findEpisodes(
      steps,
      phases,
      "over-rpm",
      (phase, rpm) => phase.maxRpm !== undefined && rpm > phase.maxRpm,
      () => graceS,
    ),
    ...findEpisodes(
      steps,
      phases,
      "wot",
      (phase, rpm) => phase.wot !== undefined && rpm >= phase.wot.rpm,
      (phase) => phase.wot!.maxContinuousS,
    ),
    ...findEpisodes(
      steps,
      phases,
      "idle",
      (phase, rpm, isRunning) => phase.idle !== undefined && isRunning && rpm < phase.idle.belowRpm,
      (phase) => phase.idle!.maxMin * 60,
    ),
    ...steady.breaches,
  ];
  breaches.sort((a, b) => a.startS - b.startS || (a.rule < b.rule ? -1 : 1));
  return {
    runS: steps.runS,
    hoursAfter: input.hoursBefore + steps.runS / 3600,
    gaps: steps.gaps,
    bands: sumBands(steps),
    breaches,
    longestSteadyS: steady.longestS,
    wotS: sumFullThrottle(steps, phases),
  };
}

/** Rows of neighbouring steps that meet a condition, each under its own phase, and last longer than allowed at their start. */
function findEpisodes(
  steps: Steps,
  phases: readonly LimitPhase[],
  rule: Breach["rule"],
  meets: (phase: LimitPhase, rpm: number, isRunning: boolean) => boolean,
  limitS: (phase: LimitPhase) => number,
): Breach[] {
  const { count, startS, endS, rpm, phase, isRunning, isGap } = steps;
  const found: Breach[] = [];
  let from = -1;
  let peakRpm = 0;
  for (let i = 0; i <= count; i++) {
    const of = i < count && isGap[i] === 0 ? phases[phase[i]!] : undefined;
    if (of !== undefined && meets(of, rpm[i]!, isRunning[i] === 1)) {
      if (from < 0) {
        from = i;
        peakRpm = rpm[i]!;
      } else peakRpm = Math.max(peakRpm, rpm[i]!);
    } else if (from >= 0) {
      const lastS = endS[i - 1]! - startS[from]!;
      if (lastS > limitS(phases[phase[from]!]!))
        found.push({ rule, startS: startS[from]!, endS: endS[i - 1]!, peakRpm });
      from = -1;
    }
  }
  return found;
}

function sumBands({ count, startS, endS, rpm, isRunning, isGap }: Steps): TraceOutput["bands"] {
  const seconds = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    if (isGap[i] === 1 || isRunning[i] === 0) continue;
    const fromRpm = Math.floor(rpm[i]! / bandRpm) * bandRpm;
    seconds.set(fromRpm, (seconds.get(fromRpm) ?? 0) + endS[i]! - startS[i]!);
  }
  return [...seconds].map(([fromRpm, s]) => ({ fromRpm, s })).sort((a, b) => a.fromRpm - b.fromRpm);
}

function sumFullThrottle(steps: Steps, phases: readonly LimitPhase[]): number {
  let sumS = 0;
  for (let i = 0; i < steps.count; i++) {
    const wot = phases[steps.phase[i]!]?.wot;
    if (wot !== undefined && steps.isGap[i] === 0 && steps.isRunning[i] === 1 && steps.rpm[i]! >= wot.rpm)
      sumS += steps.endS[i]! - steps.startS[i]!;
  }
  return sumS;
}
