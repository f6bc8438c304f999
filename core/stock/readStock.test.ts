import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { isWithinHull } from "../drawing/index.ts";
import { families, resizeRig, rigSchema } from "../rig/index.ts";
import { createStockRig, guessMapping, readLength, readStock, type StockAids, writeSampleStock } from "./index.ts";

const templates = Object.entries(rigTemplates).map(([id, { model, family, loaM, beamM }]) => ({
  id,
  model,
  family,
  loaM,
  beamM,
}));
const headings = ["Hull ID number", "Boat name", "Builder", "Model", "Model year", "Type", "LOA", "Beam"];
const aids: StockAids = {
  mapping: guessMapping(headings),
  unit: "m",
  templates,
  known: new Set(["SLW23118K526"]),
  thisYear: 2026,
  starts: {},
  startOfRest: null,
};
const good = ["SLW20301B626", "Ferrin demo", "Sallow Works", "Ferrin 20", "2026", "bowrider", "6.2", "2,5"];
const read = (...rows: string[][]) => readStock(rows, aids);
const changed = (at: number, value: string) => good.map((cell, i) => (i === at ? value : cell));

describe("guessMapping", () => {
  it("knows the usual headings, each column once", () => {
    expect(aids.mapping).toEqual({
      ...{ hull: 0, name: 1, maker: 2, model: 3, modelYear: 4, family: 5, length: 6, beam: 7 },
      ...{ stock: null, color: null },
    });
    expect(guessMapping(["Stock #", "Serial number", "Hull colour"])).toMatchObject({ stock: 0, hull: 1, color: 2 });
    expect(guessMapping(["Year", "HIN", "Make", "Width"])).toMatchObject({
      hull: 1,
      modelYear: 0,
      maker: 2,
      beam: 3,
      name: null,
      model: null,
    });
    expect(guessMapping(["a", "b"])).toMatchObject({ hull: null, length: null });
  });
});

describe("readStock", () => {
  it("reads a good row", () => {
    expect(read(good)).toEqual([
      {
        line: 2,
        state: "new",
        hull: "SLW20301B626",
        problems: [],
        doubts: [],
        kind: "ferrin 20",
        nearest: [],
        boat: {
          hull: "SLW20301B626",
          stock: "",
          color: "",
          name: "Ferrin demo",
          start: { template: "ferrin-20" },
          maker: "Sallow Works",
          model: "Ferrin 20",
          modelYear: 2026,
          loaM: 6.2,
          beamM: 2.5,
        },
      },
    ]);
  });

  it.each([
    [0, "", "hull", "no hull number"],
    [0, "SLW2030", "hull", "It has 7 characters"],
    [6, "twenty", "length", "is no length"],
    [6, "640", "length", "another unit"],
    [4, "26", "modelYear", "no model year"],
    [1, "<b>x</b>", "name", "markup"],
    [1, "x".repeat(61), "name", "longer than 60"],
  ])("says what is wrong in column %i (%s)", (at, value, field, text) => {
    const [row] = read(changed(at, value));
    expect(row).toMatchObject({ state: "wrong", boat: null, problems: [{ field }] });
    expect(row!.problems[0]!.text).toContain(text);
  });

  it("reads stock number and color where the list has them", () => {
    const rows = [[...good, "A-117", "white, navy"]];
    const mapping = { ...aids.mapping, stock: 8, color: 9 };
    expect(readStock(rows, { ...aids, mapping })[0]!.boat).toMatchObject({ stock: "A-117", color: "white, navy" });
    const [row] = readStock([[...good, "A".repeat(31), ""]], { ...aids, mapping });
    expect(row!.problems).toEqual([{ field: "stock", text: "It is longer than 30 characters" }]);
  });

  it("falls back from an unknown model to its kind of boat, and says when there is neither", () => {
    expect(read(changed(3, "Zephyr 9"))[0]!.boat).toMatchObject({
      start: { template: "ferrin-20" },
      model: "Zephyr 9",
    });
    const strange = [changed(3, "Zephyr 9").map((cell, i) => (i === 5 ? "dirigible" : cell))];
    const [row] = readStock(strange, aids);
    expect(row).toMatchObject({ state: "choose", kind: "zephyr 9", boat: null, problems: [] });
    // The nearest in length first.
    expect(row!.nearest[0]).toBe("ferrin-20");
    const starts = { "zephyr 9": { family: "cuddy" } } as const;
    expect(readStock(strange, { ...aids, starts })[0]).toMatchObject({
      state: "new",
      boat: { start: starts["zephyr 9"] },
    });
    const startOfRest = { template: "pipit-15" };
    expect(readStock(strange, { ...aids, startOfRest })[0]!.boat!.start).toEqual(startOfRest);
    // What was chosen for all changes nothing of a boat that a template fits.
    expect(readStock([good], { ...aids, startOfRest })[0]!.boat!.start).toEqual({ template: "ferrin-20" });
  });

  it.each([
    ["Center console", "centre-console"],
    ["Centre Console", "centre-console"],
    ["CC", "centre-console"],
    ["Bow Rider", "bowrider"],
    ["Tritoon", "pontoon"],
    ["Wakeboard boat", "tow-sport"],
    ["Walkaround", "cuddy"],
    ["Pont", "pontoon"],
  ])("takes %s for a kind of boat, in either spelling", (words, family) => {
    const rows = [changed(3, "Zephyr 9").map((cell, i) => (i === 5 ? words : cell))];
    expect(readStock(rows, { ...aids, templates: [] })[0]!.boat!.start).toEqual({ family });
  });

  it("takes a doubtful hull number, and says why it doubts", () => {
    const [row] = read(changed(0, "SLW20301Z926"));
    expect(row!.state).toBe("new");
    expect(row!.doubts.join()).toContain("no month");
    expect(read(changed(4, "2025"))[0]!.doubts).toEqual(["The hull number says model year 2026, the list 2025"]);
  });

  it("knows what is in the store and what came before in the list, however it is written", () => {
    const rows = read(changed(0, "slw-23118-K526"), good, changed(0, "slw 20301 b626"));
    expect(rows.map(({ state }) => state)).toEqual(["known", "new", "wrong"]);
    expect(rows[2]!.problems).toEqual([{ field: "hull", text: "The same hull number stands on line 3" }]);
  });
});

