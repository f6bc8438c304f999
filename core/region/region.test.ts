import { describe, expect, it } from "vitest";
import type { LocalDate } from "../dates/index.ts";
import { formatDate, formatMoney, regions } from "./index.ts";

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
