import { describe, expect, it } from "vitest";
import { regions } from "../core/region/index.ts";
import { isMet, type Rig } from "../core/rig/index.ts";
import { buildSequence, type StepWay } from "../core/sequence/index.ts";
import { cards, rigTemplates, sequences } from "./index.ts";
import { type PlayedStep, playSteps, type StepsState, stepFactsSchema } from "./playSteps.ts";
import factsJson from "./step-facts.json" with { type: "json" };

const facts = stepFactsSchema.parse(factsJson);
const rigs = Object.values(rigTemplates);
const has = (rig: Rig, kind: string) => rig.parts.some((part) => part.kind === kind);

/** On its trailer behind the car, as it came off the road: strapped, everything off. */
const fromRoad = (rig: Rig): StepsState => ({
  place: "land",
  plug: "out",
  power: !has(rig, "selector"),
  smelled: false,
  blown: false,
  engine: "off",
  leg: has(rig, "travel-support") ? "support" : "up",
  valve: "closed",
  hose: false,
  lanyard: false,
  neutral: false,
  helm: false,
  strap: true,
  chain: true,
  transomStraps: true,
  tied: false,
  coupled: true,
  safetyChains: true,
  breakaway: true,
  chocked: false,
  jack: "up",
  trailerPlug: "in",
  reversePin: "out",
  atWater: false,
});
/** In the yard, off the car. */
const atHome = (rig: Rig): StepsState => ({
  ...fromRoad(rig),
  strap: false,
  chain: false,
  transomStraps: false,
  coupled: false,
  safetyChains: false,
  breakaway: false,
  jack: "down",
  trailerPlug: "out",
  reversePin: rig.trailer?.lockOut === "pin" ? "in" : "out",
  leg: "down",
});
/** Coming home on the water. */
const underWay = (rig: Rig): StepsState => ({
  ...fromRoad(rig),
  place: "afloat",
  plug: "in",
  power: true,
  smelled: true,
  blown: true,
  engine: "running",
  leg: "down",
  valve: "open",
  lanyard: true,
  neutral: true,
  helm: true,
  strap: false,
  chain: false,
  transomStraps: false,
});
/** At its berth, everything off. */
const atBerth = (rig: Rig): StepsState => ({
  ...fromRoad(rig),
  place: "afloat",
  plug: "in",
  leg: "up",
  helm: true,
  strap: false,
  chain: false,
  transomStraps: false,
  tied: true,
});
/** After a day out: what was on is on, the engine off. */
const cameHome = (rig: Rig, place: "land" | "afloat"): StepsState => ({
  ...underWay(rig),
  engine: "off",
  smelled: false,
  blown: false,
  neutral: true,
  place,
  tied: place === "afloat",
  leg: "up",
});

const ways: StepWay[] = (["alone", "partner"] as const).flatMap((way) =>
  (["winch", "drive"] as const).map((method) => ({ way, method })),
);

function playSequence(id: string, rig: Rig, way: StepWay, from: StepsState): string | null {
  const built = buildSequence(sequences.find((each) => each.id === id)!, rig, way, regions.us);
  if (built === null) return null;
  const steps = built.phases.flatMap((phase) => phase.steps);
  return playSteps(steps, facts[id]!, from, { rig, isAlone: way.way === "alone" });
}

/** The steps of a card, each named by how its words begin. */
function listCardSteps(id: "start" | "flush", rig: Rig): PlayedStep[] {
  const names = Object.keys(facts[id]!);
  return cards
    .find((card) => card.id === id)!
    .sections.flatMap((section) => (section.kind === "steps" ? section.items : []))
    .filter(({ when }) => when === undefined || isMet(when, rig))
    .map(({ say }) => ({ id: names.find((name) => say.startsWith(name)) ?? say, by: "skipper" }));
}

describe.each(rigs.map((rig) => [rig.model, rig] as const))("%s, played through", (_, rig) => {
  it.each(ways)("hitched up, launched and loaded, $way by $method, nothing goes wrong", (way) => {
    expect(playSequence("hitch", rig, way, atHome(rig))).toBeNull();
    expect(playSequence("launch", rig, way, fromRoad(rig))).toBeNull();
    expect(playSequence("load", rig, way, { ...underWay(rig), trailerPlug: "in" })).toBeNull();
  });

  it.each(["land", "afloat"] as const)("put away and flushed on %s", (place) => {
    for (const way of ways) expect(playSequence("put-away", rig, way, cameHome(rig, place))).toBeNull();
    const boat = { rig, isAlone: true };
    expect(playSteps(listCardSteps("flush", rig), facts.flush!, cameHome(rig, place), boat)).toBeNull();
  });

  it("started from its berth and on its trailer in the water", () => {
    const boat = { rig, isAlone: false };
    const steps = listCardSteps("start", rig);
    expect(playSteps(steps, facts.start!, atBerth(rig), boat)).toBeNull();
    const atMark = { ...fromRoad(rig), place: "mark", plug: "in", helm: true, chain: false, leg: "up" } as const;
    expect(playSteps(steps, facts.start!, atMark, boat)).toBeNull();
  });
});

