import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics } from "../../content/index.ts";
import {
  areApart,
  estimateMean,
  estimateShare,
  type FirstService,
  judgeFirstService,
  reportMinutes,
  reportShares,
  type SpentGroup,
} from "./index.ts";

describe("a share and its span", () => {
  // Worked by hand from Wilson's formula.
  it.each([
    [8, 10, 0.4902, 0.9433],
    [0, 10, 0, 0.2775],
    [10, 10, 0.7225, 1],
    [1, 3, 0.0615, 0.7923],
  ])("of %i in %i is from %f to %f", (k, n, low, high) => {
    const share = estimateShare(k, n)!;
    expect([share.low, share.high].map((each) => Number(each.toFixed(4)))).toEqual([low, high]);
  });

  it("holds the share, grows narrower with n, and refuses what is no share", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.double({ min: 0, max: 1, noNaN: true }), (n, of) => {
        const k = Math.round(n * of);
        const [small, large] = [estimateShare(k, n)!, estimateShare(10 * k, 10 * n)!];
        expect(small.low).toBeLessThanOrEqual(small.value + 1e-12);
        expect(small.high).toBeGreaterThanOrEqual(small.value - 1e-12);
        expect(large.high - large.low).toBeLessThan(small.high - small.low);
      }),
    );
    expect(estimateShare(0, 0)).toBeNull();
    expect(() => estimateShare(3, 2)).toThrow("estimateShare");
  });
});

describe("a mean and its span", () => {
  const of = (values: readonly number[]) =>
    estimateMean(
      values.length,
      values.reduce((sum, value) => sum + value, 0),
      values.reduce((sum, value) => sum + value * value, 0),
    );
  it("is Student's: five values 1 to 5 are 3, from 1.04 to 4.96", () => {
    const mean = of([1, 2, 3, 4, 5])!;
    expect(mean.value).toBe(3);
    expect(mean.low).toBeCloseTo(1.037, 1);
    expect(mean.high).toBeCloseTo(4.963, 1);
  });
  it("is not said of fewer than five", () => expect(of([1, 2, 3, 4])).toBeNull());
  it("says that two differ only where their spans do not meet", () => {
    expect(areApart(of([1, 1.1, 0.9, 1, 1]), of([2, 2.1, 1.9, 2, 2]))).toBe(true);
    expect(areApart(of([1, 2, 3, 4, 5]), of([2, 3, 4, 5, 6]))).toBe(false);
    expect(areApart(null, of([1, 2, 3, 4, 5]))).toBe(false);
  });
});

describe("the first service", () => {
  const engine: FirstService = { inService: "2026-01-10", firstH: 20, firstMonths: 12, done: null, likelyNowH: 5 };
  const done = (date: `${string}`, hours: number, isElsewhere = false) => ({
    ...engine,
    done: { date: date as FirstService["inService"], hours, isElsewhere },
  });
  it.each([
    ["kept by its hours", done("2026-05-01", 21), "kept"],
    ["kept within the grace", done("2027-02-05", 25), "kept"],
    ["late by hours", done("2026-05-01", 26), "late"],
    ["late by its day", done("2027-03-01", 9), "late"],
    ["lost to somebody else", done("2026-05-01", 18, true), "lost"],
    ["still to come", engine, "open"],
    ["overdue by hours", { ...engine, likelyNowH: 27 }, "late"],
    ["lost at twice its hours", { ...engine, likelyNowH: 41 }, "lost"],
    ["open where no hours are known", { ...engine, likelyNowH: null }, "open"],
  ] as const)("is %s", (_, service, fate) => expect(judgeFirstService(service, "2026-07-01")).toBe(fate));
  it("is late, then lost, by the calendar alone", () => {
    expect(judgeFirstService(engine, "2027-02-09")).toBe("open");
    expect(judgeFirstService(engine, "2027-02-10")).toBe("late");
    expect(judgeFirstService(engine, "2027-05-11")).toBe("lost");
  });
});

describe("minutes against the plan", () => {
  const [one, two] = topics.filter(({ must }) => must) as [(typeof topics)[number], (typeof topics)[number]];
  const group = (topic: string, change: Partial<SpentGroup> = {}): SpentGroup => ({
    topic,
    by: "nessa",
    people: 1,
    experience: "first-time",
    isLastYear: false,
    n: 10,
    sumMin: 30,
    sumOfSquares: 95,
    ...change,
  });
  it("are added up over specialists and years, and a topic nobody has any more is left out", () => {
    const report = reportMinutes(topics, [
      group(one.id),
      group(one.id, { by: "tobin", n: 5, sumMin: 10, sumOfSquares: 21 }),
      group(one.id, { isLastYear: true, n: 6, sumMin: 6, sumOfSquares: 6.5 }),
      group("nobody-has-it"),
      group(two.id, { n: 3 }),
    ]);
    expect(report.topics).toHaveLength(1);
    expect(report.topics[0]).toMatchObject({ id: one.id, now: { n: 15 }, before: { n: 6, value: 1 } });
    expect(report.topics[0]!.now!.value).toBeCloseTo(40 / 15);
    expect(report.people.map(({ id }) => id).sort()).toEqual(["nessa", "tobin"]);
    expect(report.people.find(({ id }) => id === "tobin")!.now!.value).toBeCloseTo(2 / report.topics[0]!.plannedMin);
  });
});

it("shares come by the lower end of their span: one of one is no surer than ninety of a hundred", () => {
  const line = { kBefore: 0, nBefore: 0 };
  const shares = reportShares([
    { id: "once", k: 1, n: 1, ...line },
    { id: "often", k: 90, n: 100, ...line },
    { id: "none", k: 0, n: 0, ...line },
  ]);
  expect(shares.map(({ id }) => id)).toEqual(["often", "once", "none"]);
});
