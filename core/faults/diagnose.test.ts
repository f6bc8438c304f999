import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type DiagnoseInput, type DiagnoseOutput, diagnose, diagnoseInputSchema } from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n")
  .map((line) => JSON.parse(line) as { input: unknown; output: DiagnoseOutput & { error?: { code: string } } });

describe("diagnose", () => {
  it.each(cases.map((each, i) => [i + 1, each] as const))("answers worked example %i", (_, { input, output }) => {
    const answer = diagnose(diagnoseInputSchema.parse(input));
    if (!answer.ok) return expect({ error: { code: answer.error.code } }).toMatchObject(output);
    expect(answer.value.candidates.map(({ faults }) => faults)).toEqual(output.candidates.map(({ faults }) => faults));
    expect(answer.value.checks.map(({ component }) => component)).toEqual(output.checks.map((each) => each.component));
    output.candidates.forEach(({ share }, i) => {
      expect(answer.value.candidates[i]!.share).toBeCloseTo(share, 9);
    });
    output.checks.forEach(({ share }, i) => {
      expect(answer.value.checks[i]!.share).toBeCloseTo(share, 9);
    });
  });

  const ids = (n: number, letter: string) => Array.from({ length: n }, (_, i) => `${letter}${i}`);
  const questions = fc
    .record({
      priors: fc.array(fc.double({ min: 0.01, max: 0.9, noNaN: true }), { minLength: 1, maxLength: 7 }),
      needs: fc.array(fc.uniqueArray(fc.nat(6), { maxLength: 5 }), { minLength: 1, maxLength: 6 }),
      observed: fc.array(fc.tuple(fc.nat(5), fc.boolean()), { maxLength: 7 }),
      maxFaults: fc.integer({ min: 1, max: 4 }),
    })
    .map(({ priors, needs, observed, maxFaults }): DiagnoseInput => {
      const names = ids(priors.length, "c");
      return {
        components: priors.map((prior, i) => ({ id: names[i]!, prior, minutesToCheck: 1 + i })),
        functions: needs.map((need, i) => ({
          id: `f${i}`,
          needs: [...new Set(need.map((part) => names[part % names.length]!))],
        })),
        observed: observed.map(([f, works]) => ({ function: `f${f % needs.length}`, works })),
        maxFaults,
      };
    });

  /** Every set of parts, the slow way. */
  function listAll({ components, functions, observed, maxFaults = 2 }: DiagnoseInput): string[][] {
    const needs = new Map(functions.map((each) => [each.id, each.needs]));
    const explains = (faults: readonly string[]) =>
      observed.every((each) => each.works === needs.get(each.function)!.every((part) => !faults.includes(part)));
    const all = Array.from({ length: 2 ** components.length }, (_, mask) =>
      components.filter((__, i) => (mask >> i) & 1).map(({ id }) => id),
    ).filter((set) => set.length <= maxFaults && explains(set));
    return all.filter(
      (set) => !all.some((other) => other.length < set.length && other.every((id) => set.includes(id))),
    );
  }

  it("finds what trying every set finds, and shares add up to one", () => {
    fc.assert(
      fc.property(questions, (input) => {
        const slow = listAll(input);
        const answer = diagnose(input);
        if (!answer.ok) {
          expect(slow).toEqual([]);
          return;
        }
        const sort = (sets: readonly (readonly string[])[]) => sets.map((set) => set.join()).sort();
        expect(sort(answer.value.candidates.map(({ faults }) => faults))).toEqual(sort(slow));
        expect(answer.value.candidates.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
        for (const { component, share } of answer.value.checks) {
          const holding = answer.value.candidates.filter(({ faults }) => faults.includes(component));
          expect(share).toBeCloseTo(
            holding.reduce((sum, each) => sum + each.share, 0),
            9,
          );
        }
      }),
      { numRuns: 400 },
    );
  });

  const two: DiagnoseInput = {
    components: [
      { id: "fuse", prior: 0.1, minutesToCheck: 1 },
      { id: "lamp", prior: 0.2, minutesToCheck: 5 },
    ],
    functions: [
      { id: "light", needs: ["fuse", "lamp"] },
      { id: "horn", needs: ["fuse"] },
    ],
    observed: [],
  };
  it("says which observations cannot both be true", () => {
    const observed = [
      { function: "horn", works: true },
      { function: "horn", works: false },
    ];
    const answer = diagnose({ ...two, observed });
    expect(answer).toMatchObject({ ok: false, error: { code: "no-explanation", conflicting: ["horn"] } });
  });

  it("needs no fault where nothing fails, and says so where as many as are allowed do not explain it", () => {
    expect(diagnose(two)).toEqual({ ok: true, value: { candidates: [{ faults: [], share: 1 }], checks: [] } });
    const apart: DiagnoseInput = {
      components: two.components,
      functions: [
        { id: "a", needs: ["fuse"] },
        { id: "b", needs: ["lamp"] },
      ],
      observed: [
        { function: "a", works: false },
        { function: "b", works: false },
      ],
      maxFaults: 1,
    };
    expect(diagnose(apart)).toMatchObject({ ok: false, error: { code: "no-explanation", conflicting: [] } });
  });

  it("refuses what names parts and functions that are not there", () => {
    const bad = diagnoseInputSchema.safeParse({
      components: [{ id: "a", prior: 1, minutesToCheck: 0 }],
      functions: [{ id: "f", needs: ["b"] }],
      observed: [{ function: "g", works: true }],
    });
    expect(bad.error!.issues.map(({ path }) => path.join("."))).toEqual([
      "components.0.prior",
      "components.0.minutesToCheck",
      "functions.0.needs.0",
      "observed.0.function",
    ]);
  });
});