describe("what is played through", () => {
  const ferrin = rigTemplates["ferrin-20"];
  const wending = rigTemplates["wending-23"];
  const stepsOf = (id: string, rig: Rig, way: StepWay) =>
    buildSequence(sequences.find((each) => each.id === id)!, rig, way, regions.us)!.phases.flatMap(
      ({ steps }) => steps,
    );
  const alone: StepWay = { way: "alone", method: "winch" };
  const play = (steps: readonly PlayedStep[], id: string, rig: Rig, from: StepsState, isAlone = true) =>
    playSteps(steps, facts[id]!, from, { rig, isAlone });
  /** The steps with one of them moved before another. */
  const move = (steps: readonly PlayedStep[], what: string, before: string) => {
    const moved = steps.find(({ id }) => id === what)!;
    return steps.flatMap((step) => (step === moved ? [] : step.id === before ? [moved, step] : [step]));
  };

  it("has no fact without a step, and no step without a fact", () => {
    for (const id of ["hitch", "launch", "load", "put-away"]) {
      const named = sequences
        .find((each) => each.id === id)!
        .phases.flatMap(({ steps }) => steps.map((step) => step.id));
      expect(Object.keys(facts[id]!).sort()).toEqual([...named].sort());
    }
    expect(play([{ id: "sing", by: "skipper" }], "launch", ferrin, fromRoad(ferrin))).toMatch(/no fact/);
  });

  it("finds each fault that once stood here", () => {
    const card = listCardSteps("start", ferrin);
    expect(play(move(card, "Blower on", "Battery switches as"), "start", ferrin, atBerth(ferrin))).toMatch(
      /blower is dead/,
    );
    expect(play(move(card, "Engine or drive down", "Battery switches as"), "start", ferrin, atBerth(ferrin))).toMatch(
      /power/,
    );
    expect(play(move(card, "Battery switches as", "Open the lid and smell"), "start", ferrin, atBerth(ferrin))).toMatch(
      /smell/,
    );
    const launch = stepsOf("launch", ferrin, alone);
    const started = move(
      move(move(launch, "valve-alone", "strap-off-alone"), "down-alone", "strap-off-alone"),
      "lanyard-alone",
      "strap-off-alone",
    );
    expect(play(started, "launch", ferrin, fromRoad(ferrin))).toMatch(/tied|helm/);
    expect(play(move(launch, "pin-out", "back-alone"), "launch", ferrin, fromRoad(ferrin))).toMatch(/without its pin/);
    const wired = stepsOf("launch", wending, alone);
    expect(play(move(wired, "unplug-at-water", "to-edge"), "launch", wending, fromRoad(wending))).toMatch(
      /atWater|reverse wire/,
    );
    const load = stepsOf("load", ferrin, alone);
    expect(
      play(
        load.filter(({ id }) => id !== "alongside"),
        "load",
        ferrin,
        underWay(ferrin),
      ),
    ).toMatch(/engine has to be off/);
    const unclipped = card.filter(({ id }) => id !== "Kill switch lanyard");
    expect(play(unclipped, "start", ferrin, atBerth(ferrin))).toMatch(/lanyard/);
    const hitch = stepsOf("hitch", wending, alone);
    const without = (id: string) =>
      play(
        hitch.filter((step) => step.id !== id),
        "hitch",
        wending,
        atHome(wending),
      );
    expect(without("unchock")).toMatch(/chocks in/);
    expect(without("breakaway")).toMatch(/breakaway/);
    const away: StepsState = cameHome(ferrin, "afloat");
    const pulled = playSteps(
      stepsOf("put-away", ferrin, alone),
      { ...facts["put-away"], plug: { sets: { plug: "out" } } },
      away,
      { rig: ferrin, isAlone: true },
    );
    expect(pulled).toMatch(/plug out/);
    const unblown = stepsOf("put-away", ferrin, alone).filter(({ id }) => id !== "flush-blower");
    expect(play(unblown, "put-away", ferrin, cameHome(ferrin, "land"))).toMatch(/before the blower/);
  });
});
