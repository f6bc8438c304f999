import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { faultContent, rigTemplates } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import {
  applyLearned,
  buildFaultModel,
  type ClosedCall,
  describeCall,
  findTaught,
  learnPriors,
  resumeCall,
} from "./index.ts";

const shippedOf = (kind: string) => faultContent.kinds.find(({ id }) => id === kind)!.prior;
const repeat = (n: number, call: ClosedCall): ClosedCall[] => Array.from({ length: n }, () => call);
const lanyard: ClosedCall = { family: "centre-console", atStake: ["lanyard", "neutral"], cause: "lanyard" };
const neutral: ClosedCall = { ...lanyard, cause: "neutral" };

describe("what calls teach of what fails", () => {
  it("is a Beta update, what ships counting as twenty calls and the store's as ten for one family", () => {
    const calls = [...repeat(10, lanyard), ...repeat(20, { ...neutral, family: "pontoon" })];
    const learned = learnPriors(faultContent, calls);
    const ofStore = (20 * shippedOf("lanyard") + 10) / 50;
    const find = (family: string | null) => learned.find((each) => each.kind === "lanyard" && each.family === family)!;
    expect(find(null)).toMatchObject({ calls: 30, causes: 10 });
    expect(find(null).prior).toBeCloseTo(ofStore, 12);
    expect(find("centre-console").prior).toBeCloseTo((10 * ofStore + 10) / 20, 12);
    expect(find("pontoon").prior).toBeCloseTo((10 * ofStore) / 30, 12);
    expect(learned.some(({ kind }) => kind === "horn-stuck")).toBe(false);
  });

  it("counts no call whose cause was no candidate", () => {
    expect(learnPriors(faultContent, [{ ...lanyard, cause: "horn-stuck" }])).toEqual([]);
  });

  it("stays a likelihood whatever is rung about, and goes up with each cause and down with each other", () => {
    const kinds = faultContent.kinds.map(({ id }) => id);
    const call = fc
      .record({
        family: fc.constantFrom("pontoon" as const, "cuddy" as const),
        atStake: fc.subarray(kinds, { minLength: 1 }),
      })
      .chain((each) =>
        fc.record({
          family: fc.constant(each.family),
          atStake: fc.constant(each.atStake),
          cause: fc.constantFrom(...each.atStake),
        }),
      );
    fc.assert(
      fc.property(fc.array(call, { maxLength: 20 }), call, (calls, more) => {
        const before = learnPriors(faultContent, calls);
        const after = learnPriors(faultContent, [...calls, more]);
        for (const { prior, causes, calls: n } of after) {
          expect(prior > 0 && prior < 1).toBe(true);
          expect(causes).toBeLessThanOrEqual(n);
        }
        const priorOf = (learned: typeof before, kind: string) =>
          learned.find((each) => each.kind === kind && each.family === null)?.prior ?? shippedOf(kind);
        for (const kind of more.atStake) {
          const change = priorOf(after, kind) - priorOf(before, kind);
          if (kind === more.cause) expect(change).toBeGreaterThan(0);
          else expect(change).toBeLessThanOrEqual(0);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("takes the place of what ships: of the family first, then of the store", () => {
    const learned = learnPriors(faultContent, [...repeat(6, lanyard), ...repeat(6, { ...neutral, family: "pontoon" })]);
    const priorOn = (family: "centre-console" | "pontoon" | "cuddy") =>
      applyLearned(faultContent, learned, family).kinds.find(({ id }) => id === "lanyard")!.prior;
    expect(priorOn("centre-console")).toBeGreaterThan(priorOn("cuddy"));
    expect(priorOn("cuddy")).toBeGreaterThan(priorOn("pontoon"));
    expect(applyLearned(faultContent, [], "cuddy")).toBe(faultContent);
  });
});

describe("a call", () => {
  const model = buildFaultModel(rigTemplates["wending-23"], faultContent, regions.us);
  const findings = {
    functions: { "well-holds": false, "horn-sounds": true },
    components: { spigot: true, "stand-pipe": false },
  };

  it("is kept with what fails, what could have been it, and what was", () => {
    const call = describeCall(model, findings, { minutes: 0.2, goesOn: null });
    expect(call).toMatchObject({ fails: "Live well holds its water", minutes: 1, cause: { kind: "stand-pipe" } });
    expect(call.atStake).toContain("spigot");
    expect(call.atStake).not.toContain("horn-stuck");
    expect(
      describeCall(model, { functions: { "well-holds": false }, components: {} }, { minutes: 3, goesOn: "x" }).cause,
    ).toBeNull();
  });

  it("is gone on with, as far as the boat still has what it spoke of", () => {
    const call = describeCall(model, findings, { minutes: 2, goesOn: null });
    expect(resumeCall(model, call)).toEqual(findings);
    expect(resumeCall(model, { ...call, functions: { ...call.functions, "sails-set": false } })).toEqual(findings);
  });

  it("counts for the first topic that teaches its cause on this boat", () => {
    expect(findTaught(faultContent, "raw-valve", new Set(["seacocks"]))).toBe("seacocks");
    expect(findTaught(faultContent, "raw-valve", new Set(["seacocks", "cooling-valve"]))).toBe("cooling-valve");
    expect(findTaught(faultContent, "raw-valve", new Set(["horn"]))).toBeNull();
  });
});
