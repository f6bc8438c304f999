import { describe, expect, it } from "vitest";
import { buildFaultModel, findTaught } from "../core/faults/index.ts";
import { regions } from "../core/region/index.ts";
import { type Condition, engineKinds, isMet, type PartKind, partKinds, type Rig } from "../core/rig/index.ts";
import { listTopicsFor, proposeMinutes, speakMinutes } from "../core/route/index.ts";
import { orderTopics } from "../core/route/internal/blocks.ts";
import { fillText, fillTopic, fittingNames, systems } from "../core/topic/index.ts";
import { cards, faultContent, makeReady, rigTemplates, sequences, topics } from "./index.ts";

const has = (kind: PartKind): Condition => ({ has: kind });
const engine = (...kinds: string[]): Condition => ({
  any: kinds.map((kind) => ({ equals: "engines.kind", value: kind })),
});
const trailer: Condition = { not: { equals: "trailer", value: null } };
/** Words that name a thing, and the boats that have it. */
const namesOf: readonly (readonly [RegExp, Condition])[] = [
  [/windlass/i, has("windlass")],
  [/livewell/i, has("livewell")],
  [/blower/i, has("blower")],
  [/lanyard|kill switch/i, { any: [has("lanyard"), engine("kicker")] }],
  [/coupler|winch/i, trailer],
  [/bimini/i, has("bimini")],
  [/ballast/i, has("ballast")],
  [/plotter|the track you made|depth display|depth alarm|transducer/i, has("plotter")],
  [/raw-water (valve|strainer)/i, { all: [engine("inboard", "sterndrive"), has("through-hull")] }],
  [/engine (up|down)(?! if it can)|tilt (it|the engine)|lower unit/i, engine("outboard", "sterndrive", "kicker")],
  [/surge brakes/i, { equals: "trailer.brakes", value: "surge" }],
  [/primer bulb/i, has("primer-bulb")],
  [/swim platform/i, has("swim-platform")],
  [/ladder/i, has("ladder")],
  [/stereo/i, has("stereo")],
  [/radio|channel 16|\bon 16\b/i, has("vhf")],
  [/stove/i, has("galley")],
  [/\bfridge/i, has("fridge")],
  [/generator/i, has("generator")],
  [/air condition/i, has("air-conditioner")],
  [
    /two-stroke/i,
    {
      any: [
        { equals: "engines.twoStrokeOil", value: "injected" },
        { equals: "engines.twoStrokeOil", value: "mixed" },
      ],
    },
  ],
  [/enclosure/i, has("enclosure")],
  [/anchor light/i, { any: [has("light-pole"), { equals: "loads.id", value: "nav-lights" }] }],
  [/light pole/i, has("light-pole")],
  [/drain plug|plug out|plug in\b/i, { any: [has("plug"), trailer, has("charger-socket")] }],
  [/drain plug/i, has("plug")],
  [/breaker/i, { any: [has("breakers"), has("charger-socket"), { equals: "trailer.brakes", value: "electric" }] }],
  [/bilge pump/i, has("pump")],
  [/battery switch/i, has("selector")],
  [/cooling water stream|tell-tale/i, engine("outboard", "kicker")],
];

/** Words that a template always has the thing for, and another boat may not. */
const namesOfVariants: readonly (readonly [RegExp, Condition])[] = [
  [/\btrailer\b|before the ramp/i, trailer],
  [/\bhorn\b/i, { any: [has("horn"), has("jackets")] }],
];

/** The boat built without one kind of thing, with other engines, without a trailer: what a store may sell as well. */
function listVariants(rig: Rig): [string, Rig][] {
  const kinds = partKinds.filter((kind) => rig.parts.some((part) => part.kind === kind) && !essential.has(kind));
  return [
    ["without a trailer", { ...rig, trailer: null }],
    ...(["outboard", "sterndrive", "inboard"] as const).map((kind): [string, Rig] => [
      `with an ${kind}`,
      {
        ...rig,
        engines: rig.engines.filter((engine) => engine.kind !== "kicker").map((engine) => ({ ...engine, kind })),
      },
    ]),
    ...kinds.map((kind): [string, Rig] => [
      `without ${kind}`,
      {
        ...rig,
        parts: rig.parts.filter((part) => part.kind !== kind),
        loads: rig.loads.filter(({ serves }) => !serves?.includes(kind)),
        ...(kind === "selector" ? { powerScheme: "single" as const, powerSwitches: [] } : {}),
        ...(kind === "breakers" ? { breakers: [] } : {}),
      },
    ]),
  ];
}
/** No boat goes out without these. */
const essential = new Set<PartKind>(["extinguisher", "jackets"]);

