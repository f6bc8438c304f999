import { describe, expect, it } from "vitest";
import {
  addDays,
  addMonths,
  daysInMonth,
  differenceDays,
  fromDayNumber,
  type LocalDate,
  localDateSchema,
  toDayNumber,
} from "./index.ts";

describe("dates", () => {
  it("steps day by day through two leap years as the calendar does", () => {
    let date: LocalDate = "2023-12-30";
    for (let i = 0; i < 900; i++) {
      const next = addDays(date, 1);
      const [year, month, day] = date.split("-").map(Number) as [number, number, number];
      const length = [31, year % 4 === 0 ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][month - 1]!;
      const expected = day < length ? [year, month, day + 1] : month < 12 ? [year, month + 1, 1] : [year + 1, 1, 1];
      expect(next.split("-").map(Number)).toEqual(expected);
      expect(differenceDays(next, date)).toBe(1);
      expect(fromDayNumber(toDayNumber(next))).toBe(next);
      date = next;
    }
  });

  it("is the calendar of Date, over four centuries and both ways", () => {
    for (let day = -80_000; day < 80_000; day += 37) {
      const date = new Date(day * 86_400_000).toISOString().slice(0, 10) as LocalDate;
      expect(fromDayNumber(day)).toBe(date);
      expect(toDayNumber(date)).toBe(day);
      const [year, month] = [+date.slice(0, 4), +date.slice(5, 7)];
      expect(daysInMonth(year, month)).toBe(new Date(Date.UTC(year, month, 0)).getUTCDate());
    }
  });

  it.each<[LocalDate, number, LocalDate]>([
    ["2020-02-29", 12, "2021-02-28"],
    ["2024-01-31", 1, "2024-02-29"],
    ["2024-03-31", -1, "2024-02-29"],
    ["2023-11-15", 240, "2043-11-15"],
  ])("%s and %i months is %s", (date, months, answer) => {
    expect(addMonths(date, months)).toBe(answer);
  });

  it.each(["2023-02-29", "2024-13-01", "2024-00-10", "24-1-1", "2024-04-31", "yesterday"])("refuses %s", (text) => {
    expect(localDateSchema.safeParse(text).success).toBe(false);
  });
});
