import { z } from "zod";
import type { Rig } from "../core/rig/index.ts";

/**
 * Steps played through: what each does to boat, engine, trailer and car, and what must never be. The facts are
 * `content/step-facts.json`, by sequence (or card) and step; nothing here is shown to anybody.
 */
const stateShape = {
  /** Where the boat is: on its trailer on land, on its trailer in the water, or floating. */
  place: z.enum(["land", "mark", "afloat"]),
  /** The drain plug. */
  plug: z.enum(["in", "out"]),
  /** Battery switches. */
  power: z.boolean(),
  /** The engine space was smelled at, with everything off. */
  smelled: z.boolean(),
  /** The blower has run, and runs. */
  blown: z.boolean(),
  engine: z.enum(["off", "running"]),
  /** Outboards and drives. */
  leg: z.enum(["up", "down", "support"]),
  /** The raw-water valve. */
  valve: z.enum(["open", "closed"]),
  /** Flushing water at the engine. */
  hose: z.boolean(),
  lanyard: z.boolean(),
  neutral: z.boolean(),
  /** Somebody at the helm. */
  helm: z.boolean(),
  strap: z.boolean(),
  chain: z.boolean(),
  transomStraps: z.boolean(),
  /** Tied to the dock, or held by a line in a hand. */
  tied: z.boolean(),
  /** Coupler on the ball, latched and pinned. */
  coupled: z.boolean(),
  safetyChains: z.boolean(),
  breakaway: z.boolean(),
  chocked: z.boolean(),
  jack: z.enum(["up", "down"]),
  trailerPlug: z.enum(["in", "out"]),
  reversePin: z.enum(["in", "out"]),
  /** The car at the water's edge or beyond: what follows is downhill. */
  atWater: z.boolean(),
} as const;
const stateSchema = z.strictObject(stateShape);
export type StepsState = z.infer<typeof stateSchema>;

const factSchema = z.strictObject({
  /** What has to be so before it, beside what holds always. */
  needs: stateSchema.partial().optional(),
  sets: stateSchema.partial().optional(),
  /** Who does it is away from the helm meanwhile. */
  isAway: z.literal(true).optional(),
  /** The car backs the trailer up, or drives with it. */
  drives: z.enum(["back", "road", "out"]).optional(),
  /** Only where the words ask first: on land. */
  onlyOnLand: z.literal(true).optional(),
  /** Battery on for it and off again, as its words say, after a smell where there is a blower. */
  powersItself: z.literal(true).optional(),
  /** The engine runs in it on flushing water, and is off before the water is. */
  runs: z.literal(true).optional(),
  /** Started by its cord: no power is needed. */
  byCord: z.literal(true).optional(),
});
export type StepFact = z.infer<typeof factSchema>;
export const stepFactsSchema = z.record(z.string(), z.record(z.string(), factSchema));

/** One step as it is told: what names it in the facts, who does it, and its words. */
export interface PlayedStep {
  readonly id: string;
  readonly by: "skipper" | "helper";
}

interface PlayedBoat {
  readonly rig: Rig;
  readonly isAlone: boolean;
}

const tilts = ({ engines }: Rig) => engines.some(({ kind }) => kind !== "inboard");
const has = ({ parts }: Rig, wanted: string) => parts.some(({ kind }) => kind === wanted);
const hasPlug = (rig: Rig) => has(rig, "plug");
const hasBlower = (rig: Rig) => has(rig, "blower");
const hasValve = ({ parts, engines }: Rig) =>
  parts.some(({ kind }) => kind === "through-hull") &&
  engines.some(({ kind }) => kind === "inboard" || kind === "sterndrive");

/** What must never be, whatever step was last. */
const nevers: readonly [string, (state: StepsState, boat: PlayedBoat) => boolean][] = [
  [
    "the engine runs without cooling water",
    ({ engine, hose, place, leg, valve }, { rig }) =>
      engine === "running" &&
      !hose &&
      (place === "land" || (tilts(rig) && leg !== "down") || (hasValve(rig) && valve !== "open")),
  ],
  ["the engine runs on its travel support", ({ engine, leg }) => engine === "running" && leg === "support"],
  ["the engine runs and nobody is at the helm", ({ engine, helm, hose }) => engine === "running" && !helm && !hose],
  [
    "the boat is in the water with its plug out",
    ({ place, plug }, { rig }) => place !== "land" && plug === "out" && hasPlug(rig),
  ],
  [
    "the boat drifts: no strap, no line, no engine",
    ({ place, strap, tied, engine }) => place !== "land" && !strap && !tied && engine === "off",
  ],
];

