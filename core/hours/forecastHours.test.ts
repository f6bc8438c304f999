import { describe, expect, it } from "vitest";
import { addDays, addMonths, differenceDays, type LocalDate } from "../dates/index.ts";
import { createRandom } from "../random.ts";
import { type ForecastInput, forecastHours, forecastInputSchema } from "./index.ts";
import { believeOwner, describeOwner, findRate } from "./owner.ts";
import { drawDays, drawYearH } from "./simulate.ts";

const lake = [0, 0, 0.02, 0.07, 0.13, 0.19, 0.22, 0.18, 0.11, 0.06, 0.02, 0];
const even = Array.from({ length: 12 }, () => 1 / 12);
const ask = (change: Partial<ForecastInput> = {}) =>
  forecastHours({
    readings: [{ date: "2026-05-01", hours: 1 }],
    seasonShare: lake,
    fleetYearH: { mean: 50, cv: 0.6 },
    today: "2026-05-01",
    targetsH: [20],
    ...change,
  });

/** Owners drawn from the model, read each month, asked when they reach some hours more: how often the truth is inside. */
function calibrate(months: number, owners: number, cv: number, seasonShare: readonly number[]): number {
  const random = createRandom(100 * months + owners);
  let inside = 0;
  for (let k = 0; k < owners; k++) {
    const fleetYearH = { mean: 55, cv };
    const start = addDays("2026-04-05", Math.floor(random() * 150));
    const days = drawDays(drawYearH(fleetYearH, random), start, 365 * 11, seasonShare, random);
    const total = [0];
    for (const hours of days) total.push(total.at(-1)! + hours);
    const totalOn = (date: LocalDate) => total[differenceDays(date, start)]!;
    const today = addMonths(start, months);
    const readings = Array.from({ length: months + 1 }, (_, m) => addMonths(start, m)).map((date) => ({
      date,
      hours: totalOn(date),
    }));
    const targetH = totalOn(today) + [4, 15, 40, 90][k % 4]!;
    const at = total.findIndex((hours) => hours >= targetH);
    const truth = at < 0 ? null : addDays(start, at);
    const target = forecastHours({ readings, seasonShare: [...seasonShare], fleetYearH, today, targetsH: [targetH] })
      .targets[0]!;
    const late = "9999-12-31";
    if ((target.p10 ?? late) <= (truth ?? late) && (truth ?? late) <= (target.p90 ?? late)) inside++;
  }
  return inside / owners;
}

describe("forecastHours", () => {
  it.each([
    [1, 0.6, lake],
    [3, 0.6, lake],
    [12, 0.6, lake],
    [1, 0.3, even],
    [3, 1, lake],
    [12, 1, even],
  ])(
    "holds the truth of simulated owners about eight times in ten, after %i months, spread %d",
    (months, cv, season) => {
      const share = calibrate(months, 500, cv, season);
      expect(share).toBeGreaterThanOrEqual(0.74);
      expect(share).toBeLessThanOrEqual(0.86);
    },
  );

  it("puts a heavy user's targets well before a light one's, and believes their rates apart", () => {
    const read = (hours: number) =>
      ask({
        readings: [
          { date: "2026-05-01", hours: 1 },
          { date: "2026-08-01", hours },
        ],
        today: "2026-08-01",
        targetsH: [100],
      });
    const heavy = read(70);
    const light = read(8);
    expect(heavy.yearH.p10).toBeGreaterThan(light.yearH.p90);
    expect(heavy.targets[0]!.p90! < light.targets[0]!.p10!).toBe(true);
  });

  it("knows the fleet alone where nothing was read, and its own yearly hours in the middle of it", () => {
    const { yearH } = ask({ readings: [] });
    expect(yearH.p50).toBeGreaterThan(40);
    expect(yearH.p50).toBeLessThan(50);
    expect(yearH.p10).toBeLessThan(20);
    expect(yearH.p90).toBeGreaterThan(80);
  });

  it("keeps its dates in order, later for more hours, and none in a winter without boating", () => {
    const { targets } = ask({ targetsH: [2, 10, 20, 50, 100] });
    for (const [i, { p10, p50, p90 }] of targets.entries()) {
      expect(p10! <= p50! && p50! <= p90!).toBe(true);
      for (const date of [p10, p50, p90]) expect(["12", "01", "02"]).not.toContain(date!.slice(5, 7));
      if (i > 0) expect(p50! >= targets[i - 1]!.p50!).toBe(true);
    }
  });

  it("says today for what was read already, and null for what is beyond ten years", () => {
    const { targets } = ask({ targetsH: [1, 5000] });
    expect(targets[0]).toEqual({ targetH: 1, p10: "2026-05-01", p50: "2026-05-01", p90: "2026-05-01" });
    expect(targets[1]).toMatchObject({ p10: null, p90: null });
  });

  it("believes no one impossible who went out in a month without a season", () => {
    const winter = ask({
      readings: [
        { date: "2026-01-01", hours: 1 },
        { date: "2026-01-31", hours: 6 },
      ],
      today: "2026-01-31",
    });
    expect(Number.isFinite(winter.yearH.p50)).toBe(true);
    expect(winter.targets[0]!.p50).not.toBeNull();
  });

  it.each([
    [
      "falling readings",
      {
        readings: [
          { date: "2026-05-01", hours: 5 },
          { date: "2026-06-01", hours: 4 },
        ],
      },
      "readings.1.hours",
    ],
    [
      "readings out of order",
      {
        readings: [
          { date: "2026-05-01", hours: 5 },
          { date: "2026-04-01", hours: 6 },
        ],
      },
      "readings.1.date",
    ],
    ["a season that is not a whole year", { seasonShare: even.map(() => 0.1) }, "seasonShare"],
    ["29 February of another year", { today: "2026-02-29" }, "today"],
  ])("refuses %s", (_, change, path) => {
    const question = {
      readings: [],
      seasonShare: even,
      fleetYearH: { mean: 50, cv: 0.5 },
      today: "2026-07-01",
      targetsH: [],
      ...change,
    };
    expect(forecastInputSchema.safeParse(question).error?.issues[0]?.path.join(".")).toBe(path);
  });
});

describe("believeOwner", () => {
  it("is the fleet's own gamma before anything was read", () => {
    for (const cv of [0.2, 0.5, 1]) {
      const { meanH, varianceH2 } = describeOwner(believeOwner({ mean: 60, cv }, [], 2.5));
      expect(meanH).toBeCloseTo(60, 0);
      expect(Math.sqrt(varianceH2) / 60).toBeCloseTo(cv, 1);
    }
  });

  it("comes close to what an owner shows, the closer the longer", () => {
    const believe = (years: number) =>
      believeOwner(
        { mean: 50, cv: 0.6 },
        Array.from({ length: years }, () => ({ share: 1, hours: 120 })),
        2.5,
      );
    expect(findRate(believe(1), 0.5)).toBeGreaterThan(95);
    expect(Math.abs(findRate(believe(8), 0.5) - 120)).toBeLessThan(Math.abs(findRate(believe(1), 0.5) - 120));
  });
});
