import { PDFDocument } from "pdf-lib";
import type { Content, TableCell, TDocumentDefinitions } from "pdfmake/interfaces";
import QRCode from "qrcode";
import type { Card, CardBlock } from "../../core/card/index.ts";
import { createTell } from "../../core/language/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { amber, ink, magenta, printDeck, rule, soft } from "./ink.ts";
import { printLogo, sayStore } from "./letterhead.ts";
import type { PaperReader } from "./paperReader.ts";
import { printPdf, write } from "./printer.ts";

export interface PackQuestion extends PaperReader {
  readonly cards: readonly Card[];
  readonly rig: Rig;
  readonly boatName: string;
  readonly hull: string;
  readonly store: string;
  /** Its postal address, a line each. */
  readonly place: string;
  readonly phone: string;
  /** The logo as JPEG; null where there is none. */
  readonly picture: Uint8Array | null;
  /** Where the owner's page is, for the label at the helm; null leaves the label out. */
  readonly ownerAddress: string | null;
  readonly paper: "a4" | "letter";
  readonly layout: "single" | "two-up";
}

/** One card's page: half of A4 or of Letter, in points. */
const pageOf = { a4: { width: 420, height: 595 }, letter: { width: 396, height: 612 } } as const;
const sheetOf = { a4: { width: 842, height: 595 }, letter: { width: 792, height: 612 } } as const;
const marginPt = 30;
/** Type sizes tried, the largest first: the largest at which a card fits its page is taken. */
const sizesPt = [14.5, 13, 11.75, 11, 10.5, 10, 9.5, 9, 8.5, 8, 7.5, 6.75] as const;

/** So large a share of the cards may keep to a smaller size than all others, where they are too long for it. */
const cannotShare = 0.25;

/** The owner pack of one boat: a card a page, as large as it fits, or two on a sheet to be folded or cut. */
export async function writePackPdf(question: PackQuestion): Promise<Buffer> {
  const tell = createTell(question.book);
  const fits = await findSizes(question);
  // One type size for all that can have it: whoever turns the leaf reads on at the same distance.
  const shared = fits.toSorted((a, b) => b - a)[Math.floor(fits.length * cannotShare)]!;
  const sizes = fits.map((fit) => sizesPt[Math.max(fit, shared)]!);
  const single = await PDFDocument.load(await printPdf(describeCards(question, sizes)));
  single.setTitle(`${tell("Owner pack")}, ${question.boatName}, ${question.hull}`);
  single.setAuthor(question.store);
  single.setLanguage(question.language);
  if (question.ownerAddress !== null) await append(single, await printLabel(question, question.ownerAddress));
  const whole = question.layout === "single" ? single : await imposeTwoUp(single, question);
  return Buffer.from(await whole.save());
}

async function append(target: PDFDocument, bytes: Buffer) {
  const source = await PDFDocument.load(bytes);
  for (const page of await target.copyPages(source, source.getPageIndices())) target.addPage(page);
}

/**
 * Of which of `sizesPt` each card is one page, at its largest; the smallest where it is none: it goes on over the leaf. By halving, for
 * a card that fits at one size fits at every smaller one, and of all cards at once, for a document's faces take longer than its pages.
 */
async function findSizes(question: PackQuestion): Promise<number[]> {
  const ranges = question.cards.map(() => ({ tooLarge: -1, fits: sizesPt.length - 1 }));
  while (ranges.some(({ tooLarge, fits }) => fits - tooLarge > 1)) {
    const tried = ranges.map(({ tooLarge, fits }) => (fits - tooLarge > 1 ? Math.floor((tooLarge + fits) / 2) : fits));
    const ends = new Map<string, number>();
    const sizes = tried.map((size) => sizesPt[size]!);
    await printPdf({
      ...describeCards(question, sizes, true),
      pageBreakBefore: ({ id, pageNumbers }) => {
        const [page] = pageNumbers ?? [];
        if (id !== undefined && page !== undefined) ends.set(id, page);
        return false;
      },
    });
    const endOf = (i: number) => (i < 0 ? 0 : ends.get(idOf(i))!);
    for (const [i, range] of ranges.entries()) {
      if (range.fits - range.tooLarge <= 1) continue;
      if (endOf(i) - endOf(i - 1) === 1) range.fits = tried[i]!;
      else range.tooLarge = tried[i]!;
    }
  }
  return ranges.map(({ fits }) => fits);
}

