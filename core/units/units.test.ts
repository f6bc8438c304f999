import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  fromCore,
  headOf,
  isTyped,
  listUnits,
  quantities,
  readAmount,
  sayAmount,
  sayNumber,
  sayTyped,
  shownUnit,
  toCore,
  writeAmount,
} from "./index.ts";

const systems = ["us", "imperial", "metric"] as const;

describe("an amount is said in the store's units", () => {
  it.each([
    [5.6388, "length", "us", "18 ft 6 in"],
    [5.6388, "length", "metric", "5.64 m"],
    [6.096, "length", "us", "20 ft"],
    [6.0934, "length", "us", "20 ft"],
    [0.18, "length", "us", "7 in"],
    [-1.15, "length", "us", "−3 ft 9 in"],
    [0.38, "height", "us", "15 in"],
    [0.38, "height", "metric", "38 cm"],
    [50.8, "ball", "us", "2 in (50.8 mm)"],
    [58.7375, "ball", "us", "2 5/16 in (58.7 mm)"],
    [50, "ball", "metric", "50 mm (1.97 in)"],
    [47.625, "ball", "imperial", "47.6 mm (1 7/8 in)"],
    [1500, "mass", "us", "3307 lb"],
    [15_000, "mass", "metric", "15,000 kg"],
    [227.12, "volume", "us", "60 gal"],
    [227.3, "volume", "imperial", "50 gal"],
    [30, "volume", "us", "7.9 gal"],
    [18, "flow", "us", "4.8 gal/h"],
    [448.16, "pressure", "us", "65 psi"],
    [448.16, "pressure", "metric", "448 kPa"],
    [110, "power", "us", "148 hp"],
    [100, "temperature", "us", "212 °F"],
    [-40, "temperature", "us", "-40 °F"],
    [21, "temperature", "imperial", "21 °C"],
    [100, "roadSpeed", "us", "62 mph"],
    [22.5, "waterSpeed", "us", "22.5 kn"],
    [80.4672, "road", "imperial", "50 mi"],
  ] as const)("%s of %s, %s: %s", (amount, quantity, system, said) => {
    expect(sayAmount(amount, quantity, system)).toBe(said);
  });

  it("stays digit for digit as it was typed in the store's unit, and only while it is what is kept", () => {
    const typed = { value: 52.35, unit: "psi" } as const;
    const kept = toCore(typed, "pressure");
    expect(sayAmount(kept, "pressure", "us", typed)).toBe("52.35 psi");
    expect(sayAmount(kept, "pressure", "metric", typed)).toBe("361 kPa");
    expect(sayAmount(450, "pressure", "us", typed)).toBe("65 psi");
    expect(sayTyped({ value: 4.5, unit: "bar" }, "pressure")).toBe("4.5 bar");
    expect(sayTyped({ value: 2.3125, unit: "in" }, "ball")).toBe("2 5/16 in");
  });

  it("a column bears the unit in its head", () => {
    expect(headOf("Length", "length", "us")).toBe("Length, ft in");
    expect(headOf("Length", "length", "metric")).toBe("Length, m");
    expect(sayNumber(227.12, "volume", "us")).toBe("60");
    expect(sayNumber(5.6388, "length", "us")).toBe("18 ft 6 in");
  });
});

