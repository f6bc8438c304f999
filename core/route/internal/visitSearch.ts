import type { Block } from "./blocks.ts";

export interface VisitSearch {
  readonly blocks: readonly Block[];
  /** Closed under shortest paths, in minutes. */
  readonly moves: readonly (readonly number[])[];
  readonly start: number | null;
  readonly end: number | null;
  /** States to keep before settling for the best order found. */
  readonly maxStates: number;
}

export interface VisitOrder {
  /** Station indices in visiting order, neighbours different. */
  readonly stations: number[];
  readonly moveMin: number;
  readonly optimal: boolean;
}
