import { daysInMonth, fromDayNumber, toDayNumber } from "../dates/index.ts";
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
  let season = prior;
  for (let round = 0; round < rounds && spans.length > 0; round++) {
    const run = prior.map((share) => share * expectedH * priorYears);
    const exposed = prior.map(() => priorYears);
    for (const { from, to, hours } of spans) {
      const months = splitMonths(from, to);
      const mass = months.reduce((sum, { month, share }) => sum + season[month]! * share, 0);
      for (const { month, share } of months) {
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

/** The months of the days after `from` until `to`, each with the share of the month that they are. */
function splitMonths(from: string, to: string): { month: number; share: number }[] {
  const parts: { month: number; share: number }[] = [];
  const last = toDayNumber(to);
  let day = toDayNumber(from) + 1;
  while (day <= last) {
    const date = fromDayNumber(day);
    const inMonth = daysInMonth(+date.slice(0, 4), +date.slice(5, 7));
    const days = Math.min(inMonth - +date.slice(8, 10), last - day) + 1;
    parts.push({ month: +date.slice(5, 7) - 1, share: days / inMonth });
    day += days;
  }
  return parts;
}
