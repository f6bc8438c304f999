import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cutText, findUnfit } from "./index.ts";
import { findLineFault, lineText } from "./lineText.ts";

const isWellFormed = (text: string) => {
  try {
    encodeURIComponent(text);
    return true;
  } catch {
    return false;
  }
};

describe("a name", () => {
  it.each([
    ["Ada\r\nBoom", "Ada Boom"],
    ["\u202aAda Boom\u202c", "Ada Boom"],
    ["Ada\u2028\tBoom\u200f", "Ada Boom"],
    ["  Zoë-Noël O’Reef 李 ", "Zoë-Noël O’Reef 李"],
  ])("%j comes in as %j, and has no fault then", (typed, kept) => {
    expect(findLineFault(kept)).toBeNull();
    expect(lineText(80).parse(typed)).toBe(kept);
  });
  it.each([
    ["Ada\nBoom", "must be one line"],
    ["Ada\u2029Boom", "must be one line"],
    ["\u2067mooB adA", "must not hold marks of direction"],
    ["Ada\u061cBoom", "must not hold marks of direction"],
  ])("%j is none that is kept as it was signed", (name, fault) => {
    expect(findLineFault(name)).toBe(fault);
  });
  it("of nothing but marks is empty", () => {
    expect(lineText(80).safeParse("\u202e\u2066\n").success).toBe(false);
  });
});

describe("findUnfit", () => {
  it.each<[string, unknown, unknown]>([
    ["half a pair", { a: ["ok", "\ud800"] }, { path: "a[1]", message: "must be well-formed Unicode" }],
    ["NUL", { note: "a\u0000b" }, { path: "note", message: "must not hold a NUL character" }],
    ["a bad key", { a: { "\udc00": 1 } }, { path: "a", message: "has a name that must be well-formed Unicode" }],
    ["the first of two", ["\ud800", { b: "\u0000" }], { path: "[0]", message: "must be well-formed Unicode" }],
    ["nothing", { emoji: "😀", n: 1, z: null, list: [true, "Zoë"] }, null],
  ])("finds %s", (_, value, found) => {
    expect(findUnfit(value)).toEqual(found);
  });

  it("bears twenty thousand levels", () => {
    let deep: unknown = "x";
    for (let i = 0; i < 20_000; i++) deep = [deep];
    expect(findUnfit(deep)).toMatchObject({ message: "is nested too deeply" });
  });

  it("finds every ill-formed text and no other", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary" }), fc.nat(9), (text, at) => {
        const broken = `${text.slice(0, at)}\ud83d${text.slice(at)}`;
        for (const each of [text, broken])
          expect(findUnfit({ each }) === null).toBe(isWellFormed(each) && !each.includes("\u0000"));
      }),
      { seed: 12 },
    );
  });
});

describe("cutText", () => {
  it("is a beginning of the text, as long as may be, and well-formed where the text is", () => {
    expect(cutText("ab😀", 3)).toBe("ab");
    expect(cutText("ab😀", 4)).toBe("ab😀");
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), fc.integer({ min: 1, max: 12 }), (text, most) => {
        const cut = cutText(text, most);
        expect(text.startsWith(cut)).toBe(true);
        expect(cut.length).toBeLessThanOrEqual(most);
        expect(cut.length).toBeGreaterThanOrEqual(Math.min(text.length, most - 1));
        expect(isWellFormed(cut)).toBe(true);
      }),
      { seed: 12 },
    );
  });
});
