import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { type GearInput, type GearOutput, gear, gearInputSchema } from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n")
  .map((line) => JSON.parse(line) as { input: GearInput; output: GearOutput });

describe("gear", () => {
  it.each(cases.map((each, i) => [i + 1, each] as const))("answers worked example %i", (_, { input, output }) => {
    expect(gear(gearInputSchema.parse(input))).toEqual(output);
  });

  const ask = (rule: object, aboard: object[] = [], trip: object = {}) =>
    gear(
      gearInputSchema.parse({
        rules: [{ id: "jackets", need: "count", ...rule }],
        trip: { adults: 2, children: 1, night: false, offshoreNm: 2, ...trip },
        boat: { loaM: 8, enclosedFuel: true, engine: true },
        aboard: aboard.map((each) => ({ rule: "jackets", qty: 1, ...each })),
        today: "2026-06-01",
      }),
    );

  it("asks for one for the boat whatever else the rule says, and by heads otherwise", () => {
    const needed = (rule: object) => ask(rule).items[0]!.needed;
    expect(needed({ need: "one", per: "person", qty: 5 })).toBe(1);
    expect(["person", "adult", "child", "boat"].map((per) => needed({ per, qty: 2 }))).toEqual([6, 4, 2, 2]);
    expect(needed({})).toBe(1);
  });

  it("counts what is good today still, and what is past its day as none", () => {
    expect(ask({}, [{ expires: "2026-06-01" }]).ready).toBe(true);
    expect(ask({}, [{ expires: "2026-05-31" }])).toMatchObject({ items: [{ expired: 1, missing: 1 }], ready: false });
  });

  it("applies from its least length on, below its most, and only beyond its distance", () => {
    const does = (when: object) => ask({ when }).items.length === 1;
    expect([
      does({ minLoaM: 8 }),
      does({ maxLoaM: 8 }),
      does({ offshoreNmOver: 2 }),
      does({ offshoreNmOver: 1.9 }),
    ]).toEqual([true, false, false, true]);
  });
});
