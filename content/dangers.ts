import { regions } from "../core/region/index.ts";
import { isMet, type Rig } from "../core/rig/index.ts";
import { buildSequence } from "../core/sequence/index.ts";
import { fillText, fillTopic } from "../core/topic/index.ts";
import { cards, faultContent, makeReady, rigTemplates, sequences, topics } from "./index.ts";

/** What hurts people and sinks boats: a sentence with one of these is read again whenever content changes. */
export const dangerWords = [
  "fuel",
  "gas",
  "spark",
  "fire",
  "carbon monoxide",
  "propeller",
  "lanyard",
  "blower",
  "jack",
  "winch",
  "shore power",
  "in the water",
  "water coming in",
  "drain plug",
  "hot",
] as const;

/** What is told on a boat: where it stands, and its words. */
function listTold(rig: Rig): [string, string][] {
  const idiom = regions.us;
  const fill = (text: string) => fillText(text, rig, idiom);
  const isHere = ({ when }: { when?: Parameters<typeof isMet>[0] | undefined }) =>
    when === undefined || isMet(when, rig);
  return [
    ...topics.filter(isHere).flatMap((topic): [string, string][] => {
      const ways = topic.schools?.map(({ id }) => ({ [topic.id]: id })) ?? [{}];
      return ways.flatMap((chosen) => {
        const { say, show, does, wrong, cautions } = fillTopic(topic, rig, idiom, chosen);
        return [...cautions, say, show, does, wrong].map((text): [string, string] => [`topic ${topic.id}`, text]);
      });
    }),
    ...cards
      .filter(isHere)
      .flatMap(({ id, sections }) =>
        sections.flatMap((section): [string, string][] =>
          "items" in section
            ? section.items
                .filter(isHere)
                .map((item) => [`card ${id}`, fill("if" in item ? `${item.if}: ${item.do}` : item.say)])
            : [],
        ),
      ),
    ...sequences.flatMap((sequence) =>
      (["alone", "partner"] as const).flatMap((way) =>
        (["winch", "drive"] as const).flatMap((method): [string, string][] => {
          const built = buildSequence(sequence, rig, { way, method }, idiom);
          if (built === null) return [];
          const steps = built.phases.flatMap((phase) => phase.steps);
          return [
            ...built.cautions,
            ...steps.flatMap(({ caution, say, other, proof }) =>
              [caution, say, other, proof].flatMap((text) => text ?? []),
            ),
          ].map((text) => [`steps ${sequence.id}`, text]);
        }),
      ),
    ),
    ...faultContent.kinds
      .filter(isHere)
      .flatMap(({ id, caution, check, mend }) =>
        [caution ?? [], check, mend].flat().map((text): [string, string] => [`finder ${id}`, text]),
      ),
    ...faultContent.functions
      .filter(isHere)
      .flatMap(({ id, caution, asks }) =>
        [caution ?? [], asks].flat().map((text): [string, string] => [`finder ${id}`, text]),
      ),
    ...faultContent.urgent.flatMap(({ id, do: steps }) =>
      steps.map((text): [string, string] => [`urgent ${id}`, text]),
    ),
    ...makeReady
      .filter(isHere)
      .flatMap(({ id, title, caution }) =>
        [caution ?? [], title].flat().map((text): [string, string] => [`make-ready ${id}`, text]),
      ),
  ];
}

/** Sentences, word by word, each once with the boats that are told it. Markdown. */
export function printDangers(): string {
  const rigs = Object.values<Rig>(rigTemplates);
  const boatsOf = new Map<string, Set<string>>();
  for (const rig of rigs)
    for (const [place, text] of listTold(rig))
      for (const sentence of text.split(/(?<=[.?])\s+/)) {
        const key = `${place} | ${sentence}`;
        boatsOf.set(key, (boatsOf.get(key) ?? new Set()).add(rig.model));
      }
  const said = [...boatsOf].map(([key, boats]) => {
    const [place, sentence] = key.split(" | ") as [string, string];
    return {
      sentence,
      line: `- ${sentence} _${place}${boats.size === rigs.length ? "" : `; ${[...boats].join(", ")}`}_`,
    };
  });
  const parts = dangerWords.map((word) => {
    const own = said.filter(({ sentence }) => new RegExp(`\\b${word}`, "i").test(sentence));
    return `## ${word}\n\n${own.map(({ line }) => line).join("\n")}\n`;
  });
  return [
    "# What hurts: every sentence with a word of danger\n",
    "Made by `npm run dangers` from the content that ships, as each of the seven boats is told it in a store of the United States.",
    "Whoever changes content makes it anew and reads it from first to last, beside the boats; a test holds it to the content.\n",
    ...parts,
  ].join("\n");
}
