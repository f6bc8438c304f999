import { describe, expect, it } from "vitest";
import { buildFaultModel, findTaught } from "../core/faults/index.ts";
import { regions } from "../core/region/index.ts";
import { type Condition, isMet, type PartKind, partKinds } from "../core/rig/index.ts";
import { listTopicsFor, proposeMinutes, speakMinutes } from "../core/route/index.ts";
import { orderTopics } from "../core/route/internal/blocks.ts";
import { fillTopic, systems } from "../core/topic/index.ts";
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
  [/lanyard|kill switch/i, has("lanyard")],
  [/coupler|winch/i, trailer],
  [/bimini/i, has("bimini")],
  [/ballast/i, has("ballast")],
  [/plotter|the track you made/i, has("plotter")],
  [/raw-water (valve|strainer)/i, engine("inboard", "sterndrive")],
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
  [/anchor light|light pole/i, has("light-pole")],
  [/drain plug|plug out|plug in\b/i, { any: [has("plug"), trailer, has("charger-socket")] }],
  [/drain plug/i, has("plug")],
  [/breaker/i, { any: [has("breakers"), has("charger-socket"), { equals: "trailer.brakes", value: "electric" }] }],
  [/bilge pump/i, has("pump")],
  [/battery switch/i, has("selector")],
  [/cooling water stream|tell-tale/i, engine("outboard", "kicker")],
];

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
    const card = cards.find(({ id }) => id === "start")!;
    const step = JSON.stringify(card).match(/Open the lid and smell[^"]*/)![0];
    for (const text of [...said, step]) expect(text.search(/smell/i)).toBeLessThan(text.search(/blower/i));
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
    const kinds = new Set<string>([...partKinds, "trailer"]);
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
