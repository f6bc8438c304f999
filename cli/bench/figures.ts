/** One line of the bench: what was measured, the figure, the goal it is held against. */
export interface Figure {
  readonly what: string;
  readonly value: string;
  readonly goal: string;
  readonly isMet: boolean;
}

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
}

/** A figure in milliseconds, held against a goal at one quantile. */
export function figureMs(what: string, valuesMs: readonly number[], goalMs: number, share = 0.95): Figure {
  const [p50, p95, most] = [0.5, 0.95, 1].map((each) => quantile(valuesMs, each).toFixed(1));
  return {
    what: `${what} (${valuesMs.length} runs)`,
    value: `p50 ${p50}, p95 ${p95}, most ${most} ms`,
    goal: `p${Math.round(share * 100)} ${goalMs} ms`,
    isMet: quantile(valuesMs, share) <= goalMs,
  };
}
