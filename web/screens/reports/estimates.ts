import type { ReportSheet } from "../../../api/index.ts";
import { areApart } from "../../../core/reports/interval.ts";

export type Estimate = NonNullable<ReportSheet["runs"]["now"]>;
type Maybe = Estimate | null;

/** 74 %. */
export const sayPercent = (share: number) => `${Math.round(share * 100)} %`;
/** 74 % (60 to 85). */
export const saySpan = ({ value, low, high }: Estimate) =>
  `${sayPercent(value)} (${Math.round(low * 100)} to ${Math.round(high * 100)})`;

/** How a figure stands to the year before, where both are known; nothing is made of what chance may do. */
export function compareYears(now: Maybe, before: Maybe, say: (value: number) => string): string {
  if (now !== null && isTooFew(now)) return "That is too few to make anything of.";
  if (now === null || before === null || isTooFew(before)) return "There is no year before to compare it with.";
  if (!areApart(now, before)) return `The year before it was ${say(before.value)}: within chance.`;
  return `The year before it was ${say(before.value)}: it has ${now.value > before.value ? "risen" : "fallen"}.`;
}

/** What a CSV says of an estimate: value, low, high, of how many; empty where it is not known. */
export const cellsOf = (estimate: Maybe, digits = 3): (string | number)[] =>
  estimate === null
    ? ["", "", "", ""]
    : [...[estimate.value, estimate.low, estimate.high].map((each) => Number(each.toFixed(digits))), estimate.n];
export const headsOf = (name: string) => [name, `${name}, low`, `${name}, high`, `${name}, of`];

/** Of fewer nothing is made: a share or a rate of three says more about chance than about the store. */
const fewest = 5;
export const isTooFew = ({ n }: Estimate): boolean => n < fewest;
/** How a share is said before what it is of: with its span, or as so many of how many where they are too few. */
export const sayShare = (estimate: Estimate): string =>
  isTooFew(estimate) ? `${Math.round(estimate.value * estimate.n)} of ${estimate.n}` : `${saySpan(estimate)} of the`;
