import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { type TowInput, type TowOutput, tow, towInputSchema } from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n")
  .map((line) => JSON.parse(line) as { input: TowInput; output: TowOutput });

describe("tow", () => {
  it.each(cases.map((each, i) => [i + 1, each] as const))("answers worked example %i", (_, { input, output }) => {
    const answer = tow(towInputSchema.parse(input));
    expect(answer.checks.map(({ id, verdict }) => [id, verdict])).toEqual(
      output.checks.map(({ id, verdict }) => [id, verdict]),
    );
    output.checks.forEach(({ actual, limit, ratio }, i) => {
      expect(answer.checks[i]!.actual).toBeCloseTo(actual, 6);
      expect(answer.checks[i]!.limit).toBeCloseTo(limit, 6);
      expect(answer.checks[i]!.ratio).toBeCloseTo(ratio, 9);
    });
    for (const name of ["towedKg", "axlesKg", "combinedKg", "tongueShare"] as const)
      expect(answer[name]).toBeCloseTo(output[name], 9);
    expect(answer.verdict).toBe(output.verdict);
    if (output.shedKg === null) expect(answer.shedKg).toBeNull();
    else expect(answer.shedKg).toBeCloseTo(output.shedKg, 6);
  });

  const { input } = cases[0]!;
  const without = (kg: number): TowInput => {
    // Out of the gear first, then the ballast, then the water.
    const { boat } = input;
    const gear = Math.min(boat.gearKg, kg);
    const ballast = Math.min(boat.ballastL, kg - gear);
    return {
      ...input,
      boat: {
        ...boat,
        gearKg: boat.gearKg - gear,
        ballastL: boat.ballastL - ballast,
        waterL: boat.waterL - (kg - gear - ballast),
      },
    };
  };

  it("what it says to take out puts every limit right, and a kilo less does not", () => {
    const kg = tow(input).shedKg!;
    const isOver = (after: TowInput) => tow(after).checks.some(({ limit, ratio }) => limit > 0 && ratio > 1 + 1e-12);
    expect(isOver(input)).toBe(true);
    expect(isOver(without(kg))).toBe(false);
    expect(isOver(without(kg - 1))).toBe(true);
  });

  it("says so where nothing taken out is enough, and where a vehicle may tow nothing without brakes", () => {
    expect(tow({ ...input, trailer: { ...input.trailer, grossLimitKg: 500 } }).shedKg).toBeNull();
    expect(tow({ ...input, tongueKg: 500 }).shedKg).toBeNull();
    const unbraked = { ...input, trailer: { ...input.trailer, brakes: "none" as const } };
    const answer = tow({ ...unbraked, vehicle: { ...input.vehicle, brakelessLimitKg: 0 } });
    const check = answer.checks.find(({ id }) => id === "vehicle-tow")!;
    expect([check.verdict, Number.isFinite(check.ratio)]).toEqual(["over", true]);
  });
});
