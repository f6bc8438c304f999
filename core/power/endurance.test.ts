import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { type EnduranceOutput, endurance, enduranceInputSchema, toLiveInput } from "./index.ts";

const cases = readFileSync(new URL("./enduranceCases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n")
  .map((line) => JSON.parse(line) as { input: unknown; output: EnduranceOutput });

describe("endurance", () => {
  it.each(cases.map((each, i) => [i + 1, each] as const))("answers worked example %i", (_, { input, output }) => {
    const answer = endurance(enduranceInputSchema.parse(input));
    expect(answer.groups.map(({ batteries }) => batteries)).toEqual(output.groups.map(({ batteries }) => batteries));
    output.groups.forEach(({ drawA, hoursToFloor }, i) => {
      expect(answer.groups[i]!.drawA).toBeCloseTo(drawA, 9);
      if (hoursToFloor === null) expect(answer.groups[i]!.hoursToFloor).toBeNull();
      else expect(answer.groups[i]!.hoursToFloor).toBeCloseTo(hoursToFloor, 7);
    });
    expect(Object.keys(answer.hoursToFloor)).toEqual(Object.keys(output.hoursToFloor));
  });

  const battery = { id: "a", node: "a", capacityAh: 100, chemistry: "flooded" as const, chargeShare: 1 };
  const ask = (amps: number, more: object = {}) =>
    endurance({
      batteries: [{ ...battery, ...more }],
      switches: [],
      links: [],
      loads: [{ id: "lamp", node: "a", amps, on: true }],
    }).hoursToFloor.a!;

  it("is plain capacity up to the 20-hour draw, and less beyond it", () => {
    expect([ask(5), ask(1), ask(0)]).toEqual([10, 50, null]);
    expect(ask(50)).toBeCloseTo(20 * (100 / 1000) ** 1.25 * 0.5, 9);
    expect(ask(5, { chargeShare: 0.5 })).toBe(0);
    expect(ask(5, { chemistry: "lifepo4" })).toBeCloseTo(16, 9);
  });

  it("lasts longer with more charge, shorter with more draw", () => {
    for (let amps = 1; amps < 60; amps += 3) expect(ask(amps)).toBeGreaterThan(ask(amps + 3));
    expect(ask(10, { chargeShare: 0.9 })).toBeLessThan(ask(10));
  });

  it("of a boat's banks on Both go down together, on 1 the second stays", () => {
    const rig = rigTemplates["ferrin-20"];
    const selector = rig.powerSwitches[0]!;
    const at = (position: string) =>
      endurance(toLiveInput(rig, { [selector.id]: position }, {}, (id) => id === rig.loads[0]!.id));
    expect(at("Both").groups.length).toBeLessThan(at("1").groups.length);
  });
});
