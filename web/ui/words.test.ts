import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fallsWords, fillTemplate, formatFirstNames } from "./fillTemplate.ts";
import { formatMoney, readMoney } from "./money.ts";
import { formatHours, shortenTitles } from "./words.ts";

describe("money", () => {
  it.each([
    ["312,40", 31_240],
    ["312.4", 31_240],
    [" 80 ", 8000],
    ["0", 0],
    ["", null],
    ["   ", null],
  ])("%j is %s", (text, cents) => {
    expect(readMoney(text)).toBe(cents);
  });

  it.each(["dear", "-3", "1.2.3", "1e9", "12 or 13", "NaN", "Infinity"])("%j is no amount", (text) => {
    expect(readMoney(text)).toBeUndefined();
  });

  it("reads back whatever it has said, with a point or a comma", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100_000_000 }), (cents) => {
        const said = formatMoney(cents);
        expect(said).toMatch(/^\d+\.\d\d$/);
        expect([readMoney(said), readMoney(said.replace(".", ","))]).toEqual([cents, cents]);
      }),
      { seed: 8 },
    );
  });
});

describe("message templates", () => {
  it("put words in their places, and leave places nobody knows", () => {
    expect(fillTemplate("Hello {buyers}, {boat}: {link}", { buyers: "Ilse", boat: "your Wending 23" })).toBe(
      "Hello Ilse, your Wending 23: {link}",
    );
    expect(fillTemplate("{buyers}{buyers}", { buyers: "{boat}", boat: "no" })).toBe("{boat}{boat}");
  });

  it("call people by their first names", () => {
    expect(formatFirstNames("Ilse Warrender-Featherstonehaugh-Okonkwo and Piet Marram")).toBe("Ilse and Piet");
    expect(formatFirstNames("Dov")).toBe("Dov");
  });

  it("say of what is past due that it has been", () => {
    expect([fallsWords(false), fallsWords(true)]).toEqual(["falls due about", "has been due since"]);
  });
});

describe("titles for a narrow list", () => {
  it("end at the colon, but for those that would then read alike", () => {
    const titles = ["Kill lanyard: fit it", "VHF: call", "Throttles", "VHF: distress"];
    expect(shortenTitles(titles)).toEqual(["Kill lanyard", "VHF: call", "Throttles", "VHF: distress"]);
  });
});

describe("engine hours", () => {
  it.each([
    [10, "10"],
    [20.904, "20.9"],
    [9.96, "10"],
  ])("%d h are said as %s", (hours, says) => {
    expect(formatHours(hours)).toBe(says);
  });
});
