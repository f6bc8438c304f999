import { describe, expect, it } from "vitest";
import { formatBuyers, formatFirstNames, formatStrike, struckName, unnamedOwner } from "./index.ts";

const named = (...names: string[]) => names.map((name) => ({ name }));

describe("the buyers of a handover in one line", () => {
  it.each([
    ["Ana Anselm", named("Ana Anselm")],
    ["Dov Anselm and Ana Anselm", named("Dov Anselm", "Ana Anselm")],
    ["Ana Anselm", named(struckName, "Ana Anselm")],
    ["the buyer", named(struckName, struckName)],
    ["", []],
  ])("is %j", (says, buyers) => {
    expect(formatBuyers(buyers)).toBe(says);
  });
});

describe("how people are called in a message", () => {
  it.each([
    ["Ilse and Piet", "Ilse Warrender-Featherstonehaugh-Okonkwo and Piet Marram"],
    ["Dov", "Dov"],
    ["there", formatBuyers(named(struckName))],
    ["there", unnamedOwner],
    ["there", ""],
  ])("is %j", (says, buyers) => {
    expect(formatFirstNames(buyers)).toBe(says);
  });
});

describe("what was struck, in words", () => {
  it.each([
    ["Struck: 1 name and the 2 entries under it, 3 photos.", { people: 1, entries: ["a", "b"], photos: 3 }],
    ["Struck: 1 name and the entry under it.", { people: 1, entries: ["a"], photos: 0 }],
    ["Struck: 2 names, 1 photo.", { people: 2, entries: [], photos: 1 }],
    ["Struck: 1 photo.", { people: 0, entries: [], photos: 1 }],
  ])("%s", (says, struck) => {
    expect(formatStrike(struck)).toBe(says);
  });
});
