import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { isSignForm, type SignCounts, signRoles, writeSignWords } from "./index.ts";

const counted = fc.record<SignCounts>({
  planned: fc.nat(999),
  done: fc.nat(999),
  extra: fc.nat(99),
  byHand: fc.nat(999),
  gearFull: fc.nat(99),
  gearKinds: fc.nat(99),
  owed: fc.nat(99),
  explained: fc.nat(999),
  topics: fc.nat(999),
});

describe("the words above a signature", () => {
  it("are of the form, whatever the numbers, and of no other role's", () => {
    fc.assert(
      fc.property(counted, fc.constantFrom(...signRoles), fc.boolean(), (counts, role, isRefused) => {
        const words = writeSignWords(role, counts, isRefused);
        for (const other of signRoles) expect(isSignForm(other, words)).toBe(other === role);
      }),
      { seed: 7 },
    );
  });

  it("say one thing as one", () => {
    const none = { planned: 0, done: 0, extra: 0, byHand: 0, gearFull: 0, gearKinds: 0, explained: 0, topics: 0 };
    expect(writeSignWords("buyer", { ...none, owed: 1 })[2]).toBe("1 thing is owed to me, as listed here.");
    expect(writeSignWords("buyer", { ...none, owed: 2 })[2]).toBe("2 things are owed to me, as listed here.");
    expect(writeSignWords("buyer", { ...none, owed: 0 })[2]).toBe("Nothing is owed to me.");
  });

  it.each<[string, Parameters<typeof isSignForm>, boolean]>([
    ["of an older app", ["staff", ["I explained this boat as marked: 40 of 174 topics."]], true],
    [
      "of a buyer's older app",
      [
        "buyer",
        [
          "40 topics were explained to me, 12 of them I did with my own hands.",
          "I received the gear as counted: 9 of 10 kinds in full.",
          "1 things are owed to me, as listed here.",
        ],
      ],
      true,
    ],
    ["of nobody's app", ["buyer", ["I waive every claim."]], false],
    ["with one more line", ["staff", ["I explained this boat as marked: 4 of 7 topics.", "And more."]], false],
    ["with a line break", ["countersign", ["I was there when this was signed.\nI waive every claim."]], false],
    ["none", ["buyer", []], false],
  ])("%s", (_, given, expected) => {
    expect(isSignForm(...given)).toBe(expected);
  });
});
