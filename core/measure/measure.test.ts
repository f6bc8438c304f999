import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { findChargeShare, formatMeasure, judgeMeasure, listMeasures } from "./index.ts";

const rig = rigTemplates["wending-23"];
const measures = listMeasures(rig);
const find = (id: string) => measures.find((measure) => measure.id === id)!;

describe("listMeasures", () => {
  it("asks for every wheel and the spare, each bank, each fuel tank, each engine's oil and the bilge", () => {
    expect(measures.map(({ id }) => id)).toEqual([
      "tyre-port-1",
      "tyre-starboard-1",
      "tyre-port-2",
      "tyre-starboard-2",
      "tyre-spare",
      "battery-port",
      "battery-starboard",
      "battery-house",
      "fuel-fuel",
      "oil-port",
      "oil-starboard",
      "bilge",
    ]);
  });

  it("asks for no tyres of a boat without a trailer", () => {
    expect(listMeasures({ ...rig, trailer: null }).some(({ kind }) => kind === "tyre")).toBe(false);
  });
});

describe("judgeMeasure", () => {
  it.each([
    ["tyre-port-1", 450, "fits"],
    ["tyre-port-1", 430, "fits"],
    ["tyre-port-1", 410, "tight"],
    ["tyre-port-1", 300, "over"],
    ["tyre-port-1", 560, "over"],
    ["battery-port", 12.65, "fits"],
    ["battery-port", 12.3, "tight"],
    ["battery-port", 11.9, "over"],
    ["fuel-fuel", 100, "fits"],
    ["fuel-fuel", 75, "tight"],
    ["fuel-fuel", 20, "over"],
    ["oil-port", 0, "over"],
    ["oil-port", 1, "fits"],
    ["bilge", 3, "over"],
  ])("%s at %s: %s", (id, value, verdict) => {
    expect(judgeMeasure(find(id), { value }).verdict).toBe(verdict);
  });

  it("does not guess a pressure the rig does not know, nor trust a battery just off charge", () => {
    const bare = listMeasures({ ...rig, trailer: { ...rig.trailer!, tyreKpa: undefined } as never })[0]!;
    expect(judgeMeasure(bare, { value: 450 })).toMatchObject({
      verdict: "unknown",
      says: expect.stringContaining("plate"),
    });
    expect(judgeMeasure(find("battery-port"), { value: 13.4, isJustCharged: true }).verdict).toBe("unknown");
  });

  it("says readings with their unit", () => {
    expect(formatMeasure(find("battery-port"), { value: 12.6 })).toBe("12.60 V");
    expect(formatMeasure(find("tyre-spare"), { value: 450 })).toBe("450 kPa");
    expect(formatMeasure(find("oil-port"), { value: 1 })).toBe("in the band");
  });
});

describe("findChargeShare", () => {
  it("gives the figures of the table, and half way between them", () => {
    expect(findChargeShare(12.45, "flooded")).toBe(0.75);
    expect(findChargeShare(12.55, "flooded")).toBeCloseTo(0.875, 5);
    expect(findChargeShare(24.9, "flooded")).toBe(0.75);
  });

  it("never falls with rising volts and stays between 0 and 1", () => {
    const volts = fc.double({ min: 10, max: 14, noNaN: true });
    fc.assert(
      fc.property(volts, volts, fc.constantFrom("flooded", "agm", "lifepo4"), (a, b, chemistry) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)].map((v) => findChargeShare(v, chemistry as "agm"));
        expect(low).toBeGreaterThanOrEqual(0);
        expect(high).toBeLessThanOrEqual(1);
        // Within one count of cells in a row; 12.96 V and more are read as two.
        if (Math.max(a, b) < 12.9) expect(low!).toBeLessThanOrEqual(high! + 1e-9);
      }),
      { seed: 5, numRuns: 300 },
    );
  });
});
