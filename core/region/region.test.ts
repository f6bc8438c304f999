import { describe, expect, it } from "vitest";
import type { LocalDate } from "../dates/index.ts";
import { formatDate, formatMoney, formatTime, regions, spellAll, spellText } from "./index.ts";

const day = "2026-06-17" as LocalDate;

describe("a day", () => {
  it.each([
    ["dmy", "short", "Wed 17 Jun"],
    ["dmy", "long", "Wednesday 17 June"],
    ["dmy", "dated", "17 Jun 2026"],
    ["dmy", "printed", "17 June 2026"],
    ["mdy", "short", "Wed Jun 17"],
    ["mdy", "long", "Wednesday June 17"],
    ["mdy", "dated", "Jun 17, 2026"],
    ["mdy", "printed", "June 17, 2026"],
    ["ymd", "dated", "2026 Jun 17"],
    ["ymd", "short", "Wed Jun 17"],
  ] as const)("in the order %s, %s, is %s", (order, style, said) => {
    expect(formatDate(day, style, order)).toBe(said);
  });
});

describe("a time", () => {
  it.each([
    [0, "12:00\u00a0am", "00:00"],
    [545, "9:05\u00a0am", "09:05"],
    [720, "12:00\u00a0pm", "12:00"],
    [1439, "11:59\u00a0pm", "23:59"],
    [1470, "12:30\u00a0am", "24:30"],
  ] as const)(
    "of %i minutes is %s or %s, as the store writes it; in other languages by 24 hours",
    (minute, by12, by24) => {
      expect([formatTime(minute, "12"), formatTime(minute, "24"), formatTime(minute, "12", "fr")]).toEqual([
        by12,
        by24,
        by24,
      ]);
    },
  );
});

describe("money", () => {
  it("bears the store's currency", () => {
    expect(formatMoney(31240, regions.us)).toBe("$312.40");
    expect(formatMoney(1250000, regions.imperial)).toBe("£12,500.00");
    expect(formatMoney(5, regions.metric)).toBe("€0.05");
  });

  it("of a currency nobody knows is named by its letters", () => {
    expect(formatMoney(100, { currency: "QQQ", spelling: "us" })).toMatch(/QQQ\s?1\.00/);
  });
});

describe("spelling", () => {
  it("follows the region, keeps capitals, and leaves other words alone", () => {
    expect(spellText("Tire pressure. TIRES worn, gray harbor, gasoline vapor.", "uk")).toBe(
      "Tyre pressure. TYRES worn, grey harbour, petrol vapour.",
    );
    expect(spellText("Tire pressure", "us")).toBe("Tire pressure");
    expect(spellText("Entire retirement; hour meter; colorless", "uk")).toBe(
      "Entire retirement; hour meter; colorless",
    );
    expect(spellText("Check the license plate light and the turn signals.", "uk")).toBe(
      "Check the number plate light and the indicators.",
    );
  });

  it("said twice is said once", () => {
    const once = spellText("Draft of the tires at the curb", "uk");
    expect(spellText(once, "uk")).toBe(once);
  });

  it("of a whole list leaves ids and kinds alone", () => {
    const checks = [
      { id: "gray-tire", title: "Gray tire", work: ["Tire off"], when: { has: "tire" }, months: 3, of: null },
    ];
    expect(spellAll(checks, "uk")).toEqual([{ ...checks[0], title: "Grey tyre", work: ["Tyre off"] }]);
    expect(spellAll(checks, "us")).toBe(checks);
  });
});
