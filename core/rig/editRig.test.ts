import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { isWithinHull } from "../drawing/index.ts";
import { live, toLiveInput } from "../power/index.ts";
import { sayAmount } from "../units/index.ts";
import {
  addItem,
  changeItem,
  compareRigs,
  createItemId,
  createMoveMap,
  createPart,
  createRig,
  families,
  moveItem,
  powerSchemes,
  readHullNumber,
  readPower,
  removeItem,
  resizeRig,
  rigSchema,
  serialOf,
  setPower,
} from "./index.ts";

const rig = rigTemplates["wending-23"];

describe("editing a rig", () => {
  it("names new things for their kind and tells them at the nearest place", () => {
    const part = createPart(rig, "battery", { xM: 0.5, yM: 0 });
    expect(part).toMatchObject({ kind: "battery", label: "Battery 4" });
    expect(rig.stations.find(({ id }) => id === part.station)!.level).toBe("aboard");
    expect(createItemId(rig, "parts", "Sink & tap!")).toBe("sink-tap");
    expect(createItemId(addItem(rig, "parts", { ...part, id: "sink" }), "parts", "Sink")).toBe("sink-2");
  });

  it("takes with a thing what cannot be without it", () => {
    const { part } = rig.batteries[0]!;
    const next = removeItem(rig, "parts", part);
    expect(next.batteries).toHaveLength(rig.batteries.length - 1);
    expect(next.loads.filter(({ from }) => from === rig.batteries[0]!.id)).toEqual([]);
    const unfed = removeItem(rig, "loads", "horn");
    expect(unfed.breakers.flatMap(({ feeds }) => feeds)).not.toContain("horn");
    expect(unfed.panel.flatMap(({ positions }) => positions.flatMap(({ powers }) => powers))).not.toContain("horn");
    expect(removeItem(rig, "stations", "helm")).toBe(rig);
  });

  it("keeps physical order when a switch is moved, and never loses one", () => {
    const ids = rig.panel.map(({ id }) => id);
    const moved = moveItem(rig, "panel", ids[0]!, 3).panel.map(({ id }) => id);
    expect(moved).toEqual([ids[1], ids[2], ids[3], ids[0], ...ids.slice(4)]);
    expect(moveItem(rig, "panel", ids[0]!, 99).panel.at(-1)!.id).toBe(ids[0]);
  });
});

describe("createRig", () => {
  it.each(families)("has a new %s stand where its places are, at any size", (family) => {
    for (const [loaM, beamM] of [
      [4.2, 1.7],
      [6.4, 2.4],
      [9.5, 3],
    ] as const) {
      const fresh = createRig({ family, maker: "M", model: "N", modelYear: 2026, loaM, beamM, hasTrailer: true });
      for (const { id, at, level } of fresh.stations)
        expect(isWithinHull(fresh, at), `${loaM} ${id}`).toBe(level === "aboard");
      expect(isWithinHull(fresh, fresh.boarding)).toBe(true);
      for (const row of createMoveMap(fresh).moveMin) for (const minutes of row) expect(minutes).toBeLessThan(7);
    }
  });
});

describe("setPower", () => {
  const blank = createRig({
    family: "cuddy",
    maker: "M",
    model: "N",
    modelYear: 2026,
    loaM: 7,
    beamM: 2.5,
    hasTrailer: false,
  });

  it.each(powerSchemes.flatMap((from) => powerSchemes.map((to) => [from, to] as const)))(
    "goes from %s to %s, and what is on then has power",
    (from, to) => {
      const choice = { bowMotorBatteries: 2, join: "combiner", hasShoreCharger: true } as const;
      const first = setPower(blank, { ...readPower(blank), scheme: from });
      const next = setPower(first, { ...choice, scheme: to });
      expect(rigSchema.safeParse(next).error).toBeUndefined();
      expect(readPower(next)).toEqual({ ...choice, scheme: to });
      const withLoad = addItem(
        addItem(next, "loads", { id: "lamp", label: "Lamp", amps: 1, always: false }),
        "breakers",
        { id: "b", label: "Lamp", part: next.parts[0]!.id, ratingA: 5, resets: "flip", feeds: ["lamp"] },
      );
      const on = Object.fromEntries(withLoad.powerSwitches.map(({ id, positions }) => [id, positions.at(-1)!.label]));
      expect(live(toLiveInput(withLoad, on)).live).toEqual(["lamp"]);
      expect(live(toLiveInput(withLoad, {})).dead).toEqual(["lamp"]);
    },
  );

  it("keeps batteries that are there, and drops wiring that belonged to the scheme before", () => {
    const next = setPower({ ...rig, wiring: [] }, { ...readPower(rig), scheme: "engine-house-parallel" });
    expect(next.batteries.map(({ id }) => id)).toEqual(rig.batteries.slice(0, 2).map(({ id }) => id));
    expect(next.wiring).toBeUndefined();
    const same = setPower(rig, readPower(rig));
    expect(same.powerSwitches).toEqual(rig.powerSwitches);
    expect(same.parts).toEqual(rig.parts);
  });
});

