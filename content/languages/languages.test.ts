import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { type CardBlock, createCards } from "../../core/card/index.ts";
import { buildFaultModel } from "../../core/faults/index.ts";
import { listBraces } from "../../core/language/index.ts";
import { bilgeChoices, oilChoices, tyreNames } from "../../core/measure/index.ts";
import { listStartHelp } from "../../core/power/index.ts";
import { regions } from "../../core/region/index.ts";
import { isMet, type Rig } from "../../core/rig/index.ts";
import { fillTopic, systemNames } from "../../core/topic/index.ts";
import { entryMarkWords, laterWords, remoteWords } from "../../core/walk/index.ts";
import { briefing, verdictWords } from "../../server/pdf/floatPlanPdf.ts";
import { outcomeWords } from "../../server/pdf/historyPdf.ts";
import { claimWords, signWords, unsignedWords } from "../../server/pdf/record/proof.ts";
import { markWords, owedWords, severityWords } from "../../server/pdf/record/sheet.ts";
import { owedWords as shownOwedWords } from "../../web/owed/owedWords.ts";
import {
  boatCarePack,
  breakInPacks,
  cards,
  faultContent,
  gearPacks,
  rigTemplates,
  servicePacks,
  topics,
} from "../index.ts";
import { phraseBooks } from "./index.ts";

const rigs: readonly Rig[] = Object.values(rigTemplates);
const musts = topics.filter(({ must }) => must);
const idiom = regions.metric;

const boatOf = (rig: Rig) => ({
  rig,
  boatName: "Tern",
  hull: "QXR00001A626",
  store: "Slack Water Boats",
  phone: "555 0100",
  breakInPacks,
  servicePacks,
  gear: new Map(),
});

const wordsOf = (block: CardBlock): string[] => {
  const title = block.title === undefined ? [] : [block.title];
  if (block.kind === "places") return [...title, ...block.marks.flatMap(({ label, where }) => [label, where])];
  if (block.kind === "table") return [...title, ...block.head, ...block.rows.flat()];
  if (block.kind === "pairs") return [...title, ...block.rows.flat()];
  return [...title, ...block.items];
};

/** What is the same in both: figures, names, what is written on the boat, and words that both languages have. */
const isSame = (text: string) => !/[a-z]{3}/i.test(text.replace(/\b(kPa|Tern|rpm|VHF|USB)\b/g, ""));
const shared: ReadonlySet<string> = new Set([
  ...["Slack Water Boats", "QXR00001A626", "Position", "Normal", "Thermostat", "Thermostats", "Flaps", "Radio VHF"],
  // Makers and models are names.
  ...rigs.map(({ maker, model, modelYear }) => `Tern, ${maker} ${model} ${modelYear}`),
  // What stands on a switch is found by what stands on it.
  ...rigs.flatMap(({ panel, powerSwitches }) => [
    ...powerSwitches.flatMap(({ positions }) => positions.map(({ label }) => label)),
    ...panel.flatMap(({ label, note, positions }, i) => [
      label ?? "",
      note ?? "",
      `${i + 1}  ${label}`,
      ...positions.flatMap((position) => [position.label, `${label}, ${position.label}`]),
    ]),
  ]),
]);

describe.each(phraseBooks)("words in $language", (book) => {
  it("keep the braces of what they stand for", () => {
    const differing = Object.entries(book.texts).filter(
      ([text, words]) => listBraces(text).join() !== listBraces(words).join(),
    );
    expect(differing).toEqual([]);
  });

  it.each(rigs.map((rig) => [rig.model, rig] as const))("say every must of %s, with places of its own", (_, rig) => {
    const told = musts.filter(({ when }) => isMet(when, rig));
    expect(told.length).toBeGreaterThan(10);
    const left = told.flatMap((topic) => {
      const [english, other] = [fillTopic(topic, rig, idiom), fillTopic(topic, rig, { ...idiom, book })];
      const pairs = (["title", "why", "say", "show", "does", "wrong"] as const).map((key) => [
        english[key],
        other[key],
      ]);
      const cautions = english.cautions.map((caution, i) => [caution, other.cautions[i]]);
      return [...pairs, ...cautions].filter(([one, two]) => one === two || /[{}]/.test(two!));
    });
    expect(left).toEqual([]);
  });

  it.each(rigs.map((rig) => [rig.model, rig] as const))("say every card of %s", (_, rig) => {
    const boat = boatOf(rig);
    const [english, other] = [
      createCards(cards, { ...boat, idiom }),
      createCards(cards, { ...boat, idiom: { ...idiom, book } }),
    ];
    expect(other.map(({ id }) => id)).toEqual(english.map(({ id }) => id));
    const left = english.flatMap((card, i) => {
      const [ours, theirs] = [card, other[i]!].map((each) => [
        each.title,
        each.lead ?? "",
        ...each.blocks.flatMap(wordsOf),
      ]);
      return ours!.filter((text, j) => text === theirs![j] && !isSame(text) && !shared.has(text));
    });
    expect([...new Set(left)]).toEqual([]);
  });
});

describe("words of another language", () => {
  it("are wholly the one or the other: a text that was changed has no place in another language in it", () => {
    const [book] = phraseBooks;
    const rig = rigTemplates["wending-23"];
    const extinguisher = topics.find(({ id }) => id === "extinguisher")!;
    const told = fillTopic({ ...extinguisher, say: "It is {at:extinguisher}, as ever." }, rig, { ...idiom, book });
    expect(told.say).toMatch(/^It is (in|on|at|under|behind|beside|bracket|clip)/i);
    expect(told.title).toMatch(/Extincteur/);
  });
});

