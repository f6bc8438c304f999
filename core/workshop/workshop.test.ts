import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { servicePacks } from "../../content/index.ts";
import { addDays } from "../dates/index.ts";
import { createSeason, forecastEngine, type HourForecast } from "../hours/index.ts";
import { createRandom } from "../random.ts";
import {
  capacityOfDay,
  capacityOfWeek,
  chanceIn,
  createWeekGrid,
  type ExpectedJob,
  expectJob,
  findOpenDay,
  flattenLoad,
  listWeeks,
  startOfWeek,
  sumLoad,
  type Workshop,
  weekOf,
} from "./index.ts";

const workshop: Workshop = {
  hoursPerDay: [6, 6, 6, 6, 6, 2, 0],
  closed: [{ from: "2026-06-15", to: "2026-06-16", why: "feast" }],
};
const today = "2026-06-03";
const annual = servicePacks[0]!.items.find(({ id }) => id === "annual")!;
const layUp = servicePacks[0]!.items.find(({ id }) => id === "lay-up")!;

const job = (boat: string, change: Partial<ExpectedJob> & { at?: [number, number][] } = {}): ExpectedJob => {
  const chances: number[] = new Array(52).fill(0);
  for (const [week, chance] of change.at ?? [[2, 1]]) chances[week] = chance;
  return {
    boat,
    scope: "main",
    item: "annual",
    title: "100 h or yearly",
    kind: "yearly",
    labourH: 2,
    dueDate: "2026-06-18",
    range: null,
    isAnyDay: false,
    earliest: today,
    firstWeek: 0,
    chances,
    ...Object.fromEntries(Object.entries(change).filter(([key]) => key !== "at")),
  };
};

describe("weeks", () => {
  it("begin on Monday, across the turn of the year", () => {
    expect([startOfWeek("2026-06-03", 0), startOfWeek("2026-06-01", 0), startOfWeek("2027-01-03", 0)]).toEqual([
      "2026-06-01",
      "2026-06-01",
      "2026-12-28",
    ]);
    expect(listWeeks(today, 3, 0)).toEqual(["2026-06-01", "2026-06-08", "2026-06-15"]);
    expect([weekOf("2026-05-01", "2026-06-01"), weekOf("2026-06-14", "2026-06-01")]).toEqual([0, 1]);
  });
  it("begin on whatever day the store says", () => {
    expect([startOfWeek("2026-06-03", 6), startOfWeek("2026-06-07", 6), startOfWeek("2026-06-06", 5)]).toEqual([
      "2026-05-31",
      "2026-06-07",
      "2026-06-06",
    ]);
    expect(capacityOfWeek(workshop, "2026-05-31")).toBe(capacityOfWeek(workshop, "2026-06-01"));
  });
  it("have the hours of their days, none of closed ones", () => {
    expect(capacityOfDay(workshop, "2026-06-06")).toBe(2);
    expect(capacityOfDay(workshop, "2026-06-07")).toBe(0);
    // What is offered first is a day on which somebody works.
    expect(findOpenDay(workshop, "2026-06-06")).toBe("2026-06-06");
    expect(findOpenDay(workshop, "2026-06-07")).toBe("2026-06-08");
    expect(findOpenDay({ ...workshop, hoursPerDay: [0, 0, 0, 0, 0, 0, 0] }, "2026-06-07")).toBe("2026-06-07");
    expect(capacityOfDay(workshop, "2026-06-15")).toBe(0);
    expect([capacityOfWeek(workshop, "2026-06-08"), capacityOfWeek(workshop, "2026-06-15")]).toEqual([32, 20]);
  });
});

describe("expectJob", () => {
  const even = createSeason(Array.from({ length: 12 }, () => 1 / 12));
  const forecast = forecastEngine({ readings: [{ date: today, hours: 80 }], meanH: 60, varianceH2: 300 }, even, today);
  const grid = createWeekGrid(today, 52, even, 0);
  const expect1 = (change: object, believed: HourForecast | null = forecast) =>
    expectJob(
      "b",
      "main",
      {
        item: annual,
        targetH: 100,
        hoursDate: "2026-09-20",
        calendarDate: "2026-12-01",
        dueDate: "2026-09-20",
        by: "hours",
        range: null,
        state: "ahead",
        isAnyDay: false,
        ...change,
      },
      believed,
      grid,
    );
  const byWeek = (expected: ExpectedJob) => Array.from({ length: 52 }, (_, week) => chanceIn(expected, week));
  const sum = (chances: readonly number[]) => chances.reduce((total, chance) => total + chance, 0);

  it("comes by hours as the owner runs, at the latest by the calendar, surely once", () => {
    const chances = byWeek(expect1({})!);
    expect(sum(chances)).toBeCloseTo(1, 9);
    expect(chances.slice(27).every((chance) => chance === 0)).toBe(true);
    expect(chances.every((chance) => chance >= 0)).toBe(true);
    const byHoursAlone = expect1({ calendarDate: null })!;
    expect(sum(byHoursAlone.chances)).toBeGreaterThan(0.8);
  });
  it("lies evenly over its season, over eight weeks when it is overdue, and nowhere when nothing says so", () => {
    const season = expect1({ item: layUp, targetH: null, calendarDate: "2026-11-30" })!;
    expect(season.kind).toBe("season");
    const weeks = byWeek(season).flatMap((chance, week) => (chance > 0 ? [week] : []));
    expect([weeks[0], weeks.at(-1)]).toEqual([weekOf("2026-10-01", "2026-06-01"), weekOf("2026-11-30", "2026-06-01")]);
    const late = expect1({ state: "overdue" })!;
    expect(byWeek(late).slice(0, 9)).toEqual([...Array.from({ length: 8 }, () => 1 / 8), 0]);
    expect(expect1({ calendarDate: null }, null)).toBeNull();
  });
  it("has the chances of every week worked out one by one", () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 90, noNaN: true }), fc.integer({ min: -5, max: 70 }), (leftH, week) => {
        const calendarDate = addDays(today, week * 7);
        const expected = expect1({ targetH: 80 + leftH, calendarDate });
        const by = grid.sums.map((sum, at) => {
          const isPast = at >= weekOf(calendarDate, "2026-06-01");
          return isPast ? 1 : forecast.chanceIn(80 + leftH, sum - even.sumUntil(today));
        });
        if (expected === null) expect(by.at(-1)).toBeLessThan(2e-3);
        else byWeek(expected).forEach((chance, at) => void expect(chance).toBeCloseTo(by[at]! - (by[at - 1] ?? 0), 2));
      }),
      { seed: 5, numRuns: 80 },
    );
  });
});

