import { describe, expect, it } from "vitest";
import { type CardBlock, createCards } from "../../core/card/index.ts";
import { buildFaultModel } from "../../core/faults/index.ts";
import { findLabel, findText, listBraces } from "../../core/language/index.ts";
import { bilgeChoices, oilChoices, tyreNames } from "../../core/measure/index.ts";
import { listStartHelp } from "../../core/power/index.ts";
import { regions } from "../../core/region/index.ts";
import { isMet, type Rig } from "../../core/rig/index.ts";
import { buildSequence, feels, judgeWheels } from "../../core/sequence/index.ts";
import { fillTopic, systemNames } from "../../core/topic/index.ts";
import { towWords } from "../../core/tow/index.ts";
import { entryMarkWords, laterWords, remoteWords } from "../../core/walk/index.ts";
import { briefing, verdictWords } from "../../server/pdf/floatPlanPdf.ts";
import { outcomeWords } from "../../server/pdf/historyPdf.ts";
import { claimWords, signWords, unsignedWords } from "../../server/pdf/record/proof.ts";
import { markWords, owedWords, severityWords } from "../../server/pdf/record/sheet.ts";
import { owedWords as shownOwedWords } from "../../web/owed/owedWords.ts";
import { jackets } from "../../web/trip/jacketOf.ts";
import {
  arrivalChecks,
  boatCarePack,
  breakInPacks,
  cards,
  faultContent,
  gearPacks,
  rigTemplates,
  sequences,
  servicePacks,
  topics,
  towRules,
} from "../index.ts";
import { phraseBooks } from "./index.ts";
import { listBareWords, listReached, listTableWords, listToldPhrases } from "./toldPhrases.ts";

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
  emergency: "112",
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
    ...powerSwitches.flatMap(({ label, positions }) => [label, ...positions.map((position) => position.label)]),
    ...panel.flatMap(({ label, positions }, i) => [
      label ?? "",
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

  it.each(rigs.map((rig) => [rig.model, rig] as const))(
    "name every thing aboard %s, and what is noted at its switches",
    (_, rig) => {
      const things = [rig.parts, rig.batteries, rig.engines, rig.loads, rig.breakers, rig.tanks, rig.gear].flat();
      expect(things.filter(({ label }) => findLabel(book, label) === undefined)).toEqual([]);
      const notes = rig.panel.flatMap(({ note }) => note ?? []);
      expect(notes.filter((text) => findText(book, text) === undefined)).toEqual([]);
    },
  );

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

describe.each(phraseBooks)("switches in $language", (book) => {
  const laid = { ...idiom, book };
  it.each(rigs.map((rig) => [rig.model, rig] as const))("have on every card of %s what stands on them", (_, rig) => {
    const stands = new Set(
      [...rig.powerSwitches, ...rig.panel].flatMap(({ positions }) => positions.map((p) => p.label)),
    );
    const named = new Set([...rig.powerSwitches, ...rig.panel].flatMap(({ label }) => label ?? []));
    const printed = createCards(cards, { ...boatOf(rig), idiom: laid });
    const tableOf = (english: string) =>
      printed
        .flatMap(({ blocks }) => blocks)
        .flatMap((block) => (block.kind === "table" && block.head[0] === findText(book, english) ? block.rows : []));
    for (const [name, position] of tableOf("Battery switch")) {
      expect(named).toContain(name);
      expect(stands).toContain(position);
    }
    for (const [name, position] of tableOf("Switch"))
      if (position !== "–" && position !== findText(book, "lamp")) {
        expect(stands).toContain(position);
        if (name !== "") expect([...named, findText(book, "no label")]).toContain(name!.replace(/^\d+ {2}/, ""));
      }
    for (const [, off] of tableOf("If this stays on"))
      if (off !== findText(book, "its own button"))
        expect([...named].some((name) => off!.startsWith(name)) || /^\D+ \d+/.test(off!), off).toBe(true);
  });

  it("are called by nothing that is a sentence, a title or the name of a day", () => {
    for (const word of ["Off", "On", "Normal", "Combine", "Both"]) expect(findText(book, word)).toBeUndefined();
    expect(findLabel(book, "Afloat")).toBeUndefined();
    expect(findText(book, "Afloat")).toBeDefined();
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

/** Papers and letters that are written in the buyer's language. */
const papers = [
  "server/pdf/floatPlanPdf.ts",
  "server/pdf/historyPdf.ts",
  "server/pdf/packPdf.ts",
  "server/pdf/planPdf.ts",
  "server/pdf/recordPdf.ts",
  "server/pdf/record/explained.ts",
  "server/pdf/record/proof.ts",
  "server/services/calendarService.ts",
];

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

/** Words that the owner's screens look up in a table or in content. */
const ownerWords = [
  ...listTableWords("web/breakin/LogRun.tsx", "wayWords"),
  ...listTableWords("web/finder/Finder.tsx", "whoWords"),
  ...listTableWords("web/handover/HoursQuestion.tsx", "answerWords"),
  ...listTableWords("web/towing/CarPlates.tsx", "masses"),
  ...listTableWords("web/towing/PlatesDrawing.tsx", "spots"),
  ...listTableWords("web/towing/TowCheck.tsx", "whatIsMissing"),
  ...listTableWords("web/trip/RouteFields.tsx", "faultWords"),
  ...listTableWords("web/trip/TripPlanner.tsx", "headings"),
  ...Object.values(towWords).flat(),
  ...jackets,
  ...breakInPacks.flatMap(({ title, basis }) => [title, basis]),
  ...arrivalChecks.flatMap(({ title, why }) => [title, why]),
  ...feels,
  ...towRules.flatMap(({ name, notes }) => [name, ...notes]),
  ...rigs.flatMap(({ batteries }) => batteries.map(({ chemistry }) => chemistry)),
  ...Object.values(tyreNames).flatMap((sides) => Object.values(sides).map((says) => says.replace("Tire, ", "Hub, "))),
];

describe.each(phraseBooks)("steps of one or two people in $language", (book) => {
  it.each(rigs.map((rig) => [rig.model, rig] as const))("have words for all of them with %s", (_, rig) => {
    const left = sequences.flatMap((sequence) =>
      (["alone", "partner"] as const).flatMap((way) =>
        (["winch", "drive"] as const).flatMap((method) => {
          const [english, other] = [undefined, book].map((each) => {
            const built = buildSequence(sequence, rig, { way, method }, { ...idiom, book: each });
            if (built === null) return [];
            const steps = built.phases.flatMap((phase) => phase.steps);
            return [
              built.title,
              built.lead,
              ...built.cautions,
              ...Object.values(built.called),
              ...built.phases.map(({ title }) => title),
              ...steps.flatMap(({ say, other: meanwhile, proof, caution }) => [say, meanwhile, proof, caution]),
              ...steps.flatMap(({ reads }) => reads.map(({ label }) => label)),
            ];
          });
          return english!.filter((text, i) => text !== null && (text === other![i] || /[{}]/.test(other![i]!)));
        }),
      ),
    );
    expect([...new Set(left)]).toEqual([]);
  });

  it("have words for what wheels are judged as", () => {
    const wheel = { id: "a", wheel: "port", label: "Tire, port", asks: "tyres" as const, plateKpa: 345 };
    const other = { ...wheel, id: "b", wheel: "starboard" };
    const asks = ["tyres", "hubs", "warm-tyres"] as const;
    const values = [undefined, 20, 50, 62, 80, 300, 330, 345, 380, 400, 500];
    const says = asks.flatMap((each) =>
      values.flatMap((value) =>
        [null, 345].flatMap((plateKpa) => {
          const reads = [wheel, other].map((read) => ({ ...read, asks: each, plateKpa }));
          const taken = new Map([
            ["a", value === undefined ? { feel: "hot" as const } : { value }],
            ["b", { value: 45 }],
          ]);
          return [...judgeWheels(reads, taken).values()].map((judged) => judged.says);
        }),
      ),
    );
    expect(new Set(says).size).toBeGreaterThan(9);
    expect(says.filter((text) => book.texts[text] === undefined)).toEqual([]);
  });
});

describe("what a buyer can open", () => {
  it("has no words that stand bare in it", () => {
    const bare = listReached("web/screens/owner")
      .filter((file) => file.endsWith(".tsx"))
      .flatMap((file) => listBareWords(file).map((words) => `${file}: ${words}`));
    expect(bare).toEqual([]);
  });
});

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
    const said = gearPacks.flatMap(({ name, rules }) => [name, ...rules.flatMap(({ label, says }) => [label, says])]);
    expect(said.filter((text) => book.texts[text] === undefined)).toEqual([]);
  });
});

describe.each(phraseBooks)("the finder and the leaving check in $language", (book) => {
  it.each(rigs.map((rig) => [rig.model, rig] as const))("have words for all of %s", (_, rig) => {
    const [english, other] = [idiom, { ...idiom, book }].map((each) => buildFaultModel(rig, faultContent, each));
    const pairs = [
      ...english!.functions.flatMap(({ id, label, asks, caution }) => {
        const there = other!.functions.find((each) => each.id === id)!;
        return [
          [label, there.label] as const,
          [asks, there.asks] as const,
          [caution ?? "", there.caution ?? ""] as const,
        ];
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
    const told = [...listReached("web/screens/owner"), ...papers].flatMap(listToldPhrases);
    expect(told.length).toBeGreaterThan(500);
    const left = [...urgent, ...told, ...paperWords, ...ownerWords].filter((text) => book.texts[text] === undefined);
    expect([...new Set(left)].filter((text) => !shared.has(text) && !isSame(text))).toEqual([]);
  });
});