describe("compareRigs", () => {
  it("names things by their names, never by their ids", () => {
    const template = rigTemplates["wending-23"];
    const part = template.parts.find(({ station }) => station !== "helm")!;
    const moved = changeItem(template, "parts", part.id, {
      station: template.stations.find(({ kind }) => kind === "helm")!.id,
    });
    const { facts } = compareRigs(template, moved, "metric")[0]!;
    const labelOf = (id: string) => template.stations.find((station) => station.id === id)!.label;
    expect(facts).toContainEqual({ fact: "station", from: labelOf(part.station), to: labelOf("helm") });
  });

  it("finds nothing between a template and its copy", () => {
    for (const template of Object.values(rigTemplates))
      expect(compareRigs(template, structuredClone(template), "us")).toEqual([]);
  });

  it("says of a used boat that it is one, and what others changed", () => {
    const [found] = compareRigs(rig, { ...rig, used: { changes: ["Second battery"] } }, "us");
    expect(found).toMatchObject({ section: "boat", facts: [{ fact: "used", from: "no", to: "yes; Second battery" }] });
  });

  it("says what was added, taken away and changed, by name", () => {
    const added = addItem(rig, "parts", { ...createPart(rig, "wiper", { xM: 3, yM: 0 }) });
    const changed = changeItem(added, "engines", rig.engines[0]!.id, { powerKw: 184 });
    const { trailer: _, ...rest } = changed;
    const found = compareRigs(rig, removeItem({ ...rest, trailer: null }, "gear", rig.gear[0]!.id), "metric");
    expect(found).toEqual([
      { section: "places", what: "added", name: "Wiper", facts: [] },
      {
        section: "engines",
        what: "changed",
        name: rig.engines[0]!.label,
        facts: [{ fact: "powerKw", from: sayAmount(rig.engines[0]!.powerKw!, "power", "metric"), to: "184 kW" }],
      },
      { section: "trailer", what: "gone", name: "Trailer", facts: [] },
      { section: "gear", what: "gone", name: rig.gear[0]!.label, facts: [] },
    ]);
  });

  it("says where a thing was moved to", () => {
    const moved = changeItem(rig, "parts", rig.parts[0]!.id, { at: { xM: 2, yM: -0.5 } });
    expect(compareRigs(rig, moved, "metric")[0]!.facts[0]).toMatchObject({
      fact: "at",
      to: "2.00 m forward, 0.50 m to port",
    });
  });
});

describe("a boat of another length than its template", () => {
  it("has in its options what differs, not what moved along with the hull, in the store's units", () => {
    // As it is typed: each length on the way moves everything.
    const longer = [rig.loaM * 0.5, rig.loaM * 1.03, rig.loaM + 0.5].reduce(
      (now, loaM) => resizeRig(now, loaM, now.beamM + 0.03),
      rig,
    );
    const found = compareRigs(rig, longer, "us");
    expect(found.map(({ name }) => name)).toEqual(["The boat"]);
    expect(found[0]!.facts.map(({ fact }) => fact)).toEqual(["loaM", "beamM"]);
    expect(found[0]!.facts[0]!.from).toMatch(/^\d+ ft/);
    const part = longer.parts[0]!;
    const moved = changeItem(longer, "parts", part.id, { at: { ...part.at, yM: part.at.yM + 0.3 } });
    expect(compareRigs(rig, moved, "us").map(({ name }) => name)).toEqual(["The boat", part.label]);
  });
});

describe("readHullNumber", () => {
  it.each([
    ["SLW23118K526", "23118"],
    ["fi-SLW 23118 K526", "23118"],
    ["NOSUCHFORM", "HFORM"],
    ["", ""],
  ])("calls %s by its serial, %s", (text, serial) => expect(serialOf(text)).toBe(serial));

  it.each([
    [
      "SLW23118K526",
      { form: "us-12", maker: "SLW", serial: "23118", built: { year: 2025, month: 11 }, modelYear: 2026 },
    ],
    ["slw 23118 k526", { number: "SLW23118K526", form: "us-12" }],
    ["XR-SLW23118A626", { form: "iso-14", country: "XR", built: { year: 2026, month: 1 }, modelYear: 2026 }],
    ["SLW23118A700", { modelYear: 2000, built: null }],
    ["SLW23118L999", { modelYear: 1999, built: { year: 1999, month: 12 } }],
  ])("reads %s", (text, said) => expect(readHullNumber(text, 2026)).toMatchObject(said));

  it.each([
    ["", "no hull number yet"],
    ["SLW23118K5", "10 characters"],
    ["SLW23118Z526", "stands for no month"],
    ["SLW2311OK526", "never has I, O or Q"],
    ["SLW23118K126", "does not go with model year 2026"],
    ["123456789012", "does not read as"],
    ["SLW_3118K526", "letters and digits only"],
    ["1RSLW23118A626", "name the country"],
  ])("doubts %s", (text, doubt) => {
    expect(readHullNumber(text, 2026).doubts.join("; ")).toContain(doubt);
  });

  it("has no doubts about those of the store's own boats", () => {
    for (const number of ["SLW23118K526", "SLW23118A626"]) expect(readHullNumber(number, 2026).doubts).toEqual([]);
  });
});
