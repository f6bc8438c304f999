import { describe, expect, it } from "vitest";
import { addDays, type LocalDate } from "../dates/index.ts";
import { createRandom } from "../random.ts";
import { askReading, findDrift, learnFleet, listAnswers, type Reading, resolveReadings } from "./index.ts";
import { drawDays, drawYearH } from "./simulate.ts";

const read = (date: LocalDate, hours: number, answer: Reading["answer"] = null): Reading => ({ date, hours, answer });
const lake = [0, 0, 0.02, 0.07, 0.13, 0.19, 0.22, 0.18, 0.11, 0.06, 0.02, 0];
const engineHours = (readings: Reading[]) => resolveReadings(readings).map(({ engineH }) => engineH);

describe("readings", () => {
  const two = [read("2026-05-01", 1), read("2026-06-01", 12)];

  it("that follow ask nothing", () => {
    expect(askReading(two, { date: "2026-06-20", hours: 20 })).toBeNull();
    expect(askReading([], { date: "2026-06-20", hours: 900 })).toBeNull();
    expect(askReading(two, { date: "2026-05-15", hours: 6 })).toBeNull();
  });

  it("that fall or leap ask, also between earlier ones", () => {
    expect(askReading(two, { date: "2026-06-20", hours: 11 })).toEqual({
      code: "falls",
      beforeH: 12,
      on: "2026-06-01",
    });
    expect(askReading(two, { date: "2026-05-15", hours: 13 })).toMatchObject({ code: "falls", beforeH: 12 });
    expect(askReading(two, { date: "2026-06-05", hours: 112 })).toEqual({
      code: "leaps",
      beforeH: 12,
      on: "2026-06-01",
      perDayH: 25,
    });
    expect(askReading(two, { date: "2026-06-01", hours: 23 })).toMatchObject({ code: "leaps", perDayH: 11 });
  });

  it("go on from where they were when the meter was changed, and count on from there", () => {
    expect(engineHours([...two, read("2026-07-01", 0.5, "meter-changed"), read("2026-08-01", 10)])).toEqual([
      1, 12, 12, 21.5,
    ]);
    const stands = resolveReadings([...two, read("2026-07-01", 0.5, "meter-changed")]);
    expect(stands.at(-1)).toMatchObject({ meterH: 0.5, engineH: 12 });
    expect(askReading([...two, read("2026-07-01", 0.5, "meter-changed")], { date: "2026-07-09", hours: 3 })).toBeNull();
  });

  it("strike an earlier slip, and keep hours out that only the key counted", () => {
    expect(engineHours([...two, read("2026-06-10", 140), read("2026-06-20", 18, "typing-slip")])).toEqual([1, 12, 18]);
    expect(engineHours([...two, read("2026-06-05", 112, "key-left-on"), read("2026-06-25", 120)])).toEqual([
      1, 12, 12, 20,
    ]);
    expect(engineHours([...two, read("2026-06-05", 112, "as-read")])).toEqual([1, 12, 112]);
  });

  it("strike a slip at a change of meters without touching what the old one showed", () => {
    const changed = [read("2026-06-01", 250), read("2026-07-01", 3, "meter-changed")];
    expect(engineHours([...changed, read("2026-07-02", 1, "typing-slip")])).toEqual([250, 250]);
    expect(engineHours([...changed, read("2026-07-02", 1, "typing-slip"), read("2026-07-20", 6)])).toEqual([
      250, 250, 255,
    ]);
    // A slip on the new meter, later: its first reading stands.
    expect(engineHours([...changed, read("2026-07-20", 90), read("2026-07-21", 9, "typing-slip")])).toEqual([
      250, 250, 256,
    ]);
    const key = [...two, read("2026-06-05", 112, "key-left-on")];
    expect(engineHours([...key, read("2026-06-06", 13, "typing-slip")])).toEqual([1, 12, 13]);
  });

  it("are the same within what a meter shows: 13.0 after a run that came to 13.05 is no fall", () => {
    const ran = [read("2026-06-01", 13.05)];
    expect(askReading(ran, { date: "2026-06-02", hours: 13 })).toBeNull();
    expect(askReading(ran, { date: "2026-06-02", hours: 12.9 })).toMatchObject({ code: "falls" });
    expect(askReading([read("2026-06-01", 13)], { date: "2026-06-02", hours: 12.9 })).toMatchObject({ code: "falls" });
    expect(
      askReading([read("2026-06-01", 5), read("2026-06-03", 13)], { date: "2026-06-02", hours: 13.05 }),
    ).toBeNull();
  });

  it("that leap are asked about sooner on a meter that counts with the key on, which then comes first", () => {
    const leap = { date: "2026-06-03", hours: 12 + 2 * 8 } as const;
    expect(askReading(two, leap)).toBeNull();
    expect(askReading(two, leap, "running")).toBeNull();
    expect(askReading(two, leap, "key-on")).toEqual({ code: "leaps", beforeH: 12, on: "2026-06-01", perDayH: 8 });
    expect(listAnswers("leaps", "key-on")[0]).toBe("key-left-on");
    expect(listAnswers("leaps", undefined)).toContain("key-left-on");
    for (const meter of ["running", "after-first-hour"] as const)
      expect(listAnswers("leaps", meter)).toEqual(["as-read", "meter-changed"]);
    expect(listAnswers("falls", "key-on")).toEqual(["typing-slip", "meter-changed"]);
  });

  it("of a pair that drift apart are noticed, small ones not", () => {
    expect(findDrift([40, 31])).toBe(9);
    expect(findDrift([40, 38.5])).toBeNull();
    expect(findDrift([3, 1.5])).toBeNull();
    expect(findDrift([40])).toBeNull();
  });
});

describe("learnFleet", () => {
  const monthly = lake.map((share) => share * 40);

  it("is what the store expects while nothing was read", () => {
    const fleet = learnFleet([], monthly);
    expect(fleet.yearH).toEqual({ mean: expect.closeTo(40, 6), cv: expect.closeTo(0.6, 6) });
    expect(fleet.seasonShare[6]).toBeCloseTo(0.22, 6);
  });

  it("comes to the mean, the spread and the season of the boats it reads", () => {
    const random = createRandom(5);
    const season = [0, 0, 0, 0.05, 0.1, 0.15, 0.3, 0.25, 0.1, 0.05, 0, 0];
    const engines = Array.from({ length: 120 }, () => {
      const days = drawDays(drawYearH({ mean: 80, cv: 0.4 }, random), "2024-01-01", 730, season, random);
      let total = 0;
      return [...days].flatMap((hours, i) => {
        total += hours;
        return i % 30 === 0 ? [{ date: addDays("2024-01-02", i), meterH: total, engineH: total }] : [];
      });
    });
    const fleet = learnFleet(engines, monthly);
    expect(fleet.yearH.mean).toBeGreaterThan(70);
    expect(fleet.yearH.mean).toBeLessThan(90);
    expect(Math.abs(fleet.yearH.cv - 0.4)).toBeLessThan(0.12);
    expect(Math.abs(fleet.seasonShare[6]! - 0.3)).toBeLessThan(0.04);
    expect(fleet.seasonShare.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
  });
});
