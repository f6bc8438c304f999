import type { TDocumentDefinitions } from "pdfmake/interfaces";
import type { Boat } from "../../api/index.ts";
import type { Settings } from "../repositories/settings.ts";
import { printDay } from "./days.ts";
import { ink, soft } from "./ink.ts";
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
const money = (cents: number | null) => (cents === null ? "" : (cents / 100).toFixed(2));

/** The service history of a boat as a PDF: hours, what was done, by whom, and what comes next. */
export function writeHistoryPdf(boat: Boat, store: Settings, paper: "a4" | "letter"): Promise<Buffer> {
  const { care, services, readings, visits } = boat;
  const labels = new Map([
    ...care.map(({ engine, label: name }): [string, string] => [engine, name]),
    ["boat", "The boat"],
  ]);
  const titles = new Map(
    [
      ...visits.flatMap(({ items }) => items),
      ...care.flatMap(({ items }) => items.map(({ id, title }) => ({ item: id, title }))),
    ].map(({ item, title }) => [item, title]),
  );
  const [next] = visits;
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `Service history, ${boat.name}, ${boat.hull}`, author: store.store },
    tagged: true,
    displayTitle: true,
    language: "en",
    defaultStyle: { font: "Atkinson", fontSize: 9.5, lineHeight: 1.15, color: ink },
    content: [
      { text: write(store.store, { fontSize: 9, color: soft }) },
      { text: write(`Service history, ${boat.name}`, { font: "Archivo", bold: true, fontSize: 20 }) },
      { text: write(`${boat.hull}   ${boat.buyers}`, { fontSize: 10 }) },
      {
        text: write(boat.inService === null ? "Not handed over yet." : `In service since ${printDay(boat.inService)}.`),
      },
      heading("Hours"),
      lined(
        ["*", 90, 110, "*"],
        [
          [label("Engine"), label("Hours", true), label("Read on"), label("Likely now")],
          ...care.map((engine) => [
            { text: write(engine.label) },
            { text: engine.reportedH === null ? "–" : `${engine.reportedH.toFixed(1)} h`, alignment: "right" as const },
            { text: engine.reportedOn === null ? "–" : printDay(engine.reportedOn) },
            { text: engine.likelyNowH === null ? "–" : `about ${engine.likelyNowH.toFixed(0)} h` },
          ]),
        ],
      ),
      heading("What was done", services.length === 0 ? "nothing yet" : ""),
      ...(services.length === 0
        ? []
        : [
            lined(
              [84, 80, "*", 52, 92, 56],
              [
                [
                  label("Date"),
                  label("Engine"),
                  label("Work"),
                  label("Hours", true),
                  label("By"),
                  label("Price", true),
                ],
                ...services.map(({ date, engine, item, hours, by, outcome, note, photo, fileName, priceCents }) => [
                  { text: printDay(date) },
                  { text: write(labels.get(engine) ?? engine) },
                  {
                    stack: [
                      { text: write(titles.get(item) ?? item) },
                      {
                        text: write(formatOutcome(outcome, note, photo, fileName), {
                          fontSize: 8.5,
                          color: soft,
                        }),
                      },
                    ],
                  },
                  { text: engine === "boat" ? "" : `${hours.toFixed(1)} h`, alignment: "right" as const },
                  { text: write(by) },
                  { text: money(priceCents), alignment: "right" as const },
                ]),
              ],
            ),
          ]),
      heading("What comes next"),
      {
        text: write(
          next === undefined
            ? "Nothing is planned."
            : `About ${printDay(next.date)}: ${next.items.map(({ title, label: scope }) => `${title} (${scope})`).join(", ")}.`,
        ),
      },
      {
        margin: [0, 8, 0, 0],
        text: write(
          "Where a service was late or done elsewhere, look into the engine maker's manual for what it asks then. Dates are likely ones, from the hours reported.",
          { fontSize: 8.5, color: soft },
        ),
      },
      heading("Hours as they were read", `${readings.length}`),
      lined(
        [100, "*", 80, "*"],
        [
          [label("Read on"), label("Engine"), label("Meter", true), label("By")],
          ...readings.map(({ date, engine, hours, by, answer }) => [
            { text: printDay(date) },
            { text: write(labels.get(engine) ?? engine) },
            { text: `${hours.toFixed(1)} h`, alignment: "right" as const },
            { text: write(answer === null ? by : `${by}, ${answer.replaceAll("-", " ")}`) },
          ]),
        ],
      ),
    ],
    footer: (page, pages) => ({
      margin: [48, 14, 48, 0],
      columns: [
        { text: write(`${boat.name} · ${boat.hull} · ${boat.today}`, { fontSize: 8, color: soft }) },
        { text: `page ${page} of ${pages}`, fontSize: 8, color: soft, alignment: "right" },
      ],
    }),
  };
  return printPdf(document);
}
