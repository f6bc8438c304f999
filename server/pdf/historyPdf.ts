import type { TDocumentDefinitions } from "pdfmake/interfaces";
import type { Boat } from "../../api/index.ts";
import { formatMoney, type Region } from "../../core/region/index.ts";
import { createDays, type Days } from "./days.ts";
import { ink, soft } from "./ink.ts";
import { type Letterhead, printLogo } from "./letterhead.ts";
import { printPdf, write } from "./printer.ts";
import { heading, label, lined } from "./record/sheet.ts";

const outcomeWords = { done: "done here", elsewhere: "done elsewhere", skipped: "skipped" } as const;
const formatOutcome = (
  outcome: keyof typeof outcomeWords,
  note: string,
  photo: string | null,
  fileName: string | null,
): string => {
  const shownBy = [...(photo === null ? [] : ["a photo"]), ...(fileName === null ? [] : [fileName])];
  return [
    [outcomeWords[outcome], note].filter((part) => part !== "").join(": "),
    ...(shownBy.length === 0 ? [] : [`on file: ${shownBy.join(", ")}`]),
  ].join(". ");
};
const money = (cents: number | null, region: Region) => (cents === null ? "" : formatMoney(cents, region));

/** The service history of a boat as a PDF: hours, what was done, by whom, and what comes next. */
export function writeHistoryPdf(boat: Boat, store: Letterhead, paper: "a4" | "letter"): Promise<Buffer> {
  const { region } = store;
  const { printDay } = createDays(region);
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `Service history, ${boat.name}, ${boat.hull}`, author: store.store },
    tagged: true,
    displayTitle: true,
    language: "en",
    defaultStyle: { font: "Atkinson", fontSize: 9.5, lineHeight: 1.15, color: ink },
    content: [
      ...printLogo(store.picture, 34),
      { text: write(store.store, { fontSize: 9, color: soft }) },
      { text: write(`Service history, ${boat.name}`, { font: "Archivo", bold: true, fontSize: 20 }) },
      { text: write(`${boat.hull}   ${boat.buyers}`, { fontSize: 10 }) },
      {
        text: write(boat.inService === null ? "Not handed over yet." : `In service since ${printDay(boat.inService)}.`),
      },
      ...hoursPart(boat, printDay),
      ...servicesPart(boat, region),
      ...nextPart(boat, printDay),
      ...readingsPart(boat, printDay),
    ],
    footer: (page, pages) => ({
      margin: [48, 14, 48, 0],
      columns: [
        { text: write(`${boat.name} · ${boat.hull} · ${printDay(boat.today)}`, { fontSize: 8, color: soft }) },
        { text: `page ${page} of ${pages}`, fontSize: 8, color: soft, alignment: "right" },
      ],
    }),
  };
  return printPdf(document);
}

const hours = (h: number | null) => ({ text: h === null ? "–" : `${h.toFixed(1)} h`, alignment: "right" as const });

const nameEngines = ({ care }: Boat) =>
  new Map([...care.map(({ engine, label: name }): [string, string] => [engine, name]), ["boat", "The boat"]]);

function hoursPart({ care }: Boat, printDay: Days["printDay"]) {
  const rows = care.map(({ label: name, reportedH, reportedOn, likelyNowH }) => [
    { text: write(name) },
    hours(reportedH),
    { text: reportedOn === null ? "–" : printDay(reportedOn) },
    { text: likelyNowH === null ? "–" : `about ${likelyNowH.toFixed(0)} h` },
  ]);
  const head = [label("Engine"), label("Hours", true), label("Read on"), label("Likely now")];
  return [heading("Hours"), lined(["*", 90, 120, "*"], [head, ...rows])];
}

function servicesPart(boat: Boat, region: Region) {
  const { printDay } = createDays(region);
  const { care, services, visits } = boat;
  if (services.length === 0) return [heading("What was done", "nothing yet")];
  const engines = nameEngines(boat);
  const titles = new Map(
    [
      ...visits.flatMap(({ items }) => items),
      ...care.flatMap(({ items }) => items.map(({ id, title }) => ({ item: id, title }))),
    ].map(({ item, title }) => [item, title]),
  );
  const small = { fontSize: 8.5, color: soft };
  const rows = services.map(({ date, engine, item, hours: atH, by, outcome, note, photo, fileName, priceCents }) => [
    { text: printDay(date) },
    { text: write(engines.get(engine) ?? engine) },
    {
      stack: [
        { text: write(titles.get(item) ?? item) },
        { text: write(formatOutcome(outcome, note, photo, fileName), small) },
      ],
    },
    engine === "boat" ? { text: "" } : hours(atH),
    { text: write(by) },
    { text: money(priceCents, region), alignment: "right" as const },
  ]);
  const head = [label("Date"), label("Engine"), label("Work"), label("Hours", true), label("By"), label("Price", true)];
  return [heading("What was done"), lined([96, 76, "*", 52, 88, 60], [head, ...rows])];
}

function nextPart({ visits: [next] }: Boat, printDay: Days["printDay"]) {
  const says =
    next === undefined
      ? "Nothing is planned."
      : `About ${printDay(next.date)}: ${next.items.map(({ title, label: scope }) => `${title} (${scope})`).join(", ")}.`;
  const caution =
    "Where a service was late or done elsewhere, look into the engine maker's manual for what it asks then. Dates are likely ones, from the hours reported.";
  return [
    heading("What comes next"),
    { text: write(says) },
    { margin: [0, 8, 0, 0] as [number, number, number, number], text: write(caution, { fontSize: 8.5, color: soft }) },
  ];
}

function readingsPart(boat: Boat, printDay: Days["printDay"]) {
  const engines = nameEngines(boat);
  const rows = boat.readings.map(({ date, engine, hours: atH, by, answer }) => [
    { text: printDay(date) },
    { text: write(engines.get(engine) ?? engine) },
    hours(atH),
    { text: write(answer === null ? by : `${by}, ${answer.replaceAll("-", " ")}`) },
  ]);
  const head = [label("Read on"), label("Engine"), label("Meter", true), label("By")];
  return [heading("Hours as they were read", `${rows.length}`), lined([110, "*", 80, "*"], [head, ...rows])];
}
