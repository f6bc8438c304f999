import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import { readFigure, rigSchema, sayFigure, setFigure, typedOf } from "./index.ts";

const rig = rigTemplates["wending-23"];
const { us, metric } = regions;

describe("a figure of a rig", () => {
  it("is read by its path, in lists by the id", () => {
    expect(readFigure(rig, "tanks.fuel.litres")).toBeCloseTo(378.54, 2);
    expect(readFigure(rig, "trailer.axles")).toBe(2);
    for (const path of ["tanks.none.litres", "trailer.kg.more", "maker", ""])
      expect(readFigure(rig, path)).toBeUndefined();
  });

  it("is said in the store's units, as it was typed where it was typed in them", () => {
    expect(sayFigure(rig, "trailer.tyreKpa", us)).toBe("65 psi");
    expect(sayFigure(rig, "trailer.tyreKpa", metric)).toBe("448 kPa");
    expect(sayFigure(rig, "trailer.ballMm", us)).toBe("2 5/16 in (58.7 mm)");
    expect(sayFigure(rigTemplates["pipit-15"], "trailer.tyreKpa", us)).toBe("35 psi");
    expect(sayFigure(rig, "trailer.axles", us)).toBe("2");
    expect(sayFigure(rig, "trailer.none", us)).toBeNull();
  });

  it("changed keeps what was typed beside it; changed in another way, that is not believed any more", () => {
    const typed = { value: 7, unit: "bar" } as const;
    const pumped = setFigure(rig, "trailer.tyreKpa", 700, typed);
    expect(rigSchema.parse(pumped)).toEqual(pumped);
    expect([typedOf(pumped, "trailer.tyreKpa"), pumped.trailer!.tyreKpa]).toEqual([typed, 700]);
    const mended = { ...pumped, trailer: { ...pumped.trailer!, tyreKpa: 650 } };
    expect(typedOf(mended, "trailer.tyreKpa")).toBeUndefined();
    const gone = setFigure(pumped, "trailer.tyreKpa", undefined);
    expect("tyreKpa" in gone.trailer!).toBe(false);
    expect(gone.typed).not.toHaveProperty(["trailer.tyreKpa"]);
  });

  it("of the length moves what is aboard; of weights nobody gave before, makes them", () => {
    const longer = setFigure(rig, "loaM", 8.4, { value: 8.4, unit: "m" });
    expect(longer.parts[0]!.at.xM).not.toBe(rig.parts[0]!.at.xM);
    expect(typedOf(longer, "loaM")).toEqual({ value: 8.4, unit: "m" });
    const { weights: _, ...bare } = rig;
    expect(setFigure(bare as typeof rig, "weights.dryKg", 900).weights).toEqual({ dryKg: 900 });
  });

  it("no template holds anything typed that is not its figure", () => {
    for (const template of Object.values(rigTemplates))
      for (const path of Object.keys(template.typed ?? {})) expect(typedOf(template, path), path).toBeDefined();
  });
});