const idOf = (i: number) => `card-${i}`;

async function imposeTwoUp(single: PDFDocument, { paper, boatName, hull }: PackQuestion): Promise<PDFDocument> {
  const { width, height } = sheetOf[paper];
  const sheets = await PDFDocument.create();
  sheets.setTitle(`Owner pack, ${boatName}, ${hull}, two a sheet`);
  const source = await PDFDocument.load(await single.save());
  const pages = await sheets.embedPages(source.getPages());
  for (let i = 0; i < pages.length; i += 2) {
    const sheet = sheets.addPage([width, height]);
    for (const [j, page] of pages.slice(i, i + 2).entries())
      sheet.drawPage(page, { x: (j * width) / 2, y: 0, width: width / 2, height });
  }
  return sheets;
}

/** Where a card ends: next to nothing, by whose page its length is known. */
const printEnd = (i: number): Content => ({ id: idOf(i), text: " ", fontSize: 0.1 });

/** All cards, each at its own type size and on a page of its own; `isMeasured`: to find out where each ends. */
function describeCards(question: PackQuestion, sizes: readonly number[], isMeasured = false): TDocumentDefinitions {
  const { boatName, hull, store, paper } = question;
  return {
    pageSize: pageOf[paper],
    pageMargins: [marginPt, 26, marginPt, 32],
    info: { title: `${boatName}, ${hull}`, author: store },
    tagged: true,
    language: question.language,
    defaultStyle: { font: "Atkinson", lineHeight: 1.12, color: ink },
    content: question.cards.map(
      (card, i): Content => ({
        fontSize: sizes[i]!,
        ...(i === question.cards.length - 1 ? {} : { pageBreak: "after" }),
        stack: [...printCard(card, i + 1, question, sizes[i]!), ...(isMeasured ? [printEnd(i)] : [])],
      }),
    ),
    footer: () => ({
      margin: [marginPt, 6, marginPt, 0],
      stack: [
        { text: write(`${boatName} · ${hull}`, { fontSize: 7.5, color: soft }) },
        { text: write(sayStore(question), { fontSize: 7.5, color: soft }) },
      ],
    }),
  };
}

const printCard = (card: Card, number: number, question: PackQuestion, sizePt: number): Content[] => [
  {
    columns: [
      {
        width: "*",
        text: write(card.title, { font: "Archivo", bold: true, fontSize: Math.max(20, sizePt * 1.7) }),
      },
      { width: "auto", text: String(number), font: "Archivo", fontSize: Math.max(20, sizePt * 1.7), color: soft },
    ],
  },
  {
    canvas: [
      {
        type: "line",
        x1: 0,
        y1: 2,
        x2: pageOf[question.paper].width - 2 * marginPt,
        y2: 2,
        lineWidth: 1.4,
        lineColor: ink,
      },
    ],
  },
  ...(card.lead === null
    ? []
    : [{ text: write(card.lead, { fontSize: sizePt * 0.92, color: soft }), margin: margins(0, 5, 0, 0) }]),
  ...card.blocks.map((block): Content => printBlock(block, question, sizePt)),
];

const margins = (left: number, top: number, right: number, bottom: number): [number, number, number, number] => [
  left,
  top,
  right,
  bottom,
];

