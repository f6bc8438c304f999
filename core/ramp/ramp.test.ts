import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { type RampInput, type RampOutput, ramp, rampInputSchema } from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n")
  .map((line) => JSON.parse(line) as { input: RampInput; output: RampOutput });

describe("ramp", () => {
  it.each(cases.map((each, i) => [i + 1, each] as const))("answers worked example %i", (_, { input, output }) => {
    const answer = ramp(rampInputSchema.parse(input));
    for (const name of ["transomS", "rearWheelDepthM", "fenderUnderM"] as const)
      expect(answer[name]).toBeCloseTo(output[name], 9);
    expect([answer.verdict, answer.minGradePct]).toEqual([output.verdict, output.minGradePct]);
  });

  const { input } = cases[0]!;
  it("the gentlest grade is enough, and a tenth less is not", () => {
    const least = ramp(input).minGradePct!;
    expect(ramp({ ...input, gradePct: least }).verdict).toBe("ok");
    expect(ramp({ ...input, gradePct: least - 0.1 }).verdict).toBe("wheels-too-deep");
  });

  it("a steeper ramp needs less of it, and a ramp for which no grade will do says so", () => {
    const far = [5, 10, 15, 20].map((gradePct) => ramp({ ...input, gradePct }).transomS);
    expect(far).toEqual([...far].sort((a, b) => b - a));
    const deep = { ...input, boat: { sternDraftM: 30 }, vehicle: { hitchToRearAxleM: 0.5, wadeLimitM: 0 } };
    expect(ramp(deep).minGradePct).toBeNull();
  });
});
