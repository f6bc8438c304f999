import { nameBattery, type Rig, sayPlace } from "../rig/index.ts";
import { joinWords } from "../text/index.ts";

/** How an engine is started when its own battery will not: cautions first, then steps, for this boat's switches and places. */
export interface StartHelp {
  readonly title: string;
  readonly cautions: readonly string[];
  readonly steps: readonly string[];
}

type Battery = Rig["batteries"][number];

/**
 * Starting from another bank, and with jump leads. The usual order of the trade; where the engine's manual says otherwise, the
 * manual comes first. A boat with one bank has no other one to start from.
 */
export function listStartHelp(rig: Rig): StartHelp[] {
  const own = rig.batteries.filter(({ use }) => use !== "bow-motor");
  const [weak] = own.filter(({ use }) => use === "start").length > 0 ? own.filter(({ use }) => use === "start") : own;
  if (weak === undefined) return [];
  const bank = createBankHelp(rig, own);
  return [...(bank === null ? [] : [bank]), createLeadHelp(rig, weak)];
}

const manual = "The engine's manual comes first.";

function createBankHelp(rig: Rig, own: readonly Battery[]): StartHelp | null {
  const parallel = rig.powerSwitches.find(({ positions }) =>
    positions.some(({ label }) => /combine|parallel/i.test(label)),
  );
  const selector = rig.powerScheme === "one-two-both" ? rig.powerSwitches[0] : undefined;
  const by = selector ?? parallel;
  if (own.length < 2 || by === undefined) return null;
  const joined = by.positions.find(({ label }) => /both|all|combine|parallel|1\s*[+&]\s*2/i.test(label));
  const apart = by.positions.find(({ label }) => /^(1|normal|off)$/i.test(label) && !/^off$/i.test(label));
  if (joined === undefined) return null;
  const others = rig.powerSwitches.filter((each) => each !== by).map(({ label }) => label);
  return {
    title: "Start from another bank",
    cautions: [
      "Smell of fuel: no switch, no key. Find it first.",
      "Never turn a battery switch through Off while an engine runs: it can destroy the alternator.",
    ],
    steps: [
      "Key off, and off on the panel all that can wait: lights, screens, stereo.",
      `Turn ${by.label} to ${joined.label} (${placeOf(rig, by.part)}).`,
      ...(others.length === 0 ? [] : [`Leave ${joinWords(others)} on.`]),
      "Lever in neutral, lanyard in. Turn the key for ten seconds at most, then rest it for a minute.",
      ...(apart === undefined
        ? []
        : [
            `Once it runs, let it charge for a while. Then ${by.label} back to ${apart.label}, so that one bank stays in hand.`,
          ]),
      "It was flat for a reason: look what was left on, then a hand on each clamp.",
    ],
  };
}

function createLeadHelp(rig: Rig, weak: Battery): StartHelp {
  const name = nameBattery(weak);
  return {
    title: "Start with jump leads",
    cautions: [
      "Batteries give off gas that burns: lids open, no flame, no sparks near them, a minute to air first.",
      "Positive to positive. Crossed leads burn wires and eyes.",
      ...(weak.chemistry === "lifepo4"
        ? ["A lithium bank is not jumped from another kind unless its maker allows it."]
        : []),
      "Both of the same voltage, and never a frozen or swollen battery.",
    ],
    steps: [
      `Everything off on both sides. ${name}: ${placeOf(rig, weak.part)}.`,
      "Red to the plus of the full battery, its other end to the plus of the flat one.",
      "Black to the minus of the full battery.",
      "The last clamp on bare metal of the engine, away from the battery and from anything that turns.",
      "Wait five minutes. Then start, ten seconds at most.",
      "Once it runs, leads off in the other order: the engine's clamp first.",
      `Run it for an hour at least, and have the battery looked at. ${manual}`,
    ],
  };
}

function placeOf(rig: Rig, part: string): string {
  const found = rig.parts.find(({ id }) => id === part);
  return found === undefined ? "where you were shown" : sayPlace(rig, found);
}
