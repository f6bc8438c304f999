import type { TDocumentDefinitions } from "pdfmake/interfaces";
import type { Boat } from "../../api/index.ts";
import { createTell, type Tell } from "../../core/language/index.ts";
import { formatMoney, type Region } from "../../core/region/index.ts";
import { createDays, type Days } from "../days.ts";
import { ink, soft } from "./ink.ts";
import { type Letterhead, printFoot, printLogo } from "./letterhead.ts";
import type { PaperReader } from "./paperReader.ts";
import { printPdf, write } from "./printer.ts";
import { heading, label, lined } from "./record/sheet.ts";

export const outcomeWords = { done: "done here", elsewhere: "done elsewhere", skipped: "skipped" } as const;
const formatOutcome = (
  tell: Tell,
  outcome: keyof typeof outcomeWords,
  note: string,
  photo: string | null,
  fileName: string | null,
): string => {
  const shownBy = [...(photo === null ? [] : [tell("a photo")]), ...(fileName === null ? [] : [fileName])];
  return [
    [tell(outcomeWords[outcome]), note].filter((part) => part !== "").join(": "),
    ...(shownBy.length === 0 ? [] : [tell("on file: {0}", shownBy.join(", "))]),
  ].join(". ");
};
const money = (cents: number | null, region: Region) => (cents === null ? "" : formatMoney(cents, region));

/** The service history of a boat as a PDF: hours, what was done, by whom, and what comes next. */
export function writeHistoryPdf(
  boat: Boat,
  store: Letterhead,
  { paper, reader }: { readonly paper: "a4" | "letter"; readonly reader: PaperReader },
): Promise<Buffer> {
  const { region } = store;
  const { printDay } = createDays(region, reader.language);
  const tell = createTell(reader.book);
  const words: Words = { tell, printDay, region };
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `${tell("Service history, {0}", boat.name)}, ${boat.hull}`, author: store.store },
    tagged: true,
    displayTitle: true,
    language: reader.language,
    defaultStyle: { font: "Atkinson", fontSize: 9.5, lineHeight: 1.15, color: ink },
    content: [
      ...printLogo(store.picture, 34),
      { text: write(store.store, { fontSize: 9, color: soft }) },
      { text: write(tell("Service history, {0}", boat.name), { font: "Archivo", bold: true, fontSize: 20 }) },
      { text: write(`${boat.hull}   ${boat.buyers}`, { fontSize: 10 }) },
      {
        text: write(
          boat.inService === null
            ? tell("Not handed over yet.")
            : tell("In service since {0}.", printDay(boat.inService)),
        ),
      },
      ...hoursPart(boat, words),
      ...servicesPart(boat, words),
      ...nextPart(boat, words),
      ...readingsPart(boat, words),
    ],
    footer: printFoot(`${boat.name} · ${boat.hull} · ${printDay(boat.today)}`, store, tell),
  };
  return printPdf(document);
}

const hours = (h: number | null) => ({ text: h === null ? "–" : `${h.toFixed(1)} h`, alignment: "right" as const });

interface Words extends Pick<Days, "printDay"> {
  readonly tell: Tell;
  readonly region: Region;
}

const nameEngines = ({ care }: Boat, tell: Tell) =>
  new Map([
    ...care.map(({ engine, label: name }): [string, string] => [engine, tell.label(name)]),
    ["boat", tell("The boat")],
  ]);

function hoursPart({ care }: Boat, { tell, printDay }: Words) {
  const rows = care.map(({ label: name, reportedH, reportedOn, likelyNowH }) => [
    { text: write(tell.label(name)) },
    hours(reportedH),
    { text: reportedOn === null ? "–" : printDay(reportedOn) },
    { text: likelyNowH === null ? "–" : tell("about {0} h", likelyNowH.toFixed(0)) },
  ]);
  const head = [label(tell("Engine")), label(tell("Hours"), true), label(tell("Read on")), label(tell("Likely now"))];
  return [heading(tell("Hours")), lined(["*", 90, 120, "*"], [head, ...rows])];
}

function servicesPart(boat: Boat, { tell, printDay, region }: Words) {
  const { care, services, visits } = boat;
  if (services.length === 0) return [heading(tell("What was done"), tell("nothing yet"))];
  const engines = nameEngines(boat, tell);
  const titles = new Map(
    [
      ...visits.flatMap(({ items }) => items),
      ...care.flatMap(({ items }) => items.map(({ id, title }) => ({ item: id, title }))),
    ].map(({ item, title }) => [item, title]),
  );
  const small = { fontSize: 8.5, color: soft };
  const rows = services.map(
    ({ date, engine, item, hours: atH, by, outcome, note, photo, fileName, priceCents, parts, mechanic }) => [
      { text: printDay(date) },
      { text: write(engines.get(engine) ?? engine) },
      {
        stack: [
          { text: write(tell(titles.get(item) ?? item)) },
          { text: write(formatOutcome(tell, outcome, note, photo, fileName), small) },
          { text: write(parts === "" ? "" : tell("Parts: {0}", parts), small) },
        ],
      },
      engine === "boat" ? { text: "" } : hours(atH),
      { text: write(mechanic === "" ? by : mechanic) },
      { text: money(priceCents, region), alignment: "right" as const },
    ],
  );
  const head = [
    label(tell("Date")),
    label(tell("Engine")),
    label(tell("Work")),
    label(tell("Hours"), true),
    label(tell("By")),
    label(tell("Price"), true),
  ];
  return [heading(tell("What was done")), lined([96, 76, "*", 52, 88, 60], [head, ...rows])];
}

function nextPart({ visits: [next] }: Boat, { tell, printDay }: Words) {
  const says =
    next === undefined
      ? tell("Nothing is planned.")
      : tell(
          "About {0}: {1}.",
          printDay(next.date),
          next.items.map(({ title, label: scope }) => `${tell(title)} (${tell.label(scope)})`).join(", "),
        );
  const caution = tell(
    "Where a service was late or done elsewhere, look into the engine maker's manual for what it asks then. Dates are likely ones, from the hours reported.",
  );
  return [
    heading(tell("What comes next")),
    { text: write(says) },
    { margin: [0, 8, 0, 0] as [number, number, number, number], text: write(caution, { fontSize: 8.5, color: soft }) },
  ];
}

function readingsPart(boat: Boat, { tell, printDay }: Words) {
  const engines = nameEngines(boat, tell);
  const rows = boat.readings.map(({ date, engine, hours: atH, by, answer }) => [
    { text: printDay(date) },
    { text: write(engines.get(engine) ?? engine) },
    hours(atH),
    { text: write(answer === null ? by : `${by}, ${tell(answer.replaceAll("-", " "))}`) },
  ]);
  const head = [label(tell("Read on")), label(tell("Engine")), label(tell("Meter"), true), label(tell("By"))];
  return [heading(tell("Hours as they were read"), `${rows.length}`), lined([110, "*", 80, "*"], [head, ...rows])];
}
