import { usualTripH } from "./forecast.ts";
import type { FleetYear } from "./forecastContract.ts";
import type { Resolved } from "./readings.ts";
import { createSeason } from "./season.ts";

export interface Fleet {
  readonly yearH: FleetYear;
  readonly seasonShare: readonly number[];
  /** Engines whose hours were read at least twice. */
  readonly engines: number;
  /** Years of running between readings, all engines together. */
  readonly years: number;
}

/** How much the store's own setting weighs against what its boats have shown, in engine-years. */
const priorYears = 4;
const usualCv = 0.6;
const rounds = 6;
/** By month: how much of that month alone falls between two days. */
const ofMonths = Array.from({ length: 12 }, (_, month) =>
  createSeason(Array.from({ length: 12 }, (_, other) => (other === month ? 1 : 0))),
);

/**
 * The fleet's yearly hours, their spread and the season, from the readings of the store's own boats. `monthlyHours`: what
 * the store expects of a boat, January first; it counts as four engine-years of running. The season by expectation and
 * maximisation: hours between readings fall on months by the season as believed so far, which is then counted anew.
 */
export function learnFleet(engines: readonly (readonly Resolved[])[], monthlyHours: readonly number[]): Fleet {
  const expectedH = Math.max(
    1,
    monthlyHours.reduce((sum, hours) => sum + hours, 0),
  );
  const prior = monthlyHours.map((hours) => (expectedH === 1 ? 1 / 12 : hours / expectedH));
  const spans = engines.flatMap((readings) =>
    readings.slice(1).flatMap((after, i) => {
      const before = readings[i]!;
      return after.date > before.date
        ? [{ from: before.date, to: after.date, hours: after.engineH - before.engineH }]
        : [];
    }),
  );
  const shares = spans.map(({ from, to }) => ofMonths.map((month) => month.between(from, to)));
  let season = prior;
  for (let round = 0; round < rounds && spans.length > 0; round++) {
    const run = prior.map((share) => share * expectedH * priorYears);
    const exposed = prior.map(() => priorYears);
    for (const [i, { hours }] of spans.entries()) {
      const mass = shares[i]!.reduce((sum, share, month) => sum + season[month]! * share, 0);
      for (const [month, share] of shares[i]!.entries()) {
        exposed[month]! += share;
        run[month]! += mass > 0 ? (hours * season[month]! * share) / mass : 0;
      }
    }
    const rates = run.map((hours, month) => hours / exposed[month]!);
    const sum = rates.reduce((total, rate) => total + rate, 0);
    season = rates.map((rate) => rate / sum);
  }
  const { between } = createSeason(season);
  const perEngine = engines.flatMap((readings) => {
    const first = readings[0];
    const last = readings.at(-1);
    if (first === undefined || last === undefined || last.date === first.date) return [];
    return [{ years: between(first.date, last.date), hours: last.engineH - first.engineH }];
  });
  const years = perEngine.reduce((sum, each) => sum + each.years, 0);
  const hours = perEngine.reduce((sum, each) => sum + each.hours, 0);
  const mean = (hours + expectedH * priorYears) / (years + priorYears);
  return { yearH: { mean, cv: measureSpread(perEngine, mean) }, seasonShare: season, engines: perEngine.length, years };
}

/** Spread between owners: that of their rates, less what trips by themselves would scatter; the usual one while few. */
function measureSpread(engines: readonly { years: number; hours: number }[], mean: number): number {
  let weight = 8;
  let sum = usualCv ** 2 * weight;
  for (const { years, hours } of engines) {
    if (years < 0.2) continue;
    const byTrips = (2 * usualTripH) / (mean * years);
    sum += (hours / years / mean - 1) ** 2 - byTrips;
    weight++;
  }
  return Math.min(1.5, Math.max(0.2, Math.sqrt(Math.max(0, sum / weight))));
}