describe("an amount is read as people type it", () => {
  it.each([
    [`18' 6"`, "length", "us", 222, "in"],
    ["18′6″", "length", "us", 222, "in"],
    ["18 ft 6 in", "length", "us", 222, "in"],
    ["18ft 6 1/2in", "length", "us", 222.5, "in"],
    ["18ft6", "length", "us", 222, "in"],
    ["18.5", "length", "us", 222, "in"],
    ["7 in", "length", "us", 7, "in"],
    ["5.64 m", "length", "us", 5.64, "m"],
    ["5,64", "length", "metric", 5.64, "m"],
    ["18 ft 6 in", "length", "metric", 222, "in"],
    ["-3 ft 9 in", "length", "us", -45, "in"],
    ["15", "height", "us", 15, "in"],
    ["1 ft 3 in", "height", "us", 15, "in"],
    ["38", "height", "metric", 38, "cm"],
    ["2 5/16", "ball", "us", 2.3125, "in"],
    ["1-7/8 in", "ball", "us", 1.875, "in"],
    ["50 mm", "ball", "us", 50, "mm"],
    ["65", "pressure", "us", 65, "psi"],
    ["65psi", "pressure", "metric", 65, "psi"],
    ["4,5 bar", "pressure", "metric", 4.5, "bar"],
    ["450 KPA", "pressure", "us", 450, "kPa"],
    ["3,300", "mass", "us", 3300, "lb"],
    ["3,300 lbs", "mass", "us", 3300, "lb"],
    ["12,5", "volume", "us", 12.5, "us-gal"],
    ["60 litres", "volume", "us", 60, "L"],
    [".5", "volume", "us", 0.5, "us-gal"],
    ["98.6 F", "temperature", "metric", 98.6, "°F"],
    ["22 knots", "waterSpeed", "us", 22, "kn"],
  ] as const)("%s of %s in a %s store", (text, quantity, system, value, unit) => {
    expect(readAmount(text, quantity, system)).toEqual({ value, unit });
  });

  it.each([
    ["", "mass", "us"],
    ["about 50", "pressure", "us"],
    ["50 kg", "pressure", "us"],
    ["1.2.3", "volume", "us"],
    ["18 ft 13 in", "length", "us"],
    ["1/0", "ball", "us"],
    ["Infinity", "mass", "us"],
    ["1e9", "mass", "us"],
    ["--5", "mass", "us"],
  ] as const)("%j is no %s in a %s store", (text, quantity, system) => {
    expect(readAmount(text, quantity, system)).toBeNull();
  });

  it("a bare number is of the unit that was chosen", () => {
    expect(readAmount("450", "pressure", "us", "kPa")).toEqual({ value: 450, unit: "kPa" });
    expect(readAmount("65 psi", "pressure", "us", "kPa")).toEqual({ value: 65, unit: "psi" });
  });
});

describe("to and fro", () => {
  const cases = quantities.flatMap((quantity) =>
    systems.flatMap((system) => listUnits(quantity, system).map((unit) => ({ quantity, system, unit }))),
  );

  it("nothing changes by being kept in the core and taken out again, in any unit", () => {
    fc.assert(
      fc.property(fc.constantFrom(...cases), fc.integer({ min: -99_999, max: 999_999 }), ({ quantity, unit }, size) => {
        const value = size / 100;
        const kept = toCore({ value, unit }, quantity);
        expect(fromCore(kept, quantity, unit)).toBeCloseTo(value, 7);
        expect(isTyped({ value, unit }, kept, quantity)).toBe(true);
      }),
    );
  });

  it("what a field shows of what was typed reads as the same again", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...cases),
        fc.integer({ min: 0, max: 99_999 }),
        ({ quantity, system, unit }, size) => {
          const typed = { value: size / 4, unit };
          const again = readAmount(writeAmount(typed, quantity), quantity, system, unit)!;
          expect(toCore(again, quantity)).toBeCloseTo(toCore(typed, quantity), 6);
        },
      ),
    );
  });

  it("an amount that is said reads as the same, to what is said of it", () => {
    fc.assert(
      fc.property(fc.constantFrom(...cases), fc.integer({ min: 1, max: 9999 }), ({ quantity, system }, size) => {
        if (quantity === "ball") return;
        const amount = toCore({ value: size, unit: shownUnit(quantity, system) }, quantity);
        const again = readAmount(sayAmount(amount, quantity, system), quantity, system)!;
        expect(toCore(again, quantity)).toBeCloseTo(amount, 6);
      }),
    );
  });
});
