import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { addDays } from "../dates/index.ts";
import { createRandom } from "../random.ts";
import { type VisitsInput, type VisitsOutput, visits, visitsInputSchema } from "./index.ts";

const cases = readFileSync(new URL("./visitsCases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n");
const sortItems = ({ visits: all }: VisitsOutput) => all.map(({ date, items }) => ({ date, items: [...items].sort() }));

/** The slow way: every set of days, the smallest first. */
function countLeast(windows: VisitsInput["windows"], days: readonly string[]): number {
  for (let size = 0; size <= windows.length; size++) {
    const choose = (from: number, left: number, chosen: string[]): boolean =>
      left === 0
        ? windows.every(({ earliest, latest }) => chosen.some((date) => earliest <= date && date <= latest))
        : days.slice(from).some((date, i) => choose(from + i + 1, left - 1, [...chosen, date]));
    if (choose(0, size, [])) return size;
  }
  throw new Error("countLeast: expected a visit for each to do");
}

describe("visits", () => {
  it.each(cases.map((line, i) => [i, line] as const))("answers worked example %i", (_, line) => {
    const { input, output } = JSON.parse(line) as { input: VisitsInput; output: VisitsOutput };
    expect(sortItems(visits(input))).toEqual(sortItems(output));
  });

  it("are as few as can be, each on the latest day its items allow, each item with the first that holds it", () => {
    for (let seed = 1; seed <= 200; seed++) {
      const random = createRandom(seed);
      const days = Array.from({ length: 12 }, (_, i) => addDays("2024-02-25", i));
      const windows = Array.from({ length: 1 + Math.floor(random() * 6) }, (_, i) => {
        const from = Math.floor(random() * 12);
        return { id: `w${i}`, earliest: days[from]!, latest: days[Math.min(11, from + Math.floor(random() * 5))]! };
      });
      const answer = visits({ windows }).visits;
      expect(answer.length, `seed ${seed}`).toBe(countLeast(windows, days));
      const dates = answer.map(({ date }) => date);
      expect(dates).toEqual([...dates].sort());
      for (const { date, items } of answer) {
        const mine = windows.filter(({ id }) => items.includes(id));
        expect(date).toBe(mine.map(({ latest }) => latest).sort()[0]);
      }
      for (const { id, earliest, latest } of windows) {
        const first = dates.find((date) => earliest <= date && date <= latest);
        expect(answer.filter(({ items }) => items.includes(id)).map(({ date }) => date)).toEqual([first]);
      }
    }
  });

  it("refuses a window that ends before it begins, a day that does not exist, and an id used twice", () => {
    const window = { id: "a", earliest: "2024-02-29", latest: "2024-03-01" };
    const refuses = (windows: unknown[]) => visitsInputSchema.safeParse({ windows }).error?.issues[0]?.path.join(".");
    expect(refuses([window])).toBeUndefined();
    expect(refuses([{ ...window, latest: "2024-02-28" }])).toBe("windows.0.latest");
    expect(refuses([{ ...window, earliest: "2023-02-29" }])).toBe("windows.0.earliest");
    expect(refuses([window, window])).toBe("windows.1.id");
  });
});
