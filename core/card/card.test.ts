import { describe, expect, it } from "vitest";
import { breakInPacks, rigTemplates, servicePacks, cards as texts } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import { type Card, createCards } from "./index.ts";

const boat = {
  boatName: "Wending 23",
  hull: "SLW23118K526",
  store: "Pellow & Marr",
  phone: "555 0142",
  breakInPacks,
  servicePacks,
  gear: new Map(),
  idiom: regions.us,
  emergency: regions.us.emergency,
};
const cardsOf = (id: keyof typeof rigTemplates) => createCards(texts, { ...boat, rig: rigTemplates[id] });
const wordsOf = (card: Card) => JSON.stringify(card.blocks);
const find = (cards: readonly Card[], id: string) => cards.find((card) => card.id === id)!;

describe.each(Object.keys(rigTemplates) as (keyof typeof rigTemplates)[])("the cards of %s", (id) => {
  const rig = rigTemplates[id];
  const cards = cardsOf(id);

  it("are all there, with nothing left in braces and nothing said to be looked up that the boat does not have", () => {
    expect(cards.map((card) => card.id)).toEqual(texts.map((text) => text.id));
    for (const card of cards) {
      expect(wordsOf(card)).not.toMatch(/[{}]at:|undefined|null/);
      expect(wordsOf(card), card.id).not.toContain("where we will show you");
    }
  });

  it("begin what can hurt with its caution", () => {
    for (const name of ["start", "no-start", "water", "tow-ramp", "flush", "ring"])
      expect(find(cards, name).blocks[0]!.kind, name).toBe("cautions");
  });

  it("name every breaker, every switch, every through-hull and every thing that stays live", () => {
    for (const { label } of rig.breakers) expect(wordsOf(find(cards, "breakers"))).toContain(label);
    rig.panel.forEach(({ label }, i) => {
      expect(wordsOf(find(cards, "switches"))).toContain(`${i + 1}  ${label ?? "no label"}`);
    });
    for (const { label } of rig.throughHulls) expect(wordsOf(find(cards, "water"))).toContain(label);
    for (const { label } of rig.loads.filter(({ always }) => always))
      expect(wordsOf(find(cards, "stays-on"))).toContain(label);
  });

  it("number things without one number lying on another, each near its thing", () => {
    const block = find(cards, "where").blocks.find(({ kind }) => kind === "places")!;
    const { marks } = block as Extract<typeof block, { kind: "places" }>;
    expect(marks.map(({ number }) => number)).toEqual(marks.map((_, i) => i + 1));
    for (const [i, a] of marks.entries()) {
      const part = rig.parts.find(({ label }) => label === a.label)!;
      expect(Math.hypot(a.xM - part.at.xM, a.yM - part.at.yM)).toBeLessThan(2);
      for (const b of marks.slice(i + 1)) expect(Math.hypot(a.xM - b.xM, a.yM - b.yM)).toBeGreaterThan(0.53);
    }
  });
});

it("never send the switch of the bilge pump to Off with the others, and say what it needs", () => {
  for (const [name, rig] of Object.entries(rigTemplates)) {
    const words = wordsOf(find(cardsOf(name as keyof typeof rigTemplates), "stays-on"));
    const hasAuto = rig.panel.some(({ positions }) => positions.some(({ label }) => label === "Auto"));
    expect([name, words.includes("The bilge switch stays at Auto")]).toEqual([name, hasAuto]);
    expect([name, words.includes("switch everything on the panel off")]).toEqual([name, !hasAuto]);
    if (hasAuto) expect(words).toContain("Bilge at Auto");
    expect(words).not.toMatch(/Bilge at Off/);
  }
  expect(wordsOf(find(cardsOf("sedge-18"), "stays-on"))).toContain("no switch: always live");
});

it("speak of the trailer only where there is one, and of the fuel the engine burns", () => {
  const rig = { ...rigTemplates["wending-23"], trailer: null };
  expect(createCards(texts, { ...boat, rig }).some(({ id }) => id === "tow-ramp")).toBe(false);
  const engines = rig.engines.map((engine) => ({ ...engine, fuel: "diesel" as const }));
  const diesel = createCards(texts, { ...boat, rig: { ...rig, engines } });
  expect(wordsOf(find(diesel, "start"))).not.toContain("Smell of fuel");
  expect(wordsOf(find(cardsOf("wending-23"), "start"))).toContain("Smell of fuel");
});

it("take the limits from the engine's own rated band, twins once", () => {
  const care = wordsOf(find(cardsOf("wending-23"), "care"));
  expect(care).toContain("3,000 rpm");
  expect(care.match(/0 to 1 h/g)).toHaveLength(1);
});

it("show gear as it was counted, with the date on it", () => {
  const gear = new Map([["flares", { count: 2, dated: "2028-05-01" }]]) as never;
  const cards = createCards(texts, { ...boat, rig: rigTemplates["wending-23"], gear });
  expect(wordsOf(find(cards, "gear"))).toContain(JSON.stringify(["Flares, dated", "2 of 3", "2028-05-01"]));
});

it("look for what keeps an engine from starting, not for what turns a bow motor", () => {
  const rig = rigTemplates["sedge-18"];
  const bow = rig.batteries.filter(({ use }) => use === "bow-motor").map(({ part }) => part);
  expect(bow.length).toBeGreaterThan(0);
  const stuck = wordsOf(find(cardsOf("sedge-18"), "no-start"));
  for (const id of bow) {
    const { label } = rig.parts.find((part) => part.id === id)!;
    expect(stuck.toLowerCase()).not.toContain(label.toLowerCase());
  }
  expect(stuck.toLowerCase()).not.toContain("bow motor");
  expect(stuck).toMatch(/Then the breakers: [^{]/);
});

it("name the number that is rung there", () => {
  const cards = createCards(texts, { ...boat, rig: rigTemplates["pipit-15"], emergency: "112" });
  expect(wordsOf(find(cards, "ring"))).toContain("emergency number, 112.");
});