describe("the sample list", () => {
  it.each(["m", "ft", "in"] as const)("is read without a fault in %s, every column known", (unit) => {
    const [headings, ...rows] = writeSampleStock(templates, unit, 2026);
    const mapping = guessMapping(headings!);
    expect(Object.values(mapping)).not.toContain(null);
    const boats = readStock(rows, { ...aids, mapping, unit });
    expect(boats.map(({ state, problems, doubts }) => [state, problems, doubts])).toEqual(
      rows.map(() => ["new", [], []]),
    );
    expect(boats[0]!.boat!.loaM).toBeCloseTo(templates[0]!.loaM, 1);
  });
});

describe("readLength", () => {
  it.each([
    ["6.4", "m", 6.4],
    ["6,4", "m", 6.4],
    ["21", "ft", 6.4008],
    ["21' 6\"", "m", 6.5532],
    ["21 ft 6 in", "m", 6.5532],
    ["640 cm", "ft", 6.4],
    ["250", "in", 6.35],
    ["long", "m", null],
    ["-3", "m", null],
  ] as const)("reads %s in %s as %s m", (text, unit, metres) => {
    const value = readLength(text, unit);
    if (metres === null) expect(value).toBeNull();
    else expect(value).toBeCloseTo(metres, 6);
  });
});

describe("createStockRig", () => {
  it.each(Object.entries(rigTemplates))("stretches %s to another size with everything still aboard", (_, template) => {
    const inside = template.parts.filter(({ at }) => isWithinHull(template, at)).map(({ id }) => id);
    for (const share of [0.8, 1.25]) {
      const boat = {
        stock: "",
        color: "",
        hull: "X",
        name: "X",
        start: { template: "x" },
        maker: null,
        model: "Long one",
        modelYear: null,
        loaM: Math.round(template.loaM * share * 100) / 100,
        beamM: Math.round(template.beamM * share * 100) / 100,
      };
      const rig = createStockRig(boat, template, 2026);
      expect(rigSchema.safeParse(rig).error).toBeUndefined();
      expect(rig).toMatchObject({ model: "Long one", maker: template.maker, loaM: boat.loaM });
      // Places are kept to the centimetre, so what lies on the very edge may come to lie that much outside.
      const grown = { ...rig, beamM: rig.beamM + 0.03 };
      for (const { id, at } of rig.parts) if (inside.includes(id)) expect(isWithinHull(grown, at), id).toBe(true);
      for (const { id, at, level } of rig.stations) expect(isWithinHull(rig, at), id).toBe(level === "aboard");
    }
    expect(resizeRig(template, template.loaM, template.beamM)).toBe(template);
  });

  it.each(families)("makes a plain %s where no template is taken, whole though the list says little", (family) => {
    const boat = {
      ...{ hull: "SLW20301B626", name: "Zephyr 9", stock: "", color: "", start: { family } },
      ...{ maker: null, model: null, modelYear: null, loaM: 7, beamM: null },
    };
    const rig = createStockRig(boat, null, 2026);
    expect(rigSchema.safeParse(rig).error).toBeUndefined();
    expect(rig).toMatchObject({ family, model: "Zephyr 9", modelYear: 2026, loaM: 7, beamM: 2.66 });
  });
});
