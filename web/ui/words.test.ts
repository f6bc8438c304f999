import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { LocalDate } from "../../core/dates/index.ts";
import { type Day, describeDue, formatDue, formatRange } from "./DueDay.tsx";
import { fillFalls, fillTemplate } from "./fillTemplate.ts";
import { formatMoney, readMoney, toAmount } from "./money.ts";
import { formatHours } from "./words.ts";

describe("money", () => {
  it.each([
    ["312,40", 31_240],
    ["312.4", 31_240],
    [" 80 ", 8000],
    ["0", 0],
    ["$320", 32_000],
    ["320.00", 32_000],
    ["320,00", 32_000],
    ["€ 1.250,50", 125_050],
    ["1,250.50", 125_050],
    ["1,250", 125_000],
    ["80 £", 8000],
    ["", null],
    ["   ", null],
  ])("%j is %s", (text, cents) => {
    expect(readMoney(text)).toBe(cents);
  });

  it.each(["dear", "-3", "1.2.3", "1,25,3", "$", "320 dollars", "1e9", "12 or 13", "NaN", "Infinity"])(
    "%j is no amount",
    (text) => {
      expect(readMoney(text)).toBeUndefined();
    },
  );

  it("reads back whatever it has said, with a point or a comma", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100_000_000 }), (cents) => {
        const said = toAmount(cents);
        expect(said).toMatch(/^\d+\.\d\d$/);
        expect([readMoney(said), readMoney(said.replace(".", ","))]).toEqual([cents, cents]);
        // And as it is shown, with the currency and its thousands apart.
        expect(readMoney(formatMoney(cents))).toBe(cents);
      }),
      { seed: 8 },
    );
  });
});

describe("message templates", () => {
  it("put words in their places, and leave places nobody knows", () => {
    expect(fillTemplate("Hello {buyers}, {boat}: {link}", { buyers: "Ilse", boat: "your Wending 23" })).toBe(
      "Hello Ilse, your Wending 23: {link}",
    );
    expect(fillTemplate("{buyers}{buyers}", { buyers: "{boat}", boat: "no" })).toBe("{boat}{boat}");
  });

  it("say of what is past due that it has been", () => {
    const day: Day = { date: "2026-06-01", range: null, isAnyDay: false };
    const range = { from: "2026-05-01", to: "2026-07-01" } as const;
    expect(fillFalls(day, false)).toEqual({ falls: "falls due about", date: "Mon 1 Jun" });
    expect(fillFalls(day, true)).toEqual({ falls: "has been due since", date: "1 Jun 2026" });
    expect(fillFalls({ ...day, range }, true).falls).toBe("has likely been due since");
    expect(fillFalls({ ...day, range, isAnyDay: true }, false)).toEqual({ falls: "falls due", date: "any day now" });
  });
});

describe("a day that is a forecast", () => {
  const today = "2026-05-20";
  const day = (date: LocalDate | null, from: LocalDate, to: LocalDate | null, isAnyDay = false): Day => ({
    date,
    range: { from, to },
    isAnyDay,
  });
  it.each<[string, Day]>([
    ["likely 3 Dec 2026, between 18 Nov 2026 and 20 Jan 2027", day("2026-12-03", "2026-11-18", "2027-01-20")],
    ["likely since 3 May 2026, between 1 Apr 2026 and 1 Jul 2026", day("2026-05-03", "2026-04-01", "2026-07-01")],
    ["any day now, likely by 3 Jun 2026", day("2026-06-03", "2026-05-01", "2026-07-01", true)],
    ["any day now, likely by 3 Jun 2026", day("2026-06-03", "2026-05-01", null, true)],
    ["not before 1 May 2030", day(null, "2030-05-01", null)],
    ["not within ten years", { date: null, range: null, isAnyDay: false }],
    ["21 May 2026, tomorrow", { date: "2026-05-21", range: null, isAnyDay: false }],
  ])("is %s", (says, given) => {
    expect(describeDue(given, today)).toBe(says);
  });
  it("is short in a table", () => {
    expect(formatDue({ date: "2026-12-03", isAnyDay: false })).toBe("3 Dec 2026");
    expect(formatDue({ date: "2026-12-03", isAnyDay: true })).toBe("any day now");
    expect(formatRange({ from: "2026-11-18", to: "2026-12-20" })).toBe("18 Nov to 20 Dec 2026");
    expect(formatRange({ from: "2026-11-18", to: "2027-01-20" })).toBe("18 Nov 2026 to 20 Jan 2027");
    expect(formatRange({ from: "2026-11-18", to: null })).toBe("from 18 Nov 2026, no end known");
  });
});

describe("engine hours", () => {
  it.each([
    [10, "10"],
    [20.904, "20.9"],
    [9.96, "10"],
  ])("%d h are said as %s", (hours, says) => {
    expect(formatHours(hours)).toBe(says);
  });
});
