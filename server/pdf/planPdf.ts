import type { Column, Content, TDocumentDefinitions } from "pdfmake/interfaces";
import type { Delivery } from "../../api/index.ts";
import { fromClock } from "../../core/dates/index.ts";
import { createTell, findPlace, type Tell } from "../../core/language/index.ts";
import { formatTime } from "../../core/region/index.ts";
import type { Place } from "../../core/rig/index.ts";
import { capitalize, cutText, formatQuarters } from "../../core/text/index.ts";
import { shortenTitles, type Topic } from "../../core/topic/index.ts";
import { createDays } from "../days.ts";
import { ink, printDeck, soft } from "./ink.ts";
import type { Letterhead } from "./letterhead.ts";
import type { PaperReader } from "./paperReader.ts";
import { printPdf, write } from "./printer.ts";

interface Line {
  readonly kind: "stop" | "reason" | "topic";
  readonly text: string;
  readonly minutes: number;
  readonly isMust: boolean;
}

interface Fit {
  readonly fontSize: number;
  readonly columns: readonly Line[][];
}

/** The deck plan gives way when the list is long. */
const planWidthPt = { usual: 150, narrow: 112 } as const;
const manyLines = 120;
const columnGapPt = 14;
/** Beside a topic: its box, its minutes and the gaps between. */
const minutesAndBoxPt = 32;
const marginPt = 40;
const headPt = 78;
const lineShare = 1.28;
const largestPt = 10.5;
const smallestPt = 5;
const readablePt = 8;
/** About the width of a letter as a share of the type size; a bold one is so much wider. */
const letterShare = 0.49;
const boldShare = 1.08;

/** The plan on one page: deck plan and course line to the left, the stops with their topics to the right, a box for each. */
export function writePlanPdf(
  delivery: Delivery,
  store: Letterhead,
  { paper, reader }: { readonly paper: "a4" | "letter"; readonly reader: PaperReader },
): Promise<Buffer> {
  const [widthPt, heightPt] = paper === "a4" ? [595, 842] : [612, 792];
  // Why the stops stand as they do is for the staff, who read what everything is written in.
  const lines = listLines(delivery, reader).filter(({ kind }) => reader.language === "en" || kind !== "reason");
  const deckPt = delivery.topics.length > manyLines ? planWidthPt.narrow : planWidthPt.usual;
  const fitOnPage = (wanted: readonly Line[]) =>
    fitLines(wanted, widthPt - 2 * marginPt - deckPt - columnGapPt, (heightPt - 2 * marginPt - headPt) * 0.95);
  // Of a long walk what a topic is about is enough, without why the stops stand as they do: it would be too small to read.
  const bare = lines.filter(({ kind }) => kind !== "reason");
  const tries = [lines, bare, shortenLines(bare)].map((each) => () => fitOnPage(each));
  const fit = tries.reduce(
    (found: Fit | null, tryOne) => (found === null || found.fontSize < readablePt ? tryOne() : found),
    null,
  )!;
  const tell = createTell(reader.book);
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: marginPt,
    info: {
      title: `${tell("Plan of the walk")}, ${delivery.boatName}, ${delivery.date}`,
      author: store.store,
    },
    language: reader.language,
    defaultStyle: { font: "Atkinson", color: ink },
    content: [
      printHead(delivery, store, reader),
      {
        columns: [
          printDeckColumn(delivery, reader, deckPt, heightPt - 2 * marginPt - headPt - 10),
          ...fit.columns.map(
            (column): Column => ({
              width: "*",
              stack: column.map((line) => printLine(line, fit.fontSize, tell)),
            }),
          ),
        ],
        columnGap: columnGapPt,
      },
    ],
  };
  return printPdf(document);
}

