import type { TraceInput } from "../traceContract.ts";

/** A trace as steps: what holds from one sample to the next. Arrays of one length, `count`. */
export interface Steps {
  readonly count: number;
  readonly startS: Float64Array;
  readonly endS: Float64Array;
  readonly rpm: Float64Array;
  /** Index of the phase the engine hours are in; -1 for none. */
  readonly phase: Int16Array;
  readonly isRunning: Uint8Array;
  readonly isGap: Uint8Array;
  readonly runS: number;
  readonly gaps: number;
}

export function splitSteps({ phases, hoursBefore, samples, ...options }: TraceInput): Steps {
  const runningRpm = options.runningRpm ?? 300;
  const gapS = options.gapS ?? 10;
  const count = Math.max(0, samples.length - 1);
  const startS = new Float64Array(count);
  const endS = new Float64Array(count);
  const rpm = new Float64Array(count);
  const phase = new Int16Array(count);
  const isRunning = new Uint8Array(count);
  const isGap = new Uint8Array(count);
  let runS = 0;
  let gaps = 0;
  let now = -2;
  for (let i = 0; i < count; i++) {
    const [fromS, level] = samples[i]!;
    const toS = samples[i + 1]![0];
    startS[i] = fromS;
    endS[i] = toS;
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
  return { count, startS, endS, rpm, phase, isRunning, isGap, runS, gaps };
}
