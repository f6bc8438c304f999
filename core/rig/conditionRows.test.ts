import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cards, makeReady, rigTemplates, topics } from "../../content/index.ts";
import {
  type Condition,
  describeCondition,
  explainCondition,
  findFact,
  isMet,
  offeredFacts,
  readRows,
  writeRows,
} from "./index.ts";

const boats = Object.values(rigTemplates);
const shipped = [...topics, ...cards, ...makeReady].flatMap(({ when }) => (when === undefined ? [] : [when]));
const facts = fc.constantFrom(...offeredFacts.map(({ fact }): Condition => fact));
const conditions = fc.letrec<{ condition: Condition }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 3 },
    facts,
    fc.record({ not: tie("condition") }),
    fc.record({ any: fc.array(tie("condition"), { minLength: 1, maxLength: 3 }) }),
    fc.record({ all: fc.array(tie("condition"), { maxLength: 3 }) }),
  ),
})).condition;

describe("conditions as rows", () => {
  it("say the same of every boat, whatever is asked, or are refused", () => {
    fc.assert(
      fc.property(conditions, (condition) => {
        const rows = readRows(condition);
        if (rows === null) return;
        for (const rig of boats) expect(isMet(writeRows(rows), rig)).toBe(isMet(condition, rig));
      }),
      { numRuns: 400 },
    );
  });

  it("can be made of every condition that ships, each of facts that are offered", () => {
    for (const condition of shipped) {
      const rows = readRows(condition);
      expect(rows, JSON.stringify(condition)).not.toBeNull();
      for (const { fact } of rows!.flat())
        if (!("equals" in fact && /\.id$|resets|kind/.test(fact.equals)) && !("atLeast" in fact && !("count" in fact)))
          expect(findFact(fact), JSON.stringify(fact)).not.toBeNull();
    }
  });

  it("are refused where one way out holds several things at once", () => {
    const [a, b, c] = offeredFacts.map(({ fact }) => fact);
    expect(readRows({ any: [a!, { all: [b!, c!] }] })).toBeNull();
  });
});

describe("a condition in words", () => {
  it.each<[Condition, string]>([
    [{ all: [] }, "Every boat"],
    [{ has: "windlass" }, "Boats that have a windlass"],
    [{ not: { equals: "trailer", value: null } }, "Boats that are on a trailer"],
    [{ equals: "used", value: null }, "Boats that are new"],
    [
      { all: [{ has: "vhf" }, { not: { equals: "trailer", value: null } }] },
      "Boats that have a VHF radio, and are on a trailer",
    ],
    [
      { any: [{ equals: "engines.kind", value: "outboard" }, { not: { has: "anchor" } }] },
      "Boats that have an outboard or have no anchor",
    ],
    [
      { any: [{ all: [{ has: "vhf" }, { has: "horn" }] }, { has: "tower" }] },
      "Boats that meet a condition written by hand",
    ],
  ])("%j reads %s", (condition, words) => expect(describeCondition(condition)).toBe(words));

  it("is said of every condition that ships, and explained on every boat", () => {
    for (const condition of shipped)
      for (const rig of boats) {
        expect(describeCondition(condition)).toMatch(/^(Every boat|Boats that .+)$/);
        for (const said of explainCondition(condition, rig))
          expect(said).toMatch(/^(every boat has it|it (has|is|does) [^{}[\]]+)$/);
      }
  });
});