/** The deck plan with its stops, and below it, as far as the page goes, what is written down by hand on the way. */
function printDeckColumn({ rig, plan }: Delivery, { book }: PaperReader, widthPt: number, heightPt: number): Column {
  const tell = createTell(book);
  const stops = plan.visits.map(({ station }, i) => ({
    number: i + 1,
    ...rig.stations.find(({ id }) => id === station)!.at,
  }));
  const svg = printDeck(rig, mergeStops(stops), plan.visits);
  const [, , across, along] = svg
    .match(/viewBox="([^"]+)"/)![1]!
    .split(" ")
    .map(Number) as [number, number, number, number];
  const deckPt = Math.min(heightPt, (widthPt / across) * along);
  const meters = rig.engines.map(({ label }) => tell.label(label));
  const headRowPt = 22;
  const rowPt = 20;
  const rows = Math.floor((heightPt - deckPt - 2 * headRowPt - meters.length * rowPt) / rowPt);
  const deck: Content = { svg, fit: [widthPt, heightPt] };
  if (rows < 2) return { width: widthPt, stack: [deck] };
  const heading = (text: string): Content => ({
    margin: [0, 8, 0, 0],
    text: write(text, { font: "Archivo", bold: true, fontSize: 9 }),
  });
  const ruled = (text: string): Content => ({
    stack: [
      { text: write(text === "" ? " " : text, { fontSize: 8, color: soft }), margin: [0, 7, 0, 0] },
      { canvas: [{ type: "line", x1: 0, y1: 0, x2: widthPt, y2: 0, lineWidth: 0.5, lineColor: soft }] },
    ],
  });
  return {
    width: widthPt,
    stack: [
      deck,
      ...(meters.length === 0 ? [] : [heading(tell("Hours")), ...meters.map(ruled)]),
      heading(tell("Notes")),
      ...Array.from({ length: rows }, () => ruled("")),
    ],
  };
}

function printHead(delivery: Delivery, store: Letterhead, { language, book }: PaperReader): Content {
  const tell = createTell(book);
  const { plan, planOptions } = delivery;
  const buyers = delivery.buyers.map(({ name }) => name).join(", ");
  const waits = plan.deferred.length === 0 ? "" : ` ${tell("{0} topics wait.", plan.deferred.length)}`;
  const minutes = Math.round(plan.totalMin);
  const takes =
    planOptions.budgetMin === null ? tell("{0} min", minutes) : tell("{0} of {1} min", minutes, planOptions.budgetMin);
  const counts = tell("{0} stops, {1} moves", plan.visits.length, plan.moves);
  const line = `${counts}, ${takes}.${waits} ${tell("A bar marks what must be done.")}`;
  return {
    margin: [0, 0, 0, 10],
    stack: [
      { text: write(`${delivery.boatName} ${delivery.hull}`, { font: "Archivo", bold: true, fontSize: 16 }) },
      {
        text: write(
          cutText(
            `${createDays(store.region, language).printDay(delivery.date)}, ${formatTime(fromClock(delivery.time), store.region.clock, language)} · ${buyers}`,
            110,
          ),
          {
            fontSize: 9.5,
          },
        ),
      },
      { text: write(`${store.store}. ${line}`, { fontSize: 8.5, color: soft }) },
      { canvas: [{ type: "line", x1: 0, y1: 5, x2: 532, y2: 5, lineWidth: 0.8, lineColor: ink }] },
    ],
  };
}

function listLines({ plan, topics, rig }: Delivery, { book }: PaperReader): Line[] {
  const byId = new Map<string, Topic>(topics.map((topic) => [topic.id, topic]));
  return plan.visits.flatMap((visit, i): Line[] => {
    const told = visit.topics.flatMap((id) => byId.get(id) ?? []);
    const minutes = told.reduce((sum, topic) => sum + topic.minutes, 0);
    const { label } = rig.stations.find(({ id }) => id === visit.station)!;
    const place = findPlace(book ?? undefined, label);
    return [
      { kind: "stop", text: `${i + 1}  ${place === undefined ? label : capitalize(place)}`, minutes, isMust: false },
      ...(plan.reasons[i] === undefined
        ? []
        : [{ kind: "reason", text: plan.reasons[i]!, minutes: 0, isMust: false } as const]),
      ...told.map(
        ({ title, minutes: each, must }): Line => ({ kind: "topic", text: title, minutes: each, isMust: must }),
      ),
    ];
  });
}

function shortenLines(lines: readonly Line[]): Line[] {
  const texts = shortenTitles(lines.map(({ kind, text }) => (kind === "topic" ? text : "")));
  return lines.map((line, i) => (line.kind === "topic" ? { ...line, text: texts[i]! } : line));
}

