import { readFileSync } from "node:fs";
import { arrivalChecks, cards, faultContent, makeReady, sequences, topics } from "./index.ts";

/** A place that tells somebody to do something: a topic, a line of a card, a step, a look of the finder. */
export interface SaidPlace {
  /** "topic/blower", "card/start/9", "step/launch/smell", "finder/primer-bulb", "power/3". */
  readonly id: string;
  /** All that it says, sentence after sentence. */
  readonly text: string;
}

const join = (...texts: readonly (string | undefined)[]) => texts.filter((text) => text !== undefined).join(" ");

/** Helps of the power map are phrases in core; they are read there, as they are written. */
function readPowerHelp(): SaidPlace[] {
  const source = readFileSync(new URL("../core/power/startSteps.ts", import.meta.url), "utf8");
  return [...source.matchAll(/"([A-Z{][^"]{20,})"/g)].map(([, text], i) => ({ id: `power/${i + 1}`, text: text! }));
}

/** Every place of the content that ships, in its English words with their braces. */
export function listSaidPlaces(): SaidPlace[] {
  return [
    ...topics.map(({ id, title, say, show, does, wrong, why, cautions, schools = [] }) => ({
      id: `topic/${id}`,
      text: join(
        `${title}.`,
        say,
        show,
        does,
        wrong,
        why,
        ...cautions,
        ...schools.flatMap((school) => [school.say, school.show, school.does, school.tradeOff]),
      ),
    })),
    ...cards.flatMap(({ id, sections }) =>
      sections.flatMap((section, i) =>
        "items" in section
          ? section.items.map((item, j) => ({
              id: `card/${id}/${i + 1}.${j + 1}`,
              text: "if" in item ? `${item.if}: ${item.do}` : item.say,
            }))
          : [],
      ),
    ),
    ...sequences.flatMap(({ id, cautions, phases }) => [
      ...cautions.map((text, i) => ({ id: `step/${id}/caution-${i + 1}`, text })),
      ...phases.flatMap(({ steps }) =>
        steps.map(({ id: step, say, other, proof, caution }) => ({
          id: `step/${id}/${step}`,
          text: join(say, other, proof, caution),
        })),
      ),
    ]),
    ...faultContent.kinds.map(({ id, check, mend, caution }) => ({
      id: `finder/${id}`,
      text: join(check, mend, caution),
    })),
    ...faultContent.functions.map(({ id, asks, caution }) => ({ id: `tries/${id}`, text: join(asks, caution) })),
    ...faultContent.urgent.map(({ id, says, do: steps }) => ({ id: `urgent/${id}`, text: join(`${says}.`, ...steps) })),
    ...makeReady.map(({ id, title, why, caution }) => ({ id: `ready/${id}`, text: join(title, why, caution) })),
    ...arrivalChecks.map(({ id, title, why }) => ({ id: `arrival/${id}`, text: join(title, why) })),
    ...readPowerHelp(),
  ];
}