describe("sumLoad", () => {
  it("is the mean and the spread of drawing the jobs again and again", () => {
    const random = createRandom(3);
    const jobs = Array.from({ length: 40 }, (_, i) =>
      job(`b${i}`, {
        labourH: 1 + (i % 3),
        at: [
          [4, 0.3],
          [5, 0.5],
        ],
      }),
    );
    const week = sumLoad(jobs, today, workshop, 0)[4]!;
    const drawn = Array.from({ length: 4000 }, () =>
      jobs.reduce((sum, { labourH }) => sum + (random() < 0.3 ? labourH : 0), 0),
    ).sort((a, b) => a - b);
    expect(week.expectedH).toBeCloseTo(drawn.reduce((a, b) => a + b, 0) / drawn.length, 0);
    expect(Math.abs(week.p10H - drawn[400]!)).toBeLessThan(2);
    expect(Math.abs(week.p90H - drawn[3600]!)).toBeLessThan(2);
    expect(week.jobs).toBeCloseTo(12, 9);
    expect(week.byKind.yearly).toBeCloseTo(week.expectedH, 9);
  });
  it("never goes below what is booked", () => {
    const [, , week] = sumLoad(
      [job("a", { kind: "booked", labourH: 9 }), job("b", { at: [[2, 0.5]] })],
      today,
      workshop,
      0,
    );
    expect(week).toMatchObject({ p10H: expect.any(Number), expectedH: 10 });
    expect(week!.p10H).toBeGreaterThanOrEqual(9);
  });
});

describe("flattenLoad", () => {
  const peak = Array.from({ length: 14 }, (_, i) =>
    job(`b${String(i).padStart(2, "0")}`, { at: [[3, 1]], labourH: 3 }),
  );

  it("offers just so many boats an earlier slot that the week fits, each where there is room", () => {
    const offers = flattenLoad(peak, sumLoad(peak, today, workshop, 0));
    expect(offers).toHaveLength(4);
    expect(new Set(offers.map(({ boat }) => boat)).size).toBe(4);
    for (const { fromWeek, toWeek } of offers) expect([fromWeek, toWeek]).toEqual(["2026-06-22", "2026-06-15"]);
  });

  it("keeps within the time of each job, and leaves what is booked", () => {
    const fixed = peak.map((each): ExpectedJob => ({ ...each, earliest: "2026-06-22" }));
    expect(flattenLoad(fixed, sumLoad(fixed, today, workshop, 0))).toEqual([]);
    const booked = peak.map((each) => ({ ...each, kind: "booked" as const }));
    expect(flattenLoad(booked, sumLoad(booked, today, workshop, 0))).toEqual([]);
  });

  it("takes what one boat is brought for together", () => {
    const twins = peak.flatMap((each) => [each, { ...each, scope: "twin", title: "Twin" }]).slice(0, 24);
    const [first] = flattenLoad(twins, sumLoad(twins, today, workshop, 0));
    expect(first).toMatchObject({ labourH: 6, items: [{ scope: "main" }, { scope: "twin" }] });
  });

  it("never makes another week too full, and never moves later or before its time", () => {
    fc.assert(
      fc.property(fc.nat(1e6), (seed) => {
        const random = createRandom(seed);
        const jobs = Array.from({ length: 60 }, (_, i) => {
          const due = 1 + Math.floor(random() * 10);
          const spread = random() < 0.5;
          return job(`b${i % 40}`, {
            item: `i${i}`,
            labourH: 1 + Math.floor(random() * 3),
            at: spread
              ? [
                  [due, 0.6],
                  [due + 1, 0.4],
                ]
              : [[due, 1]],
            earliest: addDays("2026-06-01", 7 * Math.max(0, due - Math.floor(random() * 6))),
          });
        });
        const weeks = sumLoad(jobs, today, workshop, 0);
        const loadH = weeks.map(({ expectedH }) => expectedH);
        for (const { boat, items, fromWeek, toWeek, labourH } of flattenLoad(jobs, weeks)) {
          expect(toWeek < fromWeek).toBe(true);
          const mine = jobs.filter((each) => each.boat === boat && items.some(({ item }) => item === each.item));
          expect(mine.reduce((sum, each) => sum + each.labourH, 0)).toBe(labourH);
          for (const each of mine) {
            expect(startOfWeek(each.earliest, 0) <= toWeek).toBe(true);
            each.chances.forEach((chance, week) => {
              loadH[week]! -= chance * each.labourH;
            });
            loadH[weekOf(toWeek, weeks[0]!.begins)]! += each.labourH;
          }
        }
        loadH.forEach((hours, week) => {
          expect(hours).toBeLessThanOrEqual(Math.max(weeks[week]!.capacityH, weeks[week]!.expectedH) + 1e-9);
        });
      }),
      { seed: 12, numRuns: 80 },
    );
  });
});