/** The largest type at which the lines fit the height there is: in two columns, or more when they are many. */
function fitLines(lines: readonly Line[], widthPt: number, heightPt: number): Fit {
  for (let fontSize = largestPt; ; fontSize -= 0.25) {
    for (const count of fontSize < 7.5 ? [2, 3, 4] : [2]) {
      const textPt = (widthPt - columnGapPt * (count - 1)) / count - minutesAndBoxPt;
      const columns = breakColumns(lines, count, heightPt, (line) => {
        const isBold = line.isMust || line.kind === "stop";
        const rows = countRows(line.text, textPt / (fontSize * letterShare * (isBold ? boldShare : 1)));
        return rows * fontSize * lineShare + (line.kind === "stop" ? fontSize * 0.9 : 1.2);
      });
      if (columns !== null) return { fontSize, columns };
    }
    if (fontSize <= smallestPt) return { fontSize, columns: [[...lines]] };
  }
}

/** How many rows a text takes, broken between words. */
function countRows(text: string, lettersPerRow: number): number {
  let rows = 1;
  let used = 0;
  for (const { length } of text.split(" ")) {
    if (used > 0 && used + 1 + length > lettersPerRow) {
      rows++;
      used = length;
    } else used += (used === 0 ? 0 : 1) + length;
  }
  return rows;
}

function breakColumns(
  lines: readonly Line[],
  count: number,
  heightPt: number,
  heightOf: (line: Line) => number,
): Line[][] | null {
  const columns: Line[][] = [[]];
  let usedPt = 0;
  for (const [i, line] of lines.entries()) {
    // A stop's name is never left alone at the foot of a column.
    const isKept = (at: number): boolean => lines[at] !== undefined && lines[at - 1]?.kind !== "topic";
    const withIt = line.kind === "stop" ? [i + 1, i + 2].filter((at) => isKept(at)) : [];
    const neededPt = withIt.reduce((sum, at) => sum + heightOf(lines[at]!), heightOf(line));
    if (usedPt + neededPt > heightPt) {
      if (columns.length === count) return null;
      columns.push([]);
      usedPt = 0;
    }
    columns.at(-1)!.push(line);
    usedPt += heightOf(line);
  }
  return columns;
}

function printLine({ kind, text, minutes, isMust }: Line, fontSize: number, tell: Tell): Content {
  if (kind === "stop")
    return {
      margin: [0, fontSize * 0.6, 0, fontSize * 0.2],
      columns: [
        { width: "*", text: write(text, { font: "Archivo", bold: true, fontSize: fontSize + 0.8 }) },
        {
          width: 36,
          text: write(tell("{0} min", Math.round(minutes)), { fontSize, color: soft }),
          alignment: "right",
        },
      ],
    };
  if (kind === "reason") return { margin: [0, 0, 0, 2], text: write(text, { fontSize: fontSize - 1, color: soft }) };
  const boxPt = fontSize * 0.8;
  return {
    margin: [0, 0, 0, 1],
    columnGap: 3,
    columns: [
      {
        width: boxPt + 4,
        canvas: [
          ...(isMust ? [{ type: "rect" as const, x: 0, y: 0.4, w: 1.8, h: fontSize, color: ink }] : []),
          { type: "rect" as const, x: 3.6, y: 1, w: boxPt, h: boxPt, lineWidth: 0.6, lineColor: isMust ? ink : soft },
        ],
      },
      { width: "*", text: write(text, { fontSize, bold: isMust }), lineHeight: 1.08 },
      { width: 14, text: formatQuarters(minutes), fontSize: fontSize - 1, color: soft, alignment: "right" },
    ],
  };
}

/** Stops at one place share a ring; it carries all their numbers. */
function mergeStops(stops: readonly (Place & { number: number })[]): (Place & { label: string })[] {
  const isSame = (a: Place, b: Place) => a.xM === b.xM && a.yM === b.yM;
  return stops
    .filter((stop, i) => stops.findIndex((other) => isSame(other, stop)) === i)
    .map((stop) => ({
      ...stop,
      label: stops
        .filter((other) => isSame(other, stop))
        .map(({ number }) => number)
        .join("·"),
    }));
}
