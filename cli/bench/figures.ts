import { quantile } from "./quantile.ts";
import { goalReferenceMs, type Load, type Reference } from "./reference.ts";

/** One line of the bench: what was measured, the figure, the goal it is held against. */
export interface Line {
  readonly what: string;
  readonly value: string;
  readonly goal: string;
  readonly isMet: boolean;
}

/** A figure in milliseconds, held against a goal at one quantile. */
export interface TimedFigure {
  readonly what: string;
  readonly valuesMs: readonly number[];
  readonly goalMs: number;
  readonly share: number;
  /** What it mostly spends its time on: its goal holds in multiples of that reference load too. */
  readonly load: Load;
  /** What else is to be said of it. */
  readonly note?: string;
}

export type Figure = Line | TimedFigure;

export const figureMs = (
  what: string,
  valuesMs: readonly number[],
  goalMs: number,
  load: Load,
  share = 0.95,
): TimedFigure => ({ what, valuesMs, goalMs, share, load });

/**
 * A figure as a line; a timed one in ms and as so many times its reference load, timed just before. On a slow machine or in a slow
 * hour both grow alike; over its goal is what is over it in both.
 */
export function describeFigure(figure: Figure, reference: Reference): Line {
  if ("value" in figure) return figure;
  const { what, valuesMs, goalMs, share, load, note } = figure;
  const [p50, p95, most] = [0.5, 0.95, 1].map((each) => quantile(valuesMs, each).toFixed(1));
  const measuredMs = quantile(valuesMs, share);
  const times = measuredMs / reference[load];
  const goalTimes = goalMs / goalReferenceMs[load];
  return {
    what: `${what} (${valuesMs.length} runs)`,
    value: `p50 ${p50}, p95 ${p95}, most ${most} ms; ${times.toFixed(2)} × ${load}${note === undefined ? "" : `; ${note}`}`,
    goal: `p${Math.round(share * 100)} ${goalMs} ms or ${goalTimes.toFixed(2)} × ${load}`,
    isMet: measuredMs <= goalMs || times <= goalTimes,
  };
}
