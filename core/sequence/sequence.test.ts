import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rigTemplates, sequences, topics } from "../../content/index.ts";
import type { EntryOf } from "../walk/index.ts";
import {
  type BuiltSequence,
  buildSequence,
  findNextStep,
  findRun,
  foldSteps,
  judgeWheels,
  nextRun,
  readShared,
  type StepRole,
  type StepWay,
  writeShared,
} from "./index.ts";

const idiom = { units: "us", spelling: "us" } as const;
const ways: StepWay[] = (["alone", "partner"] as const).flatMap((way) =>
  (["winch", "drive"] as const).map((method) => ({ way, method })),
);
const rigs = Object.values(rigTemplates);
const find = (id: string) => sequences.find((each) => each.id === id)!;
const partner: StepWay = { way: "partner", method: "winch" };
const stepsOf = (built: BuiltSequence | null) => built!.phases.flatMap(({ steps }) => steps);
const has = (id: string, rig: (typeof rigs)[number], way = partner) =>
  stepsOf(buildSequence(find("launch"), rig, way, idiom)).some((step) => step.id === id);
const run = "launch-2026-05-14";
const mark = (step: string, second: number, more: Partial<EntryOf<"step">> = {}): EntryOf<"step"> => ({
  id: `01J0000000000000000000${String(1000 + second)}`,
  delivery: "d-1",
  at: `2026-05-14T09:00:${String(second).padStart(2, "0")}.000Z`,
  by: "nessa",
  device: "tablet-1",
  kind: "step",
  sequence: "launch",
  run,
  step,
  role: "skipper",
  as: "done",
  ...more,
});

describe("sequences that ship", () => {
  it("are filled for every boat and every way of doing them, with nothing left in braces", () => {
    const known = new Set(topics.map(({ id }) => id));
    for (const sequence of sequences)
      for (const rig of rigs)
        for (const way of ways) {
          const built = buildSequence(sequence, rig, way, idiom)!;
          expect(built.phases.length).toBeGreaterThan(2);
          const words = stepsOf(built).flatMap(({ say, other, proof, caution }) => [say, other, proof, caution]);
          for (const said of words) expect(said ?? "").not.toMatch(/[{}]|where we will show you/);
          for (const { topic } of stepsOf(built)) if (topic !== null) expect(known.has(topic)).toBe(true);
          if (way.way === "alone")
            expect(stepsOf(built).every(({ by, other }) => by === "skipper" && other === null)).toBe(true);
        }
  });

  it("ask a boat for what it has: breakaway on brakes, the plug where there is one, nothing without a trailer", () => {
    const [braked, bare] = [true, false].map((isBraked) => {
      const rig = rigTemplates["wending-23"];
      return { ...rig, trailer: { ...rig.trailer!, brakes: isBraked ? ("surge" as const) : ("none" as const) } };
    });
    const hitch = (rig: (typeof rigs)[number]) =>
      stepsOf(buildSequence(find("hitch"), rig, partner, idiom)).map(({ id }) => id);
    expect(hitch(braked!)).toContain("breakaway");
    expect(hitch(bare!)).not.toContain("breakaway");
    expect(rigs.every((rig) => has("plug", rig) === rig.parts.some(({ kind }) => kind === "plug"))).toBe(true);
    expect(buildSequence(find("launch"), { ...braked!, trailer: null }, partner, idiom)).toBeNull();
    expect(buildSequence(find("put-away"), { ...braked!, trailer: null }, partner, idiom)).not.toBeNull();
  });

  it("never take the strap off before somebody looked for leaks; with two, the engine runs by then, alone it is started last", () => {
    for (const rig of rigs)
      for (const way of ways) {
        const ids = stepsOf(buildSequence(find("launch"), rig, way, idiom)).map(({ id }) => id);
        const off = ids.findIndex((id) => id.startsWith("strap-off"));
        for (const before of ["leak", "brake", "chock", ...(has("plug", rig) ? ["plug"] : [])]) {
          expect(ids).toContain(before);
          expect(ids.indexOf(before)).toBeLessThan(off);
        }
        const started = ids.findIndex((id) => id.startsWith("water"));
        if (way.way === "partner") expect(started).toBeLessThan(off);
        else expect(started).toBeGreaterThan(ids.indexOf("car-away-alone"));
      }
  });

  it("alone, bring the boat on by its winch, whatever was picked", () => {
    for (const rig of rigs) {
      const ids = stepsOf(buildSequence(find("load"), rig, { way: "alone", method: "drive" }, idiom)).map(
        ({ id }) => id,
      );
      expect(ids).toContain("crank");
      expect(ids).not.toContain("hold");
    }
  });

  it("move no car before strap and chain are on", () => {
    for (const rig of rigs)
      for (const way of ways) {
        const ids = stepsOf(buildSequence(find("load"), rig, way, idiom)).map(({ id }) => id);
        const out = ids.findIndex((id) => id.startsWith("pull"));
        const strap = ids.findIndex((id) => id.startsWith("hook"));
        expect(strap).toBeGreaterThan(0);
        expect(
          Math.max(
            strap,
            ids.indexOf("chain"),
            ids.findIndex((id) => id.startsWith("engine-")),
          ),
        ).toBeLessThan(out);
      }
  });
});