/** What a card or a sequence says on this boat: every text of what its conditions let through. */
function readSaid(said: unknown, rig: Rig): string[] {
  if (Array.isArray(said)) return said.flatMap((each) => readSaid(each, rig));
  if (typeof said !== "object" || said === null) return [];
  if ("when" in said && !isMet(said.when as Condition, rig)) return [];
  return Object.entries(said).flatMap(([name, value]) => {
    if (typeof value === "string") return saidFields.has(name) ? [value] : [];
    return name === "cautions" && Array.isArray(value) && value.every((each) => typeof each === "string")
      ? value
      : readSaid(value, rig);
  });
}
const saidFields = new Set(["title", "lead", "say", "if", "do", "proof", "other", "caution"]);

const listPlaces = (rig: Rig) =>
  rig.parts
    .flatMap(({ label, reach }) => [label, reach ?? ""].map((text) => text.toLowerCase()))
    .filter((text) => text !== "");

const own = listTopicsFor(rigTemplates["wending-23"], topics);

describe("the library", () => {
  it("covers every system with at least 45 topics on the boat that ships", () => {
    expect(own.length).toBeGreaterThanOrEqual(45);
    for (const system of systems)
      expect(own.filter((topic) => topic.system === system).length).toBeGreaterThanOrEqual(5);
  });

  it.each([
    "drain-plug",
    "lanyard",
    "battery-switches",
    "tell-tale",
    "blower",
    "bilge-switch",
    "seacocks",
    "extinguisher",
    "jackets",
    "coupler",
    "chains",
    "winch",
    "start-order",
    "flush",
  ])("has %s done by the buyer's own hands", (id) => {
    const topic = topics.find((each) => each.id === id);
    expect(topic).toMatchObject({ must: true, level: "done" });
    expect(topic!.cautions.length).toBeGreaterThan(0);
  });

  it("waits for nothing in a circle, and a must never waits for a topic worth little", () => {
    const routed = topics.map((topic) => ({ ...topic, station: "any" }));
    expect(orderTopics(routed).ok).toBe(true);
    const value = new Map(topics.map((topic) => [topic.id, topic.value]));
    for (const topic of topics.filter(({ must }) => must))
      for (const before of topic.after)
        expect(value.get(before), `${topic.id} after ${before}`).toBeGreaterThanOrEqual(5);
  });

  it("is written for the ear: short sentences, no shouting", () => {
    for (const topic of topics) {
      for (const text of [topic.say, topic.show, topic.does, topic.wrong, topic.why, ...topic.cautions]) {
        expect(text, topic.id).not.toContain("!");
        const longest = Math.max(...text.split(/(?<=[.:;?])\s/).map((sentence) => sentence.split(/\s+/).length));
        expect(longest, `${topic.id}: ${text}`).toBeLessThanOrEqual(27);
      }
    }
  });

  it("tells of a dipstick only where there is one: never on two strokes alone, but beside a kicker of two", () => {
    const rig = rigTemplates["pipit-15"];
    const [main] = rig.engines;
    const two = { ...rig, engines: [{ ...main!, twoStrokeOil: "mixed" as const }] };
    const kicker = { ...main!, id: "kicker", kind: "kicker" as const, twoStrokeOil: "mixed" as const };
    const tellsOf = (boat: typeof rig) => listTopicsFor(boat, topics).some(({ id }) => id === "dipstick");
    expect([rig, two, { ...rig, engines: [main!, kicker] }].map((boat) => tellsOf(boat))).toEqual([true, false, true]);
  });

  it("smells before the blower, on the card and in both topics", () => {
    const said = ["blower", "engine-hatch"].map((wanted) => topics.find(({ id }) => id === wanted)!.say);
    for (const text of said) expect(text.search(/smell/i)).toBeLessThan(text.search(/blower/i));
  });

  it("has the batteries on before the blower, which is dead until then, and the smell before both: card, topic, steps", () => {
    const card = JSON.stringify(cards.find(({ id }) => id === "start")!);
    const topic = topics.find(({ id }) => id === "start-order")!.say;
    const steps = JSON.stringify(sequences.find(({ id }) => id === "launch")!);
    for (const text of [card, topic, steps]) {
      const [smell, battery, blower] = [/smell/i, /battery (switches )?(as|on)/i, /blower[ a-z]* four minutes/i].map(
        (word) => text.search(word),
      );
      expect(smell).toBeGreaterThan(0);
      expect(battery).toBeGreaterThan(smell!);
      expect(blower).toBeGreaterThan(battery!);
    }
  });

  it("takes the drain plug out of no boat that may be afloat: where it says so, it says on land", () => {
    const putAway = JSON.stringify(sequences.find(({ id }) => id === "put-away")!);
    const flush = JSON.stringify(cards.find(({ id }) => id === "flush")!);
    for (const text of [putAway, flush])
      for (const [said] of text.matchAll(/"say":"[^"]*plug out[^"]*"/gi)) expect(said).toMatch(/on land/i);
  });

  it("leaves no two batteries joined for longer than the start of an engine that a switch joins them for", () => {
    const parallel = topics.find(({ id }) => id === "parallel-start")!.say;
    const card = JSON.stringify(cards).match(/Emergency switch to combine[^"]*/)![0];
    for (const text of [parallel, card]) expect(text).toMatch(/as soon as it runs/i);
  });

  it("takes the minutes that are reckoned from its words, hands and doing, never less than its words", () => {
    for (const topic of topics) {
      expect(topic.minutes, topic.id).toBe(proposeMinutes(topic));
      for (const say of [topic.say, ...(topic.schools ?? []).map((school) => school.say)])
        expect(speakMinutes({ ...topic, say }), topic.id).toBeLessThanOrEqual(topic.minutes + 0.15);
    }
  });

  it("names a place as what follows, so that any phrase can stand there: on its bracket, port locker", () => {
    const texts = [...topics, ...cards, ...sequences].flatMap((each) =>
      [...JSON.stringify(each).matchAll(/.{0,12}\{at:/g)].map(String),
    );
    expect(texts.length).toBeGreaterThan(30);
    expect(texts.filter((text) => !/[:,(] ?\{at:$/.test(text))).toEqual([]);
  });

  it("asks in braces only for what a rig can have", () => {
    const kinds = new Set<string>([...partKinds, ...engineKinds, ...fittingNames]);
    for (const topic of topics)
      for (const [, verb, name] of JSON.stringify(topic).matchAll(/\{(at|each|if):([^}?]+)/g))
        expect(kinds.has(name!), `${topic.id}: ${verb} ${name}`).toBe(true);
  });

  it.each(Object.entries(rigTemplates))("names nothing that %s has not", (_, rig) => {
    for (const topic of listTopicsFor(rig, topics)) {
      const { title, say, show, does, wrong, why, cautions } = fillTopic(topic, rig, regions.us);
      const text = [title, say, show, does, wrong, why, ...cautions].join(" ");
      expect(text, topic.id).not.toMatch(/where we will show you|[{}]/);
      for (const [words, when] of namesOf)
        if (!isMet(when, rig)) expect(text, `${topic.id} on ${rig.model}`).not.toMatch(words);
    }
  });

  it.each(Object.entries(rigTemplates))(
    "names nothing that a boat like %s has not, whatever it is built without",
    (_, rig) => {
      const wrong = new Set<string>();
      for (const [built, boat] of listVariants(rig))
        for (const topic of listTopicsFor(boat, topics)) {
          const { title, say, show, does, wrong: amiss, why, cautions } = fillTopic(topic, boat, regions.us);
          // Places are the rig's own words, and may name what was taken away.
          const text = listPlaces(boat).reduce(
            (rest, place) => rest.replaceAll(place, ""),
            [title, say, show, does, amiss, why, ...cautions].join(" "),
          );
          for (const [words, when] of [...namesOf, ...namesOfVariants])
            if (!isMet(when, boat) && words.test(text)) wrong.add(`${topic.id} ${built}: ${text.match(words)![0]}`);
        }
      expect([...wrong]).toEqual([]);
    },
  );

  it.each(Object.entries(rigTemplates))("names on cards and in steps nothing that a boat like %s has not", (_, rig) => {
    const wrong = new Set<string>();
    for (const [built, boat] of [["as it is", rig] as const, ...listVariants(rig)]) {
      const places = listPlaces(boat);
      for (const text of [...cards, ...sequences].flatMap((each) => readSaid(each, boat))) {
        // A card of nothing but a table is not printed where its table is empty.
        if (text === "Breakers") continue;
        const filled = places.reduce(
          (rest, place) => rest.replaceAll(place, ""),
          fillText(text, boat, regions.us).toLowerCase(),
        );
        for (const [words, when] of [...namesOf, ...namesOfVariants])
          if (!isMet(when, boat) && words.test(filled)) wrong.add(`${built}: ${filled.match(words)![0]} in ${text}`);
      }
    }
    expect([...wrong]).toEqual([]);
  });

  it.each(Object.entries(rigTemplates))("tells %s every topic that applies to it", (_, rig) => {
    const told = new Set(listTopicsFor(rig, topics).map(({ id }) => id));
    expect(topics.filter(({ id, when }) => isMet(when, rig) && !told.has(id)).map(({ id }) => id)).toEqual([]);
  });

  it("gives the workshop its own list before the buyer comes", () => {
    expect(new Set(makeReady.map(({ id }) => id)).size).toBe(makeReady.length);
  });
});

it("each kind of fault names topics that there are, and each boat has one for most of what fails on it", () => {
  const known = new Set(topics.map(({ id }) => id));
  for (const { id, topics: taught } of faultContent.kinds)
    for (const topic of taught) expect(known.has(topic), `${id}: ${topic}`).toBe(true);
  for (const rig of Object.values(rigTemplates)) {
    const here = new Set(listTopicsFor(rig, topics).map(({ id }) => id));
    const kinds = [...new Set(buildFaultModel(rig, faultContent, regions.us).components.map(({ kind }) => kind))];
    const untaught = kinds.filter((kind) => findTaught(faultContent, kind, here) === null);
    expect(untaught.length, `${rig.model}: ${untaught.join(", ")}`).toBeLessThanOrEqual(3);
  }
});