function printBlock(block: CardBlock, question: PackQuestion, sizePt: number): Content {
  const title = block.title === undefined ? [] : [printTitle(block.title, sizePt)];
  const under = (...parts: Content[]): Content => ({
    margin: margins(0, sizePt * gapShare, 0, 0),
    stack: [...title, ...parts],
  });
  switch (block.kind) {
    case "cautions":
      return printCautions(block.items, sizePt);
    case "steps": {
      const rows = block.items.map((item, i): TableCell[] => [
        { text: String(i + 1), font: "Archivo", bold: true, alignment: "right" },
        { text: write(item) },
      ]);
      return under({ table: { widths: [sizePt * 1.5, "*"], body: rows }, layout: ruled(sizePt) });
    }
    case "lines":
      return under(
        ...block.items.map((item): Content => ({ text: write(item), margin: margins(0, 0, 0, sizePt * 0.25) })),
      );
    case "pairs": {
      const rows = block.rows.map(([sign, act]): TableCell[] => [
        { text: write(sign, { bold: true }) },
        { text: write(act) },
      ]);
      return under({ table: { widths: ["30%", "*"], body: rows }, layout: ruled(sizePt) });
    }
    case "table":
      return under(printTable(block, pageOf[question.paper].width - 2 * marginPt, sizePt));
    case "places":
      return printPlaces(block.marks, question, sizePt);
    default:
      throw new Error(`printBlock: expected a known block, got ${JSON.stringify(block satisfies never)}`);
  }
}

/** The space above a block, as a share of the type size. */
const gapShare = 0.62;

const printTitle = (title: string, sizePt: number): Content => ({
  text: write(title, { font: "Archivo", bold: true, fontSize: sizePt * 1.05 }),
  margin: margins(0, 0, 0, 2),
});

const printCautions = (items: readonly string[], sizePt: number): Content => ({
  margin: margins(0, sizePt * gapShare, 0, 0),
  table: {
    widths: ["*"],
    body: items.map((item): TableCell[] => [
      { text: write(item, { bold: true, color: amber, fontSize: sizePt * 0.95 }), fillColor: "#FFF0C7" },
    ]),
  },
  layout: {
    hLineWidth: () => 0,
    vLineWidth: (i) => (i === 0 ? 3 : 0),
    vLineColor: () => amber,
    paddingLeft: () => 7,
    paddingRight: () => 6,
    paddingTop: () => 3,
    paddingBottom: () => 3,
  },
});

const ruled = (sizePt: number) => ({
  hLineWidth: (i: number) => (i === 0 ? 0 : 0.4),
  hLineColor: () => rule,
  vLineWidth: () => 0,
  paddingLeft: () => 0,
  paddingRight: () => 6,
  paddingTop: () => sizePt * 0.2,
  paddingBottom: () => sizePt * 0.16,
});

/** About the width of a letter as a share of the type size, bold ones and the gap between columns reckoned in. */
const letterShare = 0.58;
const columnGapPt = 8;
const usualLetters = 60;

/** Widths of columns: each at least as wide as its longest word, the rest shared out by how much text there is. */
function shareWidth(rows: readonly (readonly string[])[], widthPt: number, letterPt: number): number[] {
  const columns = rows[0]!.map((_, i) => rows.map((row) => row[i] ?? ""));
  const least = columns.map((cells) => {
    const words = cells.flatMap((cell) => cell.split(/[\s-]+/));
    return Math.max(...words.map(({ length }) => length)) * letterPt + columnGapPt;
  });
  const wanted = columns.map(
    (cells) => Math.max(...cells.map(({ length }) => Math.min(usualLetters, length))) * letterPt,
  );
  const spare = Math.max(0, widthPt - least.reduce((a, b) => a + b, 0) - columns.length * columnGapPt);
  const more = wanted.map((want, i) => Math.max(0, want - least[i]!));
  const sum = more.reduce((a, b) => a + b, 0);
  return least.map((each, i) => each + (sum === 0 ? spare / columns.length : (spare * more[i]!) / sum));
}