describe("foldSteps", () => {
  it("does not mind the order entries come in; the later mark counts, and other runs do not", () => {
    const entries = [
      mark("people", 1),
      mark("straps", 2, { role: "helper" }),
      mark("straps", 5, { as: "open" }),
      mark("line", 6, { as: "skipped" }),
      mark("load", 7, { run: `${run}-2` }),
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
        const { marks } = foldSteps(shuffled, run);
        expect([...marks].map(([id, { as }]) => [id, as]).sort()).toEqual([
          ["line", "skipped"],
          ["people", "done"],
        ]);
      }),
    );
  });

  it("believes another phone until somebody here says otherwise", () => {
    const heard = ["people", "straps"];
    expect(foldSteps([], run, heard).marks.get("straps")).toEqual({ as: "done", entry: null });
    expect(foldSteps([mark("straps", 5, { as: "open" })], run, heard).marks.has("straps")).toBe(false);
  });

  it("gives each their own next step, and says what the other has to do first", () => {
    const built = buildSequence(find("launch"), rigTemplates["wending-23"], partner, idiom)!;
    const state = foldSteps([], run);
    expect(findNextStep(built, state, "skipper")).toMatchObject({ step: { id: "people" }, waitsFor: [] });
    const helpers = findNextStep(built, state, "helper")!;
    expect(helpers.step.by).toBe("helper");
    // Getting ready, each goes at their own pace; at the water the helper waits for the car to stand.
    expect(helpers.waitsFor).toEqual([]);
    const ready = built.phases[0]!.steps.map(({ id }) => id);
    expect(findNextStep(built, foldSteps([], run, ready), "helper")).toMatchObject({
      step: { id: "unplug-at-water" },
      waitsFor: [{ id: "look" }, { id: "to-edge" }],
    });
    // Stepping through with whoever is not waiting reaches the end: nobody waits for each other for ever.
    let marked: string[] = [];
    for (;;) {
      const open = (["skipper", "helper"] as StepRole[])
        .map((role) => findNextStep(built, foldSteps([], run, marked), role))
        .find((next) => next !== null && next.waitsFor.length === 0);
      if (open == null) break;
      marked = [...marked, open.step.id];
    }
    expect(marked).toHaveLength(stepsOf(built).length);
  });

  it("numbers the times of a day, and lets one that is under way go on past midnight", () => {
    const laterMs = Date.parse("2026-05-14T20:00:00Z");
    expect(findRun([], "launch", "2026-05-14", laterMs)).toBe(run);
    expect(nextRun(run)).toBe(`${run}-2`);
    expect(nextRun(`${run}-2`)).toBe(`${run}-3`);
    const two = [mark("a", 1), mark("a", 2, { run: `${run}-2` })];
    expect(findRun(two, "launch", "2026-05-14", laterMs)).toBe(`${run}-2`);
    const soonMs = Date.parse("2026-05-14T09:20:00Z");
    expect(findRun([mark("a", 1)], "launch", "2026-05-15", soonMs)).toBe(run);
    expect(findRun([mark("a", 1)], "launch", "2026-05-15", laterMs)).toBe("launch-2026-05-15");
  });
});

