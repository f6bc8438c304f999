import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics } from "../../content/index.ts";
import type { LocalDate } from "../dates/index.ts";
import {
  areApart,
  type Counting,
  estimateMean,
  estimateMedian,
  estimateRate,
  estimateShare,
  type FirstService,
  judgeFirstService,
  judgePromise,
  type OwedEntry,
  reportCalls,
  reportMinutes,
  reportShares,
  reportSnags,
  type SpentGroup,
  tellOwed,
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

describe("a rate and a middle", () => {
  // Exact Poisson limits (Garwood): 10 events 4.80 to 18.39, none 0 to 3.69; Byar's are within two in a hundred of them.
  it.each([
    [10, 4.8, 18.39],
    [0, 0, 3.69],
    [100, 81.36, 121.63],
  ])("%i calls may be from %f to %f", (k, low, high) => {
    const rate = estimateRate(k, 1)!;
    expect(Math.abs(rate.low - low)).toBeLessThan(0.02 * low + 0.02);
    expect(Math.abs(rate.high - high)).toBeLessThan(0.02 * high + 0.02);
  });
  it("of nothing is nothing, and a broken count is refused", () => {
    expect(estimateRate(0, 0)).toBeNull();
    expect(() => estimateRate(1.5, 3)).toThrow("estimateRate");
  });
  it("of nine values is the fifth, from the second to the eighth; of five there is none", () => {
    expect(estimateMedian([9, 1, 8, 2, 7, 3, 6, 4, 5])).toEqual({ n: 9, value: 5, low: 2, high: 8 });
    // Of a hundred the table says the 40th and the 61st.
    const hundred = Array.from({ length: 100 }, (_, i) => i + 1);
    expect(estimateMedian(hundred)).toEqual({ n: 100, value: 50.5, low: 40, high: 61 });
    expect(estimateMedian([1, 2, 3, 4, 5])).toBeNull();
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 900, noNaN: true }), { minLength: 6, maxLength: 60 }), (values) => {
        const { value, low, high } = estimateMedian(values)!;
        expect(low <= value && value <= high).toBe(true);
        expect(values).toContain(low);
        expect(values).toContain(high);
      }),
    );
  });
});

describe("what was owed", () => {
  const at = (day: number) => `2026-06-${String(day).padStart(2, "0")}T10:00:00.000Z` as OwedEntry["at"];
  const entry = (id: string, kind: OwedEntry["kind"], day: number, more: Partial<OwedEntry> = {}): OwedEntry => ({
    id,
    delivery: "d",
    kind,
    at: at(day),
    ref: null,
    due: null,
    topic: null,
    isNote: false,
    ...more,
  });
  it("is told from first to last: put right, assigned, settled once, taken back", () => {
    const tales = tellOwed([
      entry("a", "snag", 1, { due: "2026-06-05" }),
      entry("b", "snag", 1, { isNote: true }),
      entry("c", "promise", 1, { due: "2026-06-03" }),
      entry("d", "snag", 2, { ref: "b", due: "2026-06-09" }),
      entry("e", "assign", 2, { ref: "c", due: "2026-06-20" }),
      entry("f", "settle", 3, { ref: "a" }),
      entry("g", "settle", 4, { ref: "a" }),
      entry("h", "promise", 4),
      entry("i", "undo", 4, { ref: "h" }),
      entry("j", "settle", 5, { ref: "c" }),
      entry("k", "undo", 6, { ref: "j" }),
    ]);
    expect(tales.map(({ id, due, settledAt }) => [id, due, settledAt])).toEqual([
      ["a", "2026-06-05", at(3)],
      ["b", "2026-06-09", null],
      ["c", "2026-06-20", null],
    ]);
  });
  it.each([
    ["on its day", { due: "2026-06-05", settledOn: "2026-06-05" }, "kept"],
    ["without a day", { due: null, settledOn: "2026-06-05" }, "kept"],
    ["after its day", { due: "2026-06-05", settledOn: "2026-06-06" }, "late"],
    ["not done, its day past", { due: "2026-06-05", settledOn: null }, "late"],
    ["not done, its day today", { due: "2026-06-10", settledOn: null }, "open"],
    ["not done, without a day", { due: null, settledOn: null }, "open"],
  ] as const)("a promise %s", (_, promise, fate) => expect(judgePromise(promise, "2026-06-10")).toBe(fate));

  const sold = (delivery: string, date: LocalDate, boat = "pipit", isLastYear = false): Counting => ({
    delivery,
    boat,
    date,
    isLastYear,
  });
  it("snags are counted by handover, and their days by what was mended", () => {
    const handovers = [...Array(8)].map((_, i) => sold(`d${i}`, "2026-06-01"));
    const tales = [...Array(7)].map((_, i) => ({
      id: `s${i}`,
      delivery: `d${i % 4}`,
      kind: "snag" as const,
      at: at(1),
      due: null,
      settledAt: i === 6 ? null : at(2 + i),
    }));
    const [line] = reportSnags(handovers, tales);
    expect(line).toMatchObject({ id: "pipit", k: 4, n: 8, open: 1, days: { n: 6, value: 3.5 } });
  });
  it("calls count for 90 days, and a month is told of once all its handovers have had them", () => {
    const handovers = [
      sold("old", "2026-01-10"),
      sold("new", "2026-06-01"),
      sold("before", "2025-03-01", "pipit", true),
    ];
    const call = (delivery: string, on: LocalDate, topic: string | null = "horn") => ({ delivery, on, topic });
    const report = reportCalls(
      handovers,
      [call("old", "2026-04-10"), call("old", "2026-04-11"), call("new", "2026-06-05"), call("nobody", "2026-06-05")],
      ["2026-01", "2026-06"],
      "2026-07-01",
    );
    expect(report.months).toEqual([
      { month: "2026-01", calls: 1, handovers: 1, isOver: true },
      { month: "2026-06", calls: 1, handovers: 1, isOver: false },
    ]);
    expect(report.now).toMatchObject({ n: 1, value: 1 });
    expect(report.before).toMatchObject({ n: 1, value: 0 });
    expect(report.topics).toMatchObject([{ id: "horn", k: 1, kBefore: 0 }]);
  });
});