function printTable({ head, rows }: Extract<CardBlock, { kind: "table" }>, innerPt: number, sizePt: number): Content {
  const widths = shareWidth([head, ...rows], innerPt, sizePt * letterShare);
  return {
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths,
      body: [
        head.map(
          (name): TableCell => ({
            text: write(name, { font: "Archivo", bold: true, fontSize: sizePt * 0.74, color: soft }),
          }),
        ),
        ...rows.map((row) => row.map((cell, i): TableCell => ({ text: write(cell, { bold: i === 0 }) }))),
      ],
    },
    layout: { ...ruled(sizePt), hLineWidth: (i: number) => (i === 0 ? 0 : i === 1 ? 0.8 : 0.4) },
  };
}

/** The deck plan, as large as the page lets it, with numbers; what each is stands beside and below it. */
function printPlaces(
  marks: Extract<CardBlock, { kind: "places" }>["marks"],
  { rig, paper }: PackQuestion,
  sizePt: number,
): Content {
  const innerPt = pageOf[paper].width - 2 * marginPt;
  const deckPt = innerPt * 0.46;
  const row = ({ number, label, where }: (typeof marks)[number]): TableCell[] => [
    { text: String(number), font: "Archivo", bold: true, alignment: "right", fontSize: sizePt * 0.85 },
    {
      text: [
        ...write(label, { bold: true, fontSize: sizePt * 0.85 }),
        ...write(`  ${where}`, { fontSize: sizePt * 0.78, color: soft }),
      ],
    },
  ];
  return {
    margin: margins(0, sizePt * 0.5, 0, 0),
    columnGap: 10,
    columns: [
      {
        width: deckPt,
        svg: printDeck(
          rig,
          marks.map(({ number, xM, yM, at }) => ({ label: String(number), xM, yM, at })),
        ),
        fit: [deckPt, pageOf[paper].height - 130],
      },
      {
        width: "*",
        table: { widths: [sizePt * 1.5, "*"], dontBreakRows: true, body: marks.map(row) },
        layout: ruled(sizePt * 0.8),
      },
    ],
  };
}

/** The label for the helm: a code that opens the owner's page. */
async function printLabel(question: PackQuestion, address: string): Promise<Buffer> {
  const { boatName, hull, store, picture, paper, language } = question;
  const tell = createTell(question.book);
  const code = await QRCode.toString(address, { type: "svg", margin: 0, errorCorrectionLevel: "M" });
  const { width } = pageOf[paper];
  return printPdf({
    pageSize: pageOf[paper],
    pageMargins: [marginPt, 60, marginPt, 32],
    info: { title: tell("Label for the helm"), author: store },
    language,
    defaultStyle: { font: "Atkinson", fontSize: 12, color: ink },
    content: [
      {
        table: {
          widths: ["*"],
          body: [
            [
              {
                stack: [
                  { text: write(boatName, { font: "Archivo", bold: true, fontSize: 24 }), alignment: "center" },
                  {
                    text: write(hull, { fontSize: 11, color: soft }),
                    alignment: "center",
                    margin: margins(0, 0, 0, 14),
                  },
                  { svg: code, fit: [width * 0.46, width * 0.46], alignment: "center" },
                  {
                    text: tell("Cards, record, what we owe you, a question to us"),
                    alignment: "center",
                    bold: true,
                    margin: margins(0, 14, 0, 2),
                  },
                  { stack: printLogo(picture, 30), alignment: "center" },
                  { text: write(store, { fontSize: 10, color: soft }), alignment: "center" },
                ],
                margin: margins(10, 16, 10, 16),
              },
            ],
          ],
        },
        layout: { hLineColor: () => ink, vLineColor: () => ink, hLineWidth: () => 1, vLineWidth: () => 1 },
      },
      {
        text: tell(
          "Cut out and stick where the helm is, out of the sun. Whoever has the code can read the page: ask the yard for a new address when the boat changes hands.",
        ),
        fontSize: 9,
        color: magenta,
        margin: margins(0, 14, 0, 0),
      },
    ],
  });
}
