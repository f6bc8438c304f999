import type { DaySpan, Told } from "../language/index.ts";
import type { Breach, LimitPhase, TraceOutput } from "./traceContract.ts";

const toTen = (rpm: number) => Math.round(rpm / 10) * 10;
const told = (phrase: string, ...values: Told["values"]): Told => ({ phrase, values });

/** Seconds in words: (95) → `1 min 35 s`, (3600) → `60 min`. */
export function formatSeconds(s: number): string {
  const whole = Math.round(s);
  const min = Math.floor(whole / 60);
  const rest = whole % 60;
  if (min === 0) return `${rest} s`;
  return rest === 0 || min >= 10 ? `${min} min` : `${min} min ${rest} s`;
}

/** The minute of the day `s` seconds after `startMin`: (760, 90) → 761. Past midnight it begins anew. */
export const minuteAt = (startMin: number, s: number): number => (Math.floor(startMin + s / 60) + 1440) % 1440;

/**
 * A breach in words that a buyer can do something with, naming when, what and what the limit is; it blames nobody.
 *
 * @example "12:40–13:25 at 3,200 rpm: longer than 10 min at one speed"
 */
export function formatBreach(
  breach: Breach,
  samples: readonly (readonly [number, number])[],
  limits: readonly LimitPhase[],
  hoursAtS: (s: number) => number,
  startMin: number,
): Told {
  const { rule, startS, endS, peakRpm } = breach;
  const hours = hoursAtS(startS);
  const phase = limits.find(({ fromH, toH }) => fromH <= hours && hours < toH);
  const when: DaySpan = { fromMin: minuteAt(startMin, startS), toMin: minuteAt(startMin, endS) };
  const lasted = formatSeconds(endS - startS);
  switch (rule) {
    case "steady": {
      const { rpm, spread } = describeSpeed(samples.filter(([s]) => s >= startS && s < endS));
      const most = phase?.steady?.maxMin ?? "…";
      return spread === 0
        ? told("{0} at {1} rpm: longer than {2} min at one speed", when, rpm, most)
        : told("{0} at {1} ± {2} rpm: longer than {3} min at one speed", when, rpm, spread, most);
    }
    case "over-rpm":
      return told(
        "{0} up to {1} rpm: above the {2} rpm of these hours",
        when,
        toTen(peakRpm),
        toTen(phase?.maxRpm ?? 0),
      );
    case "wot": {
      const most = phase?.wot?.maxContinuousS ?? 0;
      return most === 0
        ? told("{0} full throttle for {1}: these hours ask for none yet", when, lasted)
        : told("{0} full throttle for {1}: longer than {2} at a time", when, lasted, formatSeconds(most));
    }
    case "idle":
      return told(
        "{0} below {1} rpm for {2}: longer than {3} min of idling",
        when,
        toTen(phase?.idle?.belowRpm ?? 0),
        lasted,
        phase?.idle?.maxMin ?? "…",
      );
    default:
      throw new Error(`formatBreach: expected a known rule, got ${JSON.stringify(rule satisfies never)}`);
  }
}

/** A steady speed by its middle, and by how much nine tenths of it lay about that: 3,200 ± 80 rpm. */
function describeSpeed(samples: readonly (readonly [number, number])[]) {
  const rpms = samples.map(([, rpm]) => rpm).sort((a, b) => a - b);
  const at = (share: number) => rpms[Math.floor((rpms.length - 1) * share)] ?? 0;
  const spread = Math.round((at(0.95) - at(0.05)) / 20) * 10;
  return { rpm: toTen(at(0.5)), spread };
}

/** Engine hours at each second of a run, for steps that were counted: `runningRpm` and `gapS` as the judge has them. */
export function createHoursAt(
  samples: readonly (readonly [number, number])[],
  hoursBefore: number,
  runningRpm = 300,
  gapS = 10,
) {
  const times: number[] = [];
  const runs: number[] = [];
  let runS = 0;
  for (let i = 0; i < samples.length; i++) {
    times.push(samples[i]![0]);
    runs.push(runS);
    const step = (samples[i + 1]?.[0] ?? samples[i]![0]) - samples[i]![0];
    if (samples[i]![1] >= runningRpm && step <= gapS) runS += step;
  }
  return (s: number): number => {
    let low = 0;
    let high = times.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (times[middle]! <= s) low = middle;
      else high = middle - 1;
    }
    return hoursBefore + (runs[low] ?? 0) / 3600;
  };
}

/** What to do on the next run, from what this one showed. One sentence for each that matters, the weightiest first. */
export function adviseNext(trace: TraceOutput, openBands: readonly number[]): Told[] {
  const seen = new Set(trace.breaches.map(({ rule }) => rule));
  const advice: Told[] = [];
  if (seen.has("over-rpm") || seen.has("wot"))
    advice.push(told("Keep under the limit of these hours; there is time for the top later."));
  if (seen.has("steady")) advice.push(told("Change speed every few minutes, up or down by 500 rpm or more."));
  if (seen.has("idle")) advice.push(told("Idle less: once warm, put it in gear and go."));
  if (openBands.length > 0) {
    const least = openBands.slice(0, 4);
    advice.push(told("Least turned so far: from {0} rpm. The next-run plan goes there.", least));
  }
  if (advice.length === 0) advice.push(told("Go on like this."));
  return advice;
}
