import type { LimitPhase } from "../traceContract.ts";

/** Whole seconds at one speed. */
export interface Stretch {
  readonly rpm: number;
  readonly s: number;
}

interface Piece {
  readonly rpm: number;
  readonly phase: number;
  readonly fromS: number;
  readonly toS: number;
}

const runningRpm = 300;

/**
 * The limits of a run as it is put together, leg by leg, in seconds and in the phases they fall in. It answers for whole
 * legs what `breakInTrace` answers for the same run as a sample a second: that judge has the last word on every plan.
 * `marginS` keeps legs that much shorter than the rules allow, for hands and clocks are not exact.
 */
export function createLegLimits(phases: readonly LimitPhase[], hoursBefore: number, marginS: number) {
  const inOrder = [...phases].sort((a, b) => a.fromH - b.fromH);
  /** The first whole second of running at which the engine has these hours, by the very sum the judge makes. */
  const secondOf = (hours: number) => {
    let s = Math.floor((hours - hoursBefore) * 3600) - 2;
    while (hoursBefore + s / 3600 < hours) s++;
    return s;
  };
  const startsS = inOrder.map(({ fromH }) => secondOf(fromH));
  const endsS = inOrder.map(({ toH }) => secondOf(toH));
  const phaseAt = (runS: number) => inOrder.findIndex((_, i) => startsS[i]! <= runS && runS < endsS[i]!);
  const nextChange = (runS: number) =>
    Math.min(...startsS.filter((s) => s > runS), ...endsS.filter((s) => s > runS), Number.POSITIVE_INFINITY);

  /** The pieces of a leg that begins at `atS` of the run, `runS` of it with the engine running. */
  const cut = ({ rpm, s }: Stretch, atS: number, runS: number): Piece[] => {
    const pieces: Piece[] = [];
    let from = 0;
    while (from < s) {
      const run = rpm >= runningRpm ? runS + from : runS;
      const left = rpm >= runningRpm ? nextChange(run) - run : Number.POSITIVE_INFINITY;
      const to = Math.min(s, from + left);
      pieces.push({ rpm, phase: phaseAt(run), fromS: atS + from, toS: atS + to });
      from = to;
    }
    return pieces;
  };

  const less = (limitS: number) => (limitS > 10 * marginS ? limitS - marginS : limitS);

  /** Whether the row of pieces that ends with the last breaks a rule: only rows that reach the end are looked at. */
  const breaks = (pieces: readonly Piece[]): boolean => {
    const endS = pieces.at(-1)!.toS;
    const isOver = (
      meets: (phase: LimitPhase, rpm: number) => boolean,
      limitS: (phase: LimitPhase) => number,
    ): boolean => {
      let from = pieces.length;
      while (from > 0) {
        const { phase, rpm } = pieces[from - 1]!;
        if (phase < 0 || !meets(inOrder[phase]!, rpm)) break;
        from--;
      }
      return from < pieces.length && endS - pieces[from]!.fromS > less(limitS(inOrder[pieces[from]!.phase]!));
    };
    if (
      isOver(
        ({ maxRpm }, rpm) => maxRpm !== undefined && rpm > maxRpm,
        () => 0,
      )
    )
      return true;
    if (
      isOver(
        ({ wot }, rpm) => wot !== undefined && rpm >= wot.rpm,
        ({ wot }) => wot!.maxContinuousS,
      )
    )
      return true;
    if (
      isOver(
        ({ idle }, rpm) => idle !== undefined && rpm >= runningRpm && rpm < idle.belowRpm,
        ({ idle }) => idle!.maxMin * 60,
      )
    )
      return true;
    // A row at one speed is judged by the phase it begins in, so each beginning is looked at.
    let lowest = Number.POSITIVE_INFINITY;
    let highest = 0;
    for (let i = pieces.length - 1; i >= 0; i--) {
      const { rpm, phase, fromS, toS } = pieces[i]!;
      if (rpm < runningRpm) break;
      lowest = Math.min(lowest, rpm);
      highest = Math.max(highest, rpm);
      const rule = inOrder[phase]?.steady;
      if (rule === undefined || lowest < rule.aboveRpm || highest - lowest > rule.bandRpm) continue;
      // The step from which the row begins may be any of this piece's; the first is the longest.
      if (toS > fromS && endS - fromS > less(rule.maxMin * 60)) return true;
    }
    return false;
  };

  return { inOrder, phaseAt, cut, breaks };
}
