import { createTell, sayPhrase } from "../language/index.ts";
import { type Idiom, spellText } from "../region/index.ts";
import { nameBattery, type Rig, sayPlace } from "../rig/index.ts";

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
export function listStartHelp(rig: Rig, idiom: Idiom): StartHelp[] {
  const own = rig.batteries.filter(({ use }) => use !== "bow-motor");
  const [weak] = own.filter(({ use }) => use === "start").length > 0 ? own.filter(({ use }) => use === "start") : own;
  if (weak === undefined) return [];
  const bank = createBankHelp(rig, own, idiom);
  return [...(bank === null ? [] : [bank]), createLeadHelp(rig, weak, idiom)];
}

/** Names in a sentence, in the language that is told in. */
const joinTold = (tell: (phrase: string, ...values: readonly string[]) => string, names: readonly string[]) =>
  names.length < 2 ? (names[0] ?? "") : tell("{0} and {1}", names.slice(0, -1).join(", "), names.at(-1)!);

/** Says phrases in the idiom's language, else in its spelling. */
const createTeller = ({ book, spelling }: Idiom) => createTell(book ?? null, (text) => spellText(text, spelling));

function createBankHelp(rig: Rig, own: readonly Battery[], idiom: Idiom): StartHelp | null {
  const tell = createTeller(idiom);
  const parallel = rig.powerSwitches.find(({ positions }) =>
    positions.some(({ label }) => /combine|parallel/i.test(label)),
  );
  const selector = rig.powerScheme === "one-two-both" ? rig.powerSwitches[0] : undefined;
  const by = selector ?? parallel;
  if (own.length < 2 || by === undefined) return null;
  const joined = by.positions.find(({ label }) => /both|all|combine|parallel|1\s*[+&]\s*2/i.test(label));
  if (joined === undefined) return null;
  // A combine switch goes back once the engine runs; a selector charges both under way, and at rest the house battery stands alone.
  const apart =
    selector === undefined
      ? by.positions.find(({ label }) => /^normal$/i.test(label))
      : (by.positions.find((each) => each !== joined && /^house/i.test(each.does)) ??
        by.positions.find(({ label }) => label === "1"));
  const others = rig.powerSwitches.filter((each) => each !== by).map(({ label }) => label);
  return {
    title: tell("Start from another bank"),
    cautions: [
      tell("Smell of fuel: touch no switch and no key, lids open, everyone off, call us."),
      tell("Never turn a battery switch through Off while an engine runs: it can destroy the alternator."),
    ],
    steps: [
      tell("Key off, and off on the panel all that can wait: lights, screens, stereo."),
      tell("Turn {0} to {1} ({2}).", by.label, joined.label, placeOf(rig, by.part, idiom)),
      ...(others.length === 0 ? [] : [tell("Leave {0} on.", joinTold(tell, others))]),
      tell("Lever in neutral, lanyard in. Turn the key for ten seconds at most, then rest it for a minute."),
      ...(apart === undefined
        ? []
        : [
            tell(
              selector === undefined
                ? "As soon as it runs: {0} back to {1}. Then run the engine for an hour."
                : "Under way it charges both. When you stop: key off, and {0} to {1}, so that one bank stays in hand.",
              by.label,
              apart.label,
            ),
          ]),
      tell("It was flat for a reason: look what was left on, then a hand on each clamp."),
    ],
  };
}

function createLeadHelp(rig: Rig, weak: Battery, idiom: Idiom): StartHelp {
  const tell = createTeller(idiom);
  const name = tell.label(nameBattery(weak));
  return {
    title: tell("Start with jump leads"),
    cautions: [
      tell("Batteries give off gas that burns: lids open, no flame, no sparks near them, a minute to air first."),
      tell("Positive to positive. Crossed leads burn wires and eyes."),
      ...(weak.chemistry === "lifepo4"
        ? [tell("A lithium bank is not jumped from another kind unless its maker allows it.")]
        : []),
      tell("Both of the same voltage, and never a frozen or swollen battery."),
    ],
    steps: [
      tell("Everything off on both sides. {0}: {1}.", name, placeOf(rig, weak.part, idiom)),
      tell("Red to the plus of the full battery, its other end to the plus of the flat one."),
      tell("Black to the minus of the full battery."),
      tell("The last clamp on bare metal of the engine, away from the battery and from anything that turns."),
      tell("Wait five minutes. Then start, ten seconds at most."),
      tell("Once it runs, leads off in the other order: the engine's clamp first."),
      tell("Run it for an hour at least, and have the battery looked at. The engine's manual comes first."),
    ],
  };
}

function placeOf(rig: Rig, part: string, { book }: Idiom): string {
  const found = rig.parts.find(({ id }) => id === part);
  return found === undefined ? sayPhrase(book, "where you were shown") : sayPlace(rig, found, book);
}
