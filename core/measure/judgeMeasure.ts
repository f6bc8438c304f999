import { createTell, type Tell } from "../language/index.ts";
import { sayAmountIn, sayTyped, type Typed, type UnitId } from "../units/index.ts";
import type { Measure } from "./listMeasures.ts";

export const verdicts = ["fits", "tight", "over", "unknown"] as const;
/** Fits; worth putting right; must be put right; nothing to hold it against. */
export type Verdict = (typeof verdicts)[number];

/** What was read, in the measure's unit, and what was typed where stores have units of their own. */
export interface Reading {
  readonly value: number;
  readonly typed?: Typed | undefined;
  /** Of battery volts: charged or run within the last hours. */
  readonly isJustCharged?: boolean | undefined;
}

export interface Judged {
  readonly verdict: Verdict;
  /** What it means, in one sentence. */
  readonly says: string;
}

/** Share of the plate's pressure off which a tyre is tight, and over. Ours: a gauge is no better than the first. */
const tyreShares = { tight: 0.05, over: 0.15 } as const;
const fullFuel = { fits: 90, tight: 70 } as const;

/**
 * Resting volts of a 12 V battery and the share of charge they stand for, the fullest first. Usual textbook figures at
 * 25 °C after hours of rest; a lithium bank holds its volts until it is nearly empty and is better told by its own monitor.
 */
const restingVolts: Record<NonNullable<Measure["chemistry"]>, readonly (readonly [volts: number, share: number])[]> = {
  flooded: [
    [12.65, 1],
    [12.45, 0.75],
    [12.24, 0.5],
    [12.06, 0.25],
    [11.89, 0],
  ],
  agm: [
    [12.85, 1],
    [12.65, 0.75],
    [12.35, 0.5],
    [12.0, 0.25],
    [11.8, 0],
  ],
  lifepo4: [
    [13.5, 1],
    [13.3, 0.75],
    [13.2, 0.5],
    [13.0, 0.25],
    [12.0, 0],
  ],
};
const chargeShares = { fits: 0.8, tight: 0.5 } as const;
const nominalV = 12;

/**
 * The share of charge a resting battery has, 0 to 1, from its volts; banks of 24, 36 and 48 V count as so many in a row.
 * Between two figures of the table it is drawn straight. (12.45 V, flooded) → 0.75.
 */
export function findChargeShare(volts: number, chemistry: NonNullable<Measure["chemistry"]>): number {
  const inRow = Math.max(1, Math.round(volts / (nominalV * 1.08)));
  const table = restingVolts[chemistry];
  const each = volts / inRow;
  const below = table.findIndex(([at]) => at <= each);
  if (below === 0) return 1;
  if (below < 0) return 0;
  const [v0, s0] = table[below]!;
  const [v1, s1] = table[below - 1]!;
  return s0 + ((each - v0) / (v1 - v0)) * (s1 - s0);
}

/**
 * What a reading means: against the plate where there is one, by the chemistry for a battery at rest. One taken just off
 * charge is not judged, for it reads high whatever the battery holds.
 *
 * @example a tyre at 300 kPa whose plate says 450, read in kPa → over, "150 kPa under the plate's 450 kPa."
 */
export function judgeMeasure(measure: Measure, reading: Reading, tell: Tell = createTell(null)): Judged {
  const { value, isJustCharged = false } = reading;
  switch (measure.kind) {
    case "tyre":
      return judgeTyre(value, measure.wanted, unitOf(reading), tell);
    case "battery":
      return judgeBattery(value, measure.chemistry!, isJustCharged, tell);
    case "fuel":
      if (value >= fullFuel.fits) return { verdict: "fits", says: tell("Full, as promised.") };
      return value >= fullFuel.tight
        ? { verdict: "tight", says: tell("Not full: say so before they see the gauge.") }
        : { verdict: "over", says: tell("Well short of full.") };
    case "oil":
      if (value === 1) return { verdict: "fits", says: tell("In the band.") };
      return value < 1
        ? {
            verdict: "over",
            says: tell("Below the band: top up with what the engine's manual names, then read again."),
          }
        : { verdict: "tight", says: tell("Above the band: ask the workshop before it is run.") };
    case "bilge":
      if (value === 0) return { verdict: "fits", says: tell("Dry.") };
      return value === 1
        ? { verdict: "fits", says: tell("Damp, which is usual after rain or a wash.") }
        : {
            verdict: value === 2 ? "tight" : "over",
            says: tell("Find where it comes from before the boat goes out: plug, valve, hose or rain."),
          };
    default:
      throw new Error(`judgeMeasure: expected a known kind, got ${JSON.stringify(measure.kind satisfies never)}`);
  }
}

/** One from before readings kept what was typed was typed in the core's unit. */
const unitOf = ({ typed }: Reading): UnitId => typed?.unit ?? "kPa";

function judgeTyre(kpa: number, plateKpa: number | null, unit: UnitId, tell: Tell): Judged {
  if (plateKpa === null)
    return {
      verdict: "unknown",
      says: tell("Read the trailer's plate and enter it on the rig sheet; it is not guessed here."),
    };
  const off = Math.abs(kpa - plateKpa) / plateKpa;
  const say = (amount: number) => sayAmountIn(amount, "pressure", unit);
  const by = say(Math.abs(kpa - plateKpa));
  const says =
    kpa < plateKpa
      ? tell("{0} under the plate's {1}.", by, say(plateKpa))
      : tell("{0} over the plate's {1}.", by, say(plateKpa));
  if (off <= tyreShares.tight) return { verdict: "fits", says: tell("Within the plate's {0}.", say(plateKpa)) };
  return { verdict: off <= tyreShares.over ? "tight" : "over", says };
}

function judgeBattery(
  volts: number,
  chemistry: NonNullable<Measure["chemistry"]>,
  isJustCharged: boolean,
  tell: Tell,
): Judged {
  if (isJustCharged)
    return { verdict: "unknown", says: tell("Just off charge it reads high. Read it again after some hours of rest.") };
  const share = findChargeShare(volts, chemistry);
  const about = tell("About {0} % charged, if it has rested.", Math.round((share * 100) / 5) * 5);
  if (share >= chargeShares.fits) return { verdict: "fits", says: about };
  return share >= chargeShares.tight
    ? { verdict: "tight", says: `${about} ${tell("Charge it before they go.")}` }
    : { verdict: "over", says: `${about} ${tell("It may not crank: charge and test it.")}` };
}

/** A reading as its reader saw it: "12.62 V", "65 psi", "in the band". */
export function formatMeasure({ kind, unit, choices, quantity }: Measure, { value, typed }: Reading): string {
  if (choices !== null) return choices[value] ?? "–";
  if (quantity !== null && typed !== undefined) return sayTyped(typed, quantity);
  return `${kind === "battery" ? value.toFixed(2) : value} ${unit}`;
}
