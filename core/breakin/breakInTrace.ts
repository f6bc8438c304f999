import { findSteadyRows } from "./internal/steadyRows.ts";
import { type Steps, splitSteps, usualRunningRpm } from "./internal/steps.ts";
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
  const runningRpm = input.runningRpm ?? usualRunningRpm;
  const steady = findSteadyRows(steps, phases);
  const breaches: Breach[] = [
    ...findEpisodes(steps, phases, "over-rpm", ({ maxRpm }) =>
      maxRpm === undefined ? null : { aboveRpm: maxRpm, limitS: graceS },
    ),
    ...findEpisodes(steps, phases, "wot", ({ wot }) =>
      wot === undefined ? null : { fromRpm: wot.rpm, limitS: wot.maxContinuousS },
    ),
    ...findEpisodes(steps, phases, "idle", ({ idle }) =>
      idle === undefined ? null : { fromRpm: runningRpm, belowRpm: idle.belowRpm, limitS: idle.maxMin * 60 },
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

/** Speeds a phase allows for so long only: at or above `fromRpm`, above `aboveRpm`, below `belowRpm`, where given. */
interface Watched {
  readonly fromRpm?: number;
  readonly aboveRpm?: number;
  readonly belowRpm?: number;
  readonly limitS: number;
}

/** Rows of neighbouring steps at watched speeds, each under its own phase, that last longer than allowed at their start. */
function findEpisodes(
  steps: Steps,
  phases: readonly LimitPhase[],
  rule: Breach["rule"],
  watch: (phase: LimitPhase) => Watched | null,
): Breach[] {
  const watched = phases.map(watch);
  // Long traces are read three times over: the bounds lie side by side, and outside all phases nothing is watched.
  const fromRpm = watched.map((one) => (one === null ? Number.POSITIVE_INFINITY : (one.fromRpm ?? 0)));
  const aboveRpm = watched.map((one) => one?.aboveRpm ?? Number.NEGATIVE_INFINITY);
  const belowRpm = watched.map((one) => one?.belowRpm ?? Number.POSITIVE_INFINITY);
  const { count, atS, rpm, phase, isGap } = steps;
  const found: Breach[] = [];
  let from = -1;
  let peakRpm = 0;
  for (let i = 0; i <= count; i++) {
    const of = i < count && isGap[i] === 0 ? phase[i]! : -1;
    const level = of < 0 ? 0 : rpm[i]!;
    if (of >= 0 && level >= fromRpm[of]! && level > aboveRpm[of]! && level < belowRpm[of]!) {
      if (from < 0) {
        from = i;
        peakRpm = level;
      } else if (level > peakRpm) peakRpm = level;
    } else if (from >= 0) {
      if (atS[i]! - atS[from]! > watched[phase[from]!]!.limitS)
        found.push({ rule, startS: atS[from]!, endS: atS[i]!, peakRpm });
      from = -1;
    }
  }
  return found;
}

function sumBands({ count, atS, rpm, isRunning }: Steps): TraceOutput["bands"] {
  const seconds: number[] = [];
  for (let i = 0; i < count; i++) {
    if (isRunning[i] === 0) continue;
    const band = Math.floor(rpm[i]! / bandRpm);
    seconds[band] = (seconds[band] ?? 0) + atS[i + 1]! - atS[i]!;
  }
  const bands: TraceOutput["bands"] = [];
  seconds.forEach((s, band) => void bands.push({ fromRpm: band * bandRpm, s }));
  return bands;
}

function sumFullThrottle(steps: Steps, phases: readonly LimitPhase[]): number {
  const fromRpm = phases.map(({ wot }) => wot?.rpm ?? Number.POSITIVE_INFINITY);
  let sumS = 0;
  for (let i = 0; i < steps.count; i++) {
    const of = steps.phase[i]!;
    if (of >= 0 && steps.isRunning[i] === 1 && steps.rpm[i]! >= fromRpm[of]!) sumS += steps.atS[i + 1]! - steps.atS[i]!;
  }
  return sumS;
}