/** Words that papers look up in a table. */
const paperWords = [
  ...[
    markWords,
    owedWords,
    severityWords,
    remoteWords,
    laterWords,
    entryMarkWords,
    oilChoices,
    bilgeChoices,
    ...Object.values(tyreNames),
    shownOwedWords,
    claimWords,
    signWords,
    unsignedWords,
    outcomeWords,
    systemNames,
    ...Object.values(verdictWords),
    briefing,
  ],
].flatMap((words) => Object.values<string>(words).filter((text) => text !== ""));

describe.each(phraseBooks)("service packs in $language", (book) => {
  it("have words for every item and all its work", () => {
    const said = [...servicePacks, boatCarePack].flatMap(({ items }) =>
      items.flatMap(({ title, work }) => [title, ...work]),
    );
    expect(said.length).toBeGreaterThan(20);
    expect(said.filter((text) => book.texts[text] === undefined)).toEqual([]);
  });
});

describe.each(phraseBooks)("safety gear in $language", (book) => {
  it("has words for every rule and every set of rules", () => {
    const said = gearPacks.flatMap(({ name, rules }) => [name, ...rules.map(({ label }) => label)]);
    expect(said.filter((text) => book.texts[text] === undefined)).toEqual([]);
  });
});

describe.each(phraseBooks)("the finder and the leaving check in $language", (book) => {
  it.each(rigs.map((rig) => [rig.model, rig] as const))("have words for all of %s", (_, rig) => {
    const [english, other] = [idiom, { ...idiom, book }].map((each) => buildFaultModel(rig, faultContent, each));
    const pairs = [
      ...english!.functions.flatMap(({ id, label, asks }) => {
        const there = other!.functions.find((each) => each.id === id)!;
        return [[label, there.label] as const, [asks, there.asks] as const];
      }),
      ...english!.components.flatMap(({ id, label, check, mend, caution }) => {
        const there = other!.components.find((each) => each.id === id)!;
        return [
          [label, there.label] as const,
          [check, there.check] as const,
          [mend, there.mend] as const,
          [caution ?? "", there.caution ?? ""] as const,
        ];
      }),
    ];
    const left = pairs.filter(([one, two]) => (one === two && one !== "" && !shared.has(one)) || /[{}]/.test(two));
    expect(left).toEqual([]);
    const help = listStartHelp(rig, { ...idiom, book }).flatMap(({ title, cautions, steps }) => [
      title,
      ...cautions,
      ...steps,
    ]);
    const plain = listStartHelp(rig, idiom).flatMap(({ title, cautions, steps }) => [title, ...cautions, ...steps]);
    expect(help.filter((text, i) => text === plain[i] || /[{}]/.test(text))).toEqual([]);
  });

  it("have words for every urgent step, and for all that their screens and papers say", () => {
    const urgent = faultContent.urgent.flatMap(({ says, do: steps }) => [says, ...steps]);
    const screens = [
      "web/finder/Finder.tsx",
      "web/finder/useFinder.ts",
      "web/ui/DueDay.tsx",
      "web/ui/words.ts",
      "web/screens/owner/AskTheYard.tsx",
      "web/screens/owner/GearDates.tsx",
      "web/screens/owner/HowToReach.tsx",
      "web/screens/owner/OwnerCare.tsx",
      "web/screens/owner/OwnerFind.tsx",
      "web/screens/owner/OwnerInstall.tsx",
      "web/handover/MeterNote.tsx",
      "web/screens/owner/OwnerFinder.tsx",
      "web/screens/owner/OwnerHours.tsx",
      "web/screens/owner/OwnerScreen.tsx",
      "web/power/LeavingCheck.tsx",
      "web/power/PowerView.tsx",
      "web/power/DrainFields.tsx",
      "web/power/powerWords.ts",
      "web/power/StartSteps.tsx",
      "core/measure/judgeMeasure.ts",
      "core/measure/listMeasures.ts",
      "core/power/startSteps.ts",
      "core/trip/sayTrip.ts",
      "core/walk/formatEntry.ts",
      "core/walk/joinSteps.ts",
      "core/walk/names.ts",
      "core/walk/owed.ts",
      "server/pdf/floatPlanPdf.ts",
      "server/pdf/historyPdf.ts",
      "server/pdf/packPdf.ts",
      "server/pdf/planPdf.ts",
      "server/pdf/recordPdf.ts",
      "server/pdf/record/explained.ts",
      "server/pdf/record/proof.ts",
    ];
    // What is handed to `tell` as it stands in the code.
    const told = screens.flatMap((file) =>
      [
        ...readFileSync(file, "utf8").matchAll(
          /\btell\(\s*(?:[^()"]*\? )?"((?:[^"\\]|\\.)*)"(?: : "((?:[^"\\]|\\.)*)")?/g,
        ),
      ].flatMap(([, one, two]) => [one!, ...(two === undefined ? [] : [two])]),
    );
    expect(told.length).toBeGreaterThan(80);
    expect([...urgent, ...told, ...paperWords].filter((text) => book.texts[text] === undefined)).toEqual([]);
  });
});
