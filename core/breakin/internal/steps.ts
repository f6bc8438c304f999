import type { TraceInput } from "../traceContract.ts";

/** A trace as steps: what holds from one sample to the next. Arrays of `count` values, one for each step. */
export interface Steps {
  readonly count: number;
  /** When each step begins, and at last when the trace ends: `count + 1` values, so that step i ends at `atS[i + 1]`. */
  readonly atS: Float64Array;
  readonly rpm: Float64Array;
  /** Index of the phase the engine hours are in; -1 for none. */
  readonly phase: Int16Array;
  readonly isRunning: Uint8Array;
  readonly isGap: Uint8Array;
  readonly runS: number;
  readonly gaps: number;
}

/** From this speed an engine runs, where the question does not say otherwise (contract `breakin-trace`). */
export const usualRunningRpm = 300;

export function splitSteps({ phases, hoursBefore, samples, ...options }: TraceInput): Steps {
  const runningRpm = options.runningRpm ?? usualRunningRpm;
  const gapS = options.gapS ?? 10;
  const count = Math.max(0, samples.length - 1);
  const atS = new Float64Array(count + 1);
  const rpm = new Float64Array(count);
  const phase = new Int16Array(count);
  const isRunning = new Uint8Array(count);
  const isGap = new Uint8Array(count);
  let runS = 0;
  let gaps = 0;
  let now = -2;
  if (samples.length > 0) atS[0] = samples[0]![0];
  for (let i = 0; i < count; i++) {
    const level = samples[i]![1];
    const fromS = atS[i]!;
    const toS = samples[i + 1]![0];
    atS[i + 1] = toS;
    rpm[i] = level;
    const hours = hoursBefore + runS / 3600;
    const held = phases[now];
    if (held === undefined || hours < held.fromH || hours >= held.toH)
      now = phases.findIndex(({ fromH, toH }) => fromH <= hours && hours < toH);
    phase[i] = now;
    if (toS - fromS > gapS) {
      isGap[i] = 1;
      gaps++;
    } else if (level >= runningRpm) {
      isRunning[i] = 1;
      runS += toS - fromS;
    }
  }
  return { count, atS, rpm, phase, isRunning, isGap, runS, gaps };
}
