import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import {
  addItem,
  completeWorks,
  createPart,
  createRig,
  drawBy,
  feedBy,
  findWorks,
  guardBy,
  listMissingWorks,
  listUsual,
  type Part,
  type Rig,
  removeItem,
  rigSchema,
  switchBy,
} from "./index.ts";

const sedge = rigTemplates["sedge-18"];
const well = sedge.parts.find(({ kind }) => kind === "livewell")!;
const second: Part = { ...createPart(sedge, "livewell", { xM: 4, yM: 0 }), label: "Bow well" };
const withTwo: Rig = addItem(sedge, "parts", second);
const says = (rig: Rig, part: Part) => {
  const { loads, switches, breakers, valves } = findWorks(rig, part);
  return [loads, switches, breakers, valves].map((each) => each.map(({ label }) => label));
};

describe("what a thing works by", () => {
  it("is found on every template for each thing that a pump works", () => {
    const bare = Object.entries(rigTemplates).flatMap(([name, rig]) =>
      rig.parts
        .filter(({ kind }) => kind === "livewell" || kind === "ballast")
        .filter((part) =>
          says(rig, part)
            .slice(0, 3)
            .some((each) => each.length === 0),
        )
        .map(({ label }) => `${name}: ${label}`),
    );
    expect(bare).toEqual([]);
  });

  it("of one live well is what serves wells, and the valve that is written to serve it", () => {
    const [loads, switches, breakers, valves] = says(sedge, well);
    expect(loads!.length).toBeGreaterThan(0);
    expect([switches, breakers, valves].map((each) => each!.length)).toEqual([1, 1, 1]);
  });

  it("wants a switch on the panel only for what is switched there: a stereo has its own button", () => {
    const bare = createRig({ ...sedge, family: "runabout", hasTrailer: false });
    const withOne = (kind: Part["kind"]) => {
      const part = createPart(bare, kind, { xM: 2, yM: 0 });
      const rig = completeWorks(addItem(bare, "parts", part), part);
      return [says(rig, part).map((each) => each.length), listMissingWorks(rig, part)];
    };
    expect(withOne("stereo")).toEqual([[1, 0, 1, 0], []]);
    expect(withOne("horn")).toEqual([[1, 1, 1, 0], []]);
    expect(withOne("livewell")).toEqual([[1, 1, 1, 0], []]);
  });

  it("of two wells is each its own, once that is said", () => {
    expect(says(withTwo, second)).toEqual(says(withTwo, well));
    const apart = feedBy(withTwo, second, { label: "Bow well pump" });
    expect(says(apart, second)[0]).toEqual(["Bow well pump"]);
    expect(says(apart, well)[0]).toEqual(says(sedge, well)[0]);
    // And back to the one pump that both had.
    const [pump] = findWorks(sedge, well).loads;
    const shared = feedBy(apart, second, pump!.id);
    expect(says(shared, second)[0]).toEqual([pump!.label]);
    expect(rigSchema.safeParse(shared).success).toBe(true);
  });

  it("is made in one step as far as it is missing, and keeps the sheet whole", () => {
    const made = completeWorks(feedBy(withTwo, second, { label: "Bow well pump" }), second);
    expect(says(made, second)).toEqual([["Bow well pump"], ["Bow well"], ["Bow well"], says(sedge, well)[3]]);
    expect(rigSchema.safeParse(made).success).toBe(true);
    expect(completeWorks(made, second)).toEqual(made);
  });

  it("puts a panel and breakers on the plan where there are none yet, to be looked at", () => {
    const bare = createRig({ ...sedge, hasTrailer: false });
    const rig = addItem(bare, "parts", createPart(bare, "horn", { xM: 2, yM: 0 }));
    const made = completeWorks(rig, rig.parts[0]!);
    expect(listUsual(made).map(({ kind }) => kind)).toEqual(["panel", "breakers"]);
    expect(says(made, made.parts[0]!).slice(0, 3)).toEqual([["Horn"], ["Horn"], ["Horn"]]);
    expect(rigSchema.safeParse(made).success).toBe(true);
  });

  it("moves to another switch, breaker and valve, and leaves none behind", () => {
    const made = completeWorks(feedBy(withTwo, second, { label: "Bow well pump" }), second);
    const ids = findWorks(made, second).loads.map(({ id }) => id);
    const moved = guardBy(switchBy(made, ids, made.panel[0]!.id), ids, made.breakers[0]!.id);
    expect(says(moved, second).slice(1, 3)).toEqual([[made.panel[0]!.label], [made.breakers[0]!.label]]);
    const valve = moved.throughHulls[0]!;
    expect(says(drawBy(moved, second, valve.id), second)[3]).toEqual([valve.label]);
    expect(drawBy(drawBy(moved, second, valve.id), second, null)).toEqual(moved);
  });

  it("forgets a thing that is taken off the plan", () => {
    const apart = drawBy(feedBy(withTwo, second, { label: "Bow well pump" }), second, sedge.throughHulls[0]!.id);
    const gone = removeItem(apart, "parts", second.id);
    expect(rigSchema.safeParse(gone).success).toBe(true);
    expect(JSON.stringify(gone)).not.toContain(`"${second.id}"`);
  });
});
