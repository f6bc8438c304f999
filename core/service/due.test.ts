import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { addDays, addMonths, daysInMonth, type LocalDate } from "../dates/index.ts";
import { createRandom } from "../random.ts";
import { type DueInput, type DueOutput, due } from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n");
const noHours = Array.from({ length: 12 }, () => 0);

function ask(change: Partial<DueInput>): DueOutput["items"][number] {
  return due({
    inService: "2024-01-31",
    today: "2024-02-01",
    hoursNow: 0,
    monthlyHours: noHours,
    items: [{ id: "i" }],
    done: [],
    ...change,
  }).items[0]!;
}

describe("due", () => {
  it.each(cases.map((line, i) => [i, line] as const))("answers worked example %i", (_, line) => {
    const { input, output } = JSON.parse(line) as { input: DueInput; output: DueOutput };
    expect(due(input)).toEqual(output);
  });

  it("clamps months to the month's end", () => {
    expect(ask({ items: [{ id: "i", firstMonths: 1 }] }).calendarDate).toBe("2024-02-29");
  });

  it("gives a tie of the two dates to the calendar", () => {
    const monthlyHours = noHours.map((_, month) => (month === 1 ? 29 : 0));
    const item = ask({ monthlyHours, items: [{ id: "i", everyH: 28, everyMonths: 1 }] });
    expect(item).toMatchObject({ hoursDate: "2024-02-29", calendarDate: "2024-02-29", by: "calendar" });
  });

  it("reads soon as within, on hours and on days, and overdue as past", () => {
    expect(ask({ hoursNow: 15, items: [{ id: "i", everyH: 20 }] }).state).toBe("soon");
    expect(ask({ hoursNow: 14.9, items: [{ id: "i", everyH: 20 }] }).state).toBe("ahead");
    expect(ask({ hoursNow: 20, items: [{ id: "i", everyH: 20 }] }).state).toBe("soon");
    expect(ask({ hoursNow: 20.1, items: [{ id: "i", everyH: 20 }] }).state).toBe("overdue");
    const byMonth = { items: [{ id: "i", everyMonths: 1 }] };
    expect(ask({ ...byMonth, today: "2024-01-30" }).state).toBe("soon");
    expect(ask({ ...byMonth, today: "2024-01-29" }).state).toBe("ahead");
    expect(ask({ ...byMonth, today: "2024-02-29" }).state).toBe("soon");
    expect(ask({ ...byMonth, today: "2024-03-01" }).state).toBe("overdue");
  });

  it("answers null for hours that are not reached within 20 years", () => {
    const item = ask({ items: [{ id: "i", everyH: 100 }] });
    expect(item).toMatchObject({ hoursDate: null, dueDate: null, by: null, state: "ahead" });
  });

  it("finds the hours date that a walk day by day finds", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = createRandom(seed);
      const monthlyHours = noHours.map(() => (random() < 0.3 ? 0 : random() * 15));
      const hoursNow = random() * 50;
      const today = addDays("2021-01-01", Math.floor(random() * 1500));
      const everyH = 1 + random() * 300;
      let hours = hoursNow;
      let date: LocalDate | null = today;
      while (hours < everyH) {
        date = addDays(date, 1);
        if (date > addMonths(today, 240)) {
          date = null;
          break;
        }
        const [year, month] = date.split("-").map(Number);
        hours += monthlyHours[month! - 1]! / daysInMonth(year!, month!);
      }
      expect(ask({ monthlyHours, hoursNow, today, items: [{ id: "i", everyH }] }).hoursDate, `seed ${seed}`).toBe(date);
    }
  });
});