describe("what one phone passes to another", () => {
  it("is read back as it was written, and nothing else is read", () => {
    const idArb = fc.stringMatching(/^[a-z][a-z0-9-]{0,30}$/);
    fc.assert(
      fc.property(idArb, fc.constantFrom(...ways), fc.array(idArb, { maxLength: 60 }), (name, way, done) => {
        const shared = { run: name, ...way, done };
        expect(readShared(`#${writeShared(shared)}`)).toEqual(shared);
      }),
    );
    fc.assert(fc.property(fc.string(), (text) => readShared(text) === null || text.includes("~")));
    for (const odd of [
      "",
      "#",
      "launch~alone~winch",
      "launch~both~winch~a",
      "launch~alone~winch~a..b",
      "<b>~alone~winch~a",
    ])
      expect(readShared(odd)).toBeNull();
  });

  it("fits into a code of a phone, whole", () => {
    for (const sequence of sequences) {
      const done = stepsOf(buildSequence(sequence, rigTemplates["haldern-25"], partner, idiom)).map(({ id }) => id);
      expect(writeShared({ run, ...partner, done }).length).toBeLessThan(700);
    }
  });
});

describe("judgeWheels", () => {
  const built = buildSequence(
    find("hitch"),
    { ...rigTemplates["wending-23"], trailer: { ...rigTemplates["wending-23"].trailer!, tyreKpa: 450 } },
    partner,
    idiom,
  );
  const readsOf = (id: string) => stepsOf(built).find((step) => step.id === id)!.reads;
  const judge = (step: string, values: readonly (number | undefined)[]) => {
    const reads = readsOf(step);
    const taken = new Map(reads.flatMap(({ id }, i) => (values[i] === undefined ? [] : [[id, { value: values[i] }]])));
    const judged = judgeWheels(reads, taken);
    return reads.map(({ id }) => judged.get(id)?.verdict);
  };

  it("reads hubs and warm tires of the wheels on the road, and the spare cold", () => {
    expect(readsOf("pressure").some(({ id }) => id.endsWith("spare"))).toBe(true);
    for (const step of ["hubs", "warm-tyres"]) expect(readsOf(step).some(({ id }) => id.endsWith("spare"))).toBe(false);
  });

  it("judges a hub by itself and side against side", () => {
    expect(judge("hubs", [40, 42]).slice(0, 2)).toEqual(["fits", "fits"]);
    expect(judge("hubs", [40, 54]).slice(0, 2)).toEqual(["fits", "tight"]);
    expect(judge("hubs", [40, 66]).slice(0, 2)).toEqual(["fits", "over"]);
    expect(judge("hubs", [61, 62]).slice(0, 2)).toEqual(["tight", "tight"]);
    expect(judge("hubs", [80])[0]).toBe("over");
    const [first] = readsOf("hubs");
    expect(judgeWheels(readsOf("hubs"), new Map([[first!.id, { feel: "hot" as const }]])).get(first!.id)?.verdict).toBe(
      "over",
    );
  });

  it("judges tires cold against the plate, warm against what they should have gained", () => {
    expect(judge("pressure", [450, 430, 300]).slice(0, 3)).toEqual(["fits", "fits", "over"]);
    expect(judge("warm-tyres", [500, 505]).slice(0, 2)).toEqual(["fits", "fits"]);
    expect(judge("warm-tyres", [440, 500])[0]).toBe("over");
    expect(judge("warm-tyres", [600])[0]).toBe("over");
    expect(judge("warm-tyres", [460, 530]).slice(0, 2)).toEqual(["tight", "tight"]);
  });
});