/** What must hold before a step of a kind. */
function findBroken(
  before: StepsState,
  fact: StepFact,
  { rig, isAlone }: PlayedBoat,
  by: PlayedStep["by"],
): string | null {
  const { sets = {}, drives } = fact;
  const hasPower = before.power || fact.powersItself === true;
  const starts = fact.runs === true || (sets.engine === "running" && before.engine === "off");
  if (fact.isAway === true && before.engine === "running" && (isAlone || by === "skipper"))
    return "whoever is at the helm leaves it with the engine running";
  if (tilts(rig) && sets.leg !== undefined && sets.leg !== before.leg && !hasPower) return "it tilts without power";
  if (
    sets.leg !== undefined &&
    sets.leg !== before.leg &&
    sets.leg !== "down" &&
    before.engine === "running" &&
    sets.engine !== "off"
  )
    return "it tilts up with the engine running";
  if (sets.power === true && hasBlower(rig) && !before.smelled && !before.power && sets.engine === undefined)
    return "power comes before the smell";
  if (sets.blown === true && !before.power) return "the blower is dead: no power yet";
  if (starts) {
    if (!before.power && fact.byCord !== true) return "it starts without power";
    if (hasBlower(rig) && !before.blown) return "it starts before the blower";
    if (!before.neutral && sets.neutral !== true && fact.runs !== true) return "it starts out of neutral";
  }
  if (drives === "back" && rig.trailer?.lockOut === "reverse-wire" && before.trailerPlug === "out" && !before.atWater)
    return "it backs up without its reverse wire";
  if (drives === "back" && rig.trailer?.lockOut === "pin" && before.reversePin === "out")
    return "it backs up without its pin";
  if (drives === "road" && before.reversePin === "in") return "it goes on the road with the reverse pin in";
  if (drives === "road" && before.trailerPlug === "out") return "it goes on the road without lights";
  if (starts && has(rig, "lanyard") && fact.runs !== true && !before.lanyard && sets.lanyard !== true)
    return "it starts and the lanyard is on nobody";
  if (drives !== undefined && before.chocked && sets.chocked !== false) return "it moves with chocks in";
  if (drives === "road" && rig.trailer?.brakes !== "none" && !before.breakaway)
    return "it goes on the road without its breakaway cable";
  if (drives !== undefined && !before.coupled) return "it moves and is not coupled";
  if (drives !== undefined && before.jack === "down") return "it moves on its jack";
  if (drives !== undefined && before.place !== "afloat" && !before.strap)
    return "the trailer moves and no strap holds the boat";
  if ((drives === "out" || drives === "road") && before.place !== "afloat" && !before.chain)
    return "the trailer moves out and no chain holds the boat";
  if (drives === "road" && rig.trailer !== null && !before.safetyChains)
    return "it goes on the road without its chains";
  if (sets.place === "mark" && before.place === "land" && before.transomStraps) return "it floats strapped down";
  if (sets.strap === false && before.place === "land") return "the strap comes off on land";
  if (sets.chocked === false && !before.coupled) return "the chocks go before it is coupled";
  if (
    sets.trailerPlug === "out" &&
    rig.trailer?.lockOut === "reverse-wire" &&
    !before.atWater &&
    before.place === "land"
  )
    return "the reverse wire is pulled before the water";
  return null;
}

/** The first thing that is wrong in these steps on this boat, in words; null where all is well. */
export function playSteps(
  steps: readonly PlayedStep[],
  facts: Readonly<Record<string, StepFact>>,
  from: StepsState,
  boat: PlayedBoat,
): string | null {
  let state = from;
  for (const { id, by } of steps) {
    const fact = facts[id];
    if (fact === undefined) return `${id}: no fact says what it does`;
    if (fact.onlyOnLand === true && state.place !== "land") continue;
    for (const [name, wanted] of Object.entries(fact.needs ?? {}))
      if (state[name as keyof StepsState] !== wanted && (name !== "leg" || tilts(boat.rig)))
        return `${id}: ${name} has to be ${wanted} before it`;
    const broken = findBroken(state, fact, boat, by);
    if (broken !== null) return `${id}: ${broken}`;
    state = { ...state, ...fact.sets };
    if (!tilts(boat.rig)) state = { ...state, leg: "down" };
    for (const [says, isSo] of nevers) if (isSo(state, boat)) return `${id}: ${says}`;
  }
  return null;
}
