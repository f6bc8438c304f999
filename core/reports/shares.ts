import { type Estimate, estimateShare } from "./interval.ts";

/** So many of how many, this year and the year before. */
export interface Counted {
  readonly id: string;
  readonly k: number;
  readonly n: number;
  readonly kBefore: number;
  readonly nBefore: number;
}
export interface ShareLine extends Counted {
  readonly now: Estimate | null;
  readonly before: Estimate | null;
}

/** Each with its share and span, the surest large ones first: by the lower end of the span. */
export const reportShares = (counted: readonly Counted[]): ShareLine[] =>
  counted
    .map((line) => ({ ...line, now: estimateShare(line.k, line.n), before: estimateShare(line.kBefore, line.nBefore) }))
    .sort((a, b) => (b.now?.low ?? -1) - (a.now?.low ?? -1) || (a.id < b.id ? -1 : 1));
