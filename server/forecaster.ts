import type { LocalDate } from "../core/dates/index.ts";
import type { Position } from "../core/trip/index.ts";

/** Whoever says what wind is forecast at a place: a service outside, or what stands in for it. */
export interface Forecaster {
  /** What its figures are, wherever they are shown. */
  readonly source: "made-up";
  /** Through a day of the store's, the earliest first, past midnight going on as 24:30; null for a day it knows nothing of. */
  read(at: Position, date: LocalDate): { at: string; kn: number; fromDeg: number }[] | null;
}
