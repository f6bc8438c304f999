import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { breakInPacks } from "../../content/index.ts";
import { addDays, type LocalDate } from "../dates/index.ts";
import { burnOf, type Fill, measureFuel, type TankBurn, tanksBurnt, toHours, turnTanks } from "./index.ts";

const tanks = breakInPacks.find(({ id }) => id === "tanks-3")!;
const entered: TankBurn = { tankL: 60, burnLph: 18, used: null };
const fill = (date: LocalDate, litres: number, isFull = true): Fill => ({ date, litres, isFull });
const reported = (hours: Record<string, number>) => (date: LocalDate) => hours[date] ?? null;

describe("a break-in by tanks", () => {
  it("becomes hours by tank and burn, with the spread of the burn", () => {
    const { lowH, likelyH, highH } = turnTanks(3, entered);
    expect(likelyH).toBeCloseTo(10, 9);
    expect(lowH).toBeCloseTo(7.69, 2);
    expect(highH).toBeCloseTo(14.29, 2);
    expect(toHours(tanks, entered)).toMatchObject({ per: "hour", totalH: 10 });
  });

  it("is not guessed where the burn is not known, and one by hours stays as it is", () => {
    expect(toHours(tanks, null)).toBeNull();
    expect(toHours(breakInPacks[0]!, null)).toBe(breakInPacks[0]);
  });

  it("is spread only over what was not measured yet, and not at all once its tanks are burnt", () => {
    const used = { fromH: 0, points: [{ hours: 5, litres: 100 }] };
    // 180 L in all: 100 measured until 5 h, 80 to come at 20 L/h.
    const { lowH, likelyH, highH } = turnTanks(3, { tankL: 60, burnLph: 20, used });
    expect([lowH, likelyH, highH].map((hours) => Number(hours.toFixed(3)))).toEqual([8.077, 9, 10.714]);
    const all = turnTanks(3, { tankL: 40, burnLph: 20, used: { fromH: 0, points: [{ hours: 8, litres: 160 }] } });
    expect(all).toEqual({ lowH: 6, likelyH: 6, highH: 6 });
    expect([2.5, 5, 7].map((hours) => tanksBurnt(hours, { tankL: 60, burnLph: 20, used }))).toEqual([
      50 / 60,
      100 / 60,
      140 / 60,
    ]);
    expect(tanksBurnt(5, entered)).toBeCloseTo(1.5, 9);
  });
});

describe("measureFuel", () => {
  it("goes from full tanks to full tanks, with all that went in between", () => {
    const fills = [fill("2026-06-01", 50), fill("2026-06-05", 30, false), fill("2026-06-09", 42)];
    const used = measureFuel(fills, 1, reported({ "2026-06-01": 2, "2026-06-09": 6 }))!;
    expect(used).toEqual({ fromH: 2, points: [{ hours: 6, litres: 72 }] });
    expect(burnOf(used)).toBe(18);
  });

  it("shares among the engines of one tank, and says nothing before a second brim or of less than an hour", () => {
    const fills = [fill("2026-06-01", 50), fill("2026-06-09", 60)];
    const hours = { "2026-06-01": 2, "2026-06-09": 4 };
    expect(burnOf(measureFuel(fills, 2, reported(hours))!)).toBe(15);
    expect(measureFuel(fills.slice(0, 1), 1, reported(hours))).toBeNull();
    expect(measureFuel(fills, 1, reported({ "2026-06-01": 2, "2026-06-09": 2.5 }))).toBeNull();
    expect(measureFuel([], 1, reported({}))).toBeNull();
  });

  it("only adds the litres of a day without hours, and of one tank topped up twice", () => {
    const fills = [fill("2026-06-01", 50), fill("2026-06-04", 20), fill("2026-06-09", 20), fill("2026-06-10", 2)];
    const hours = reported({ "2026-06-01": 1, "2026-06-09": 3, "2026-06-10": 3 });
    expect(measureFuel(fills, 1, hours)).toEqual({ fromH: 1, points: [{ hours: 3, litres: 42 }] });
    const topped = [fill("2026-06-01", 50), fill("2026-06-02", 3), fill("2026-06-09", 40)];
    const still = reported({ "2026-06-01": 1, "2026-06-02": 1, "2026-06-09": 3 });
    expect(measureFuel(topped, 1, still)).toEqual({ fromH: 1, points: [{ hours: 3, litres: 40 }] });
  });

  it("finds the hours at which a simulated engine had burnt each tank, within what lies between two brims", () => {
    const trips = fc.array(
      fc.record({
        hours: fc.double({ min: 0.3, max: 4, noNaN: true }),
        lph: fc.double({ min: 6, max: 40, noNaN: true }),
        isFull: fc.boolean(),
      }),
      { minLength: 4, maxLength: 20 },
    );
    fc.assert(
      fc.property(trips, fc.double({ min: 0, max: 3, noNaN: true }), (ran, shopH) => {
        // Full at the handover; after each trip what it burnt, or half of it, is put in.
        const hours: Record<string, number> = { "2026-06-00": shopH };
        const fills = [fill("2026-06-00", 1)];
        const burnt: [number, number][] = [[shopH, 0]];
        let empty = 0;
        ran.forEach((trip, i) => {
          const date = addDays("2026-06-01", i);
          const [beforeH, beforeL] = burnt.at(-1)!;
          hours[date] = beforeH + trip.hours;
          burnt.push([hours[date]!, beforeL + trip.hours * trip.lph]);
          empty += trip.hours * trip.lph;
          fills.push(fill(date, trip.isFull ? empty : empty / 2, trip.isFull));
          empty = trip.isFull ? 0 : empty / 2;
        });
        const used = measureFuel(fills, 1, (date) => hours[date] ?? null);
        if (used === null) return;
        const burnLph = burnOf(used);
        const fuel: TankBurn = { tankL: 1, burnLph, used };
        let last = -1;
        for (const point of used.points) {
          const known = burnt.find(([at]) => at === point.hours)!;
          expect(point.litres).toBeCloseTo(known[1], 6);
          const { lowH, likelyH, highH } = turnTanks(shopH * burnLph + point.litres, fuel);
          expect(likelyH).toBeCloseTo(point.hours, 6);
          expect(tanksBurnt(likelyH, fuel)).toBeCloseTo(shopH * burnLph + point.litres, 5);
          expect(lowH).toBeLessThanOrEqual(likelyH + 1e-9);
          expect(highH).toBeGreaterThanOrEqual(likelyH - 1e-9);
          expect(likelyH).toBeGreaterThan(last);
          last = likelyH;
        }
      }),
      { seed: 11, numRuns: 300 },
    );
  });
});
