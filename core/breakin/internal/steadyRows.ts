import type { Breach, LimitPhase } from "../traceContract.ts";
import type { Steps } from "./steps.ts";

/** Indices in order of time whose values only fall (or only rise) from front to back: the front is the extreme of a window. */
class ExtremeWindow {
  private readonly held: Int32Array;
  private front = 0;
  private back = 0;
  constructor(
    private readonly values: Float64Array,
    private readonly sign: 1 | -1,
  ) {
    this.held = new Int32Array(values.length + 1);
  }
  clear() {
    this.front = 0;
    this.back = 0;
  }
  push(i: number) {
    const value = this.sign * this.values[i]!;
    while (this.back > this.front && this.sign * this.values[this.held[this.back - 1]!]! <= value) this.back--;
    this.held[this.back++] = i;
  }
  dropBefore(i: number) {
    while (this.front < this.back && this.held[this.front]! < i) this.front++;
  }
  /** The extreme were `i` pushed; that of the window alone for an `i` that is not. */
  with(value: number): number {
    const own = this.back > this.front ? this.values[this.held[this.front]!]! : value;
    return this.sign === 1 ? Math.max(own, value) : Math.min(own, value);
  }
}

/**
 * Rows at one speed: from each step the longest row of running steps, all at or above the phase's `aboveRpm`, in which
 * rpm keeps within `bandRpm`. Two pointers over each stretch of one phase, so that time grows with the steps alone.
 */
export function findSteadyRows(steps: Steps, phases: readonly LimitPhase[]): { breaches: Breach[]; longestS: number } {
  const { count, atS, rpm, phase, isRunning, isGap } = steps;
  const highest = new ExtremeWindow(rpm, 1);
  const lowest = new ExtremeWindow(rpm, -1);
  const breaches: Breach[] = [];
  let longestS = 0;
  let scanFrom = 0;
  let end = 0;
  let inPhase = -2;
  for (let i = 0; i < count; i++) {
    const rule = phases[phase[i]!]?.steady;
    if (rule === undefined) {
      inPhase = -2;
      continue;
    }
    if (phase[i] !== inPhase || end < i) {
      inPhase = phase[i]!;
      end = i;
      highest.clear();
      lowest.clear();
    }
    highest.dropBefore(i);
    lowest.dropBefore(i);
    while (end < count && isGap[end] === 0 && isRunning[end] === 1 && rpm[end]! >= rule.aboveRpm) {
      if (highest.with(rpm[end]!) - lowest.with(rpm[end]!) > rule.bandRpm) break;
      highest.push(end);
      lowest.push(end);
      end++;
    }
    if (end === i) continue;
    const lastS = atS[end]! - atS[i]!;
    longestS = Math.max(longestS, lastS);
    if (i >= scanFrom && lastS > rule.maxMin * 60) {
      let peakRpm = 0;
      for (let j = i; j < end; j++) peakRpm = Math.max(peakRpm, rpm[j]!);
      breaches.push({ rule: "steady", startS: atS[i]!, endS: atS[end]!, peakRpm });
      scanFrom = end;
    }
  }
  return { breaches, longestS };
}
