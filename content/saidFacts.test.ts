import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { z } from "zod";
import { printDangers } from "./dangers.ts";
import factsJson from "./said-facts.json" with { type: "json" };
import { listSaidPlaces, type SaidPlace } from "./saidPlaces.ts";

/**
 * What Ravik says about what can hurt somebody, one fact for each subject: how a text on it is found (`about`), what such a text has
 * to say one of (`allows`), what no such text may say (`refuses`), and where it stands (`places`). Patterns ignore case.
 */
const factSchema = z.strictObject({
  id: z.string(),
  says: z.string(),
  about: z.string(),
  allows: z.array(z.string()).min(1),
  refuses: z.array(z.string()),
  places: z.array(z.string()).min(1),
});
type Fact = z.infer<typeof factSchema>;
const facts = z.array(factSchema).parse(factsJson);
const places = listSaidPlaces();

const matches = (patterns: readonly string[], text: string) =>
  patterns.some((pattern) => new RegExp(pattern, "i").test(text));
const isAbout = ({ about }: Fact, { text }: SaidPlace) => matches([about], text);
/** What is wrong with a place by a fact; null where nothing is. */
function judge(fact: Fact, place: SaidPlace): string | null {
  if (!isAbout(fact, place)) return null;
  if (matches(fact.refuses, place.text)) return "says what is refused";
  return matches(fact.allows, place.text) ? null : "says nothing that is allowed";
}

describe.each(facts.map((fact) => [fact.id, fact] as const))("%s", (_, fact) => {
  it("is said in the same way wherever it is said", () => {
    const wrong = places.flatMap((place) => {
      const says = judge(fact, place);
      return says === null ? [] : [`${place.id} ${says}: ${place.text}`];
    });
    expect(wrong).toEqual([]);
  });

  it("stands where the table says, and nowhere else: a new text on it is read beside the others first", () => {
    expect(places.filter((place) => isAbout(fact, place)).map(({ id }) => id)).toEqual(fact.places);
  });
});

describe("the table of what is said", () => {
  it("has at least thirty subjects, each named once, in words that keep to their own fact", () => {
    expect(facts.length).toBeGreaterThanOrEqual(30);
    expect(new Set(facts.map(({ id }) => id)).size).toBe(facts.length);
    for (const fact of facts) expect(matches(fact.refuses, fact.says), fact.id).toBe(false);
  });

  it.each([
    ["fuel-smell", "Smell of fuel: stop. No switch, no key. Everyone off, everything open, and find the leak."],
    ["fuel-smell", "Smell of fuel: stop, everything off, people ashore."],
    ["fuel-smell", "A smell of fuel: do not start. Find it first."],
    ["smell-before-power", "Blower on for four minutes, then battery switches on."],
    [
      "combined-after-start",
      "Emergency switch to combine, start, and run for an hour. When you stop, key off, and back to normal.",
    ],
    ["selector-at-rest", "Leave the selector on both while you are aboard: both batteries charge and both start."],
    ["selector-at-rest", "Use one battery at rest and on both under way: 1 on odd days, 2 on even days."],
    ["trailer-plug-ramp", "A trailer with a reverse wire: lights unplugged in the parking lot."],
    ["trailer-plug-ramp", "A wipe and a spray. Unplug before the ramp."],
    ["dry-run", "Lever in neutral. Out of the water, only a short crank."],
    ["road-rest", "Engine or drive on the tilt lever, as its manual says."],
    ["heat-alarm", "Heat alarm: do not push it, find the alarm's cause or come home at idle."],
    ["oil-alarm", "Oil alarm: a gauge is no proof. Come home slowly and let us read it."],
    ["gauge-alone", "A gauge alone is no proof. Come home slowly."],
    ["fuel-cap", "Open the vent, or leave the cap a turn open until you are home."],
    ["fuel-cap", "Drive home with the cap open."],
    ["carbon-monoxide", "Carbon monoxide collects behind canvas. Never sleep in it closed without a working alarm."],
    ["water-coming-in", "Water coming in: life jackets on, pump on, engine off, close these first."],
    ["fire-call", "Smoke or fire. Engine off, battery switches off. Not out at once: channel 16."],
    [
      "fueling",
      "Nozzle touching the neck, nobody aboard. Afterwards: caps on, lids open, blower on, and smell before the key.",
    ],
    ["wheel-jacking", "With the wheel safely jacked, spin it and listen."],
    ["plug-afloat", "Drain plug out, kept with the mat."],
  ])("refuses what once stood here, or would: %s", (id, text) => {
    expect(judge(facts.find((fact) => fact.id === id)!, { id: "new", text })).not.toBeNull();
  });
});

it("is printed word by word for whoever changes content: docs/dangers.md, made by `npm run dangers`", () => {
  expect(readFileSync(new URL("../docs/dangers.md", import.meta.url), "utf8")).toBe(printDangers());
});
