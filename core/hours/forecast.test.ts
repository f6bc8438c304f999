import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addDays, daysInMonth, fromDayNumber, type LocalDate, toDayNumber } from "../dates/index.ts";
import { createRandom } from "../random.ts";
import { createSeason, describeExpected, fanHours, forecastEngine } from "./index.ts";
import { drawYearH } from "./simulate.ts";

const lake = [0, 0, 0.02, 0.07, 0.13, 0.19, 0.22, 0.18, 0.11, 0.06, 0.02, 0];
const season = createSeason(lake);
const today = "2026-05-20";
const believe = (change: object = {}) =>
  forecastEngine(
    { readings: [{ date: "2026-05-01", hours: 10 }], meanH: 60, varianceH2: 900, ...change },
    season,
    today,
  );
const someDay = fc.integer({ min: toDayNumber("2020-01-01"), max: toDayNumber("2030-12-31") }).map(fromDayNumber);

describe("a season", () => {
  const perDay = (date: LocalDate) => lake[+date.slice(5, 7) - 1]! / daysInMonth(+date.slice(0, 4), +date.slice(5, 7));

  it("is the sum of its days, and finds the first day by which so much has passed", () => {
    fc.assert(
      fc.property(
        someDay,
        fc.integer({ min: 0, max: 900 }),
        fc.double({ min: 0, max: 2.2, noNaN: true }),
        (from, days, mass) => {
          let sum = 0;
          let first: LocalDate | null = null;
          for (let day = 1; day <= 900; day++) {
            const date = addDays(from, day);
            sum += perDay(date);
            if (day === days) expect(season.between(from, date)).toBeCloseTo(sum, 9);
            if (first === null && sum >= mass - 1e-9) first = date;
          }
          if (first !== null) expect(season.dayOf(from, mass)).toBe(first);
        },
      ),
      { seed: 3, numRuns: 150 },
    );
    expect(season.between("2025-03-10", "2026-03-10")).toBeCloseTo(1, 9);
    expect(season.between("2026-03-10", "2026-03-09")).toBe(0);
    expect(season.dayOf("2026-03-10", Number.POSITIVE_INFINITY)).toBeNull();
  });
});

describe("the forecast of an engine", () => {
  it("is what drawing owners and their trips one by one gives", () => {
    const random = createRandom(8);
    for (const cv of [0.2, 0.5, 0.9])
      for (const more of [1, 5, 20, 60]) {
        const forecast = believe({ varianceH2: (60 * cv) ** 2 });
        const reached = [0, 0, 0];
        const draws = 3000;
        const shares = [0.1, 0.5, 0.9].map((chance) => {
          let [low, high] = [0, 50];
          for (let i = 0; i < 40; i++) {
            const middle = (low + high) / 2;
            if (forecast.chanceIn(10 + more, middle) < chance) low = middle;
            else high = middle;
          }
          return high;
        });
        for (let k = 0; k < draws; k++) {
          const rate = drawYearH({ mean: 60, cv }, random);
          // Exponential gaps between trips, exponential lengths.
          let [at, run] = [0, 0];
          while (run < more) {
            at -= (Math.log(1 - random()) * 2.5) / rate;
            run -= Math.log(1 - random()) * 2.5;
          }
          for (const i of [0, 1, 2]) if (at <= shares[i]!) reached[i]!++;
        }
        for (const [i, chance] of [0.1, 0.5, 0.9].entries())
          expect(Math.abs(reached[i]! / draws - chance), `cv ${cv}, ${more} h`).toBeLessThan(0.035);
      }
  });

  it("says the same of a day, of hours and of chances", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10.5, max: 120, noNaN: true }),
        fc.double({ min: 0.15, max: 0.9, noNaN: true }),
        (hours, cv) => {
          const forecast = believe({ varianceH2: (60 * cv) ** 2 });
          const { p10, p50, p90 } = forecast.datesOf(hours);
          expect(forecast.dateOf(hours)).toBe(p50);
          expect(p10! <= p50! && (p90 === null || p50! <= p90)).toBe(true);
          for (const [date, chance] of [
            [p10, 0.1],
            [p50, 0.5],
            [p90, 0.9],
          ] as const) {
            if (date === null) continue;
            const share = (day: LocalDate) => season.between("2026-05-01", day);
            expect(forecast.chanceIn(hours, share(date))).toBeGreaterThan(chance - 1e-3);
            expect(forecast.chanceIn(hours, share(addDays(date, -1)))).toBeLessThan(chance + 1e-3);
          }
          expect(forecast.hoursOn(p50!).p50).toBeGreaterThan(hours - 0.01);
          expect(forecast.hoursOn(addDays(p50!, -1)).p50).toBeLessThan(hours + 0.01);
        },
      ),
      { seed: 6, numRuns: 200 },
    );
  });

  it("knows the day of hours that were read, between the readings about them, whatever day it is asked on", () => {
    const readings = [
      { date: "2025-06-01", hours: 2 },
      { date: "2025-07-01", hours: 12 },
      { date: "2025-12-10", hours: 40 },
    ] as const;
    for (const day of ["2025-12-10", "2026-03-01", "2027-01-01"] as const) {
      const { datesOf } = forecastEngine({ readings, meanH: 60, varianceH2: 900 }, season, day);
      expect(datesOf(7)).toEqual({ p10: "2025-06-17", p50: "2025-06-17", p90: "2025-06-17" });
      expect(datesOf(12).p50).toBe("2025-07-01");
      expect(datesOf(1).p50).toBe("2025-06-01");
      // Nothing is run in winter: the last hours were run before it.
      expect(datesOf(39.9).p50! < "2025-12-01").toBe(true);
    }
  });

  it("has no day beyond ten years, and none for an owner of whom nothing is sure", () => {
    expect(believe().datesOf(5000)).toEqual({ p10: null, p50: null, p90: null });
    const unsure = believe({ varianceH2: 60 ** 2 * 25 }).datesOf(60);
    expect(unsure.p10).not.toBeNull();
    expect(unsure.p90).toBeNull();
  });

  it("opens with time as a fan, in order, and never falls", () => {
    const fan = fanHours(believe(), today);
    for (const [i, { p10, p50, p90 }] of fan.entries()) {
      expect(p10 <= p50 && p50 <= p90).toBe(true);
      if (i > 0) expect(p50).toBeGreaterThanOrEqual(fan[i - 1]!.p50);
    }
    expect(fan[0]!.date).toBe(today);
    expect(fan.at(-1)!.p90 - fan.at(-1)!.p10).toBeGreaterThan(40);
  });
});

describe("a day that is a forecast", () => {
  it.each<[string, (LocalDate | null)[], object]>([
    ["ahead", ["2026-06-01", "2026-06-20", "2026-08-01"], { date: "2026-06-20", isAnyDay: false }],
    ["may have come", ["2026-05-10", "2026-05-25", "2026-06-10"], { date: "2026-05-25", isAnyDay: true }],
    [
      "has likely come: it keeps its day",
      ["2026-04-01", "2026-05-10", "2026-06-10"],
      { date: "2026-05-10", isAnyDay: false },
    ],
    ["is known", ["2026-04-01", "2026-04-01", "2026-04-01"], { date: "2026-04-01", range: null, isAnyDay: false }],
    ["has no end", ["2026-06-01", "2029-06-20", null], { range: { from: "2026-06-01", to: null } }],
  ])("%s", (_, [p10, p50, p90], expected) => {
    expect(describeExpected({ p10: p10!, p50: p50!, p90: p90 ?? null }, today)).toMatchObject(expected);
  });
});
