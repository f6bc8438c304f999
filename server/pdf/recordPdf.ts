import type { TDocumentDefinitions } from "pdfmake/interfaces";
import type { Delivery } from "../../api/index.ts";
import { createTell } from "../../core/language/index.ts";
import { ownerId } from "../../core/walk/index.ts";
import { ink } from "./ink.ts";
import { type Letterhead, printFoot } from "./letterhead.ts";
import type { PaperReader } from "./paperReader.ts";
import { printPdf } from "./printer.ts";
import { cautionPart, gearPart, head, owedPart, putRightPart, remotePart, topicPart } from "./record/explained.ts";
import { readRecord } from "./record/printedPhotos.ts";
import { amendmentPart, measurePart, photoPart, readyPart, signPart } from "./record/proof.ts";
import { createTimes, type Sheet } from "./record/sheet.ts";

interface RecordOptions {
  readonly paper: "a4" | "letter";
  readonly reader: PaperReader;
  readonly timeZone: string;
  /** The small versions of its photos (`listPrintedPhotos`), JPEG, by id; one that has not arrived is not among them. */
  readonly pictures: ReadonlyMap<string, Uint8Array>;
}

/** The record of a handover as a PDF for Letter or A4: what was explained, by whom, what was given, what is owed. */
export async function writeRecordPdf(
  delivery: Delivery,
  store: Letterhead,
  { paper, reader, timeZone, pictures }: RecordOptions,
): Promise<Buffer> {
  const { state, later, now } = readRecord(delivery);
  const struck = new Set(delivery.strikes.flatMap((strike) => strike.entries));
  const added = later.filter(({ id, kind }) => kind !== "close" && !struck.has(id));
  const came = [...now.present.values()].map(({ person, name }): [string, string] => [person, name]);
  const people = new Map([...delivery.staff, ...delivery.buyers].map(({ id, name }) => [id, name]));
  for (const [id, name] of came) people.set(id, name);
  const tell = createTell(reader.book);
  people.set(ownerId, tell("the owner, on their own page"));
  const sheet: Sheet = {
    delivery,
    state,
    now,
    added,
    spelling: store.region.spelling,
    tell,
    pictures,
    nameOf: (id) => people.get(id) ?? id,
    ...createTimes(timeZone, store.region, reader.language),
  };
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `${tell("Record of handover")}, ${delivery.boatName}, ${delivery.date}`, author: store.store },
    tagged: true,
    displayTitle: true,
    language: reader.language,
    defaultStyle: { font: "Atkinson", fontSize: 9.5, lineHeight: 1.15, color: ink },
    content: [
      head(sheet, store, paper === "a4" ? 499 : 516),
      ...owedPart(sheet),
      ...putRightPart(sheet),
      ...topicPart(sheet),
      ...remotePart(sheet),
      ...photoPart(sheet),
      ...measurePart(sheet),
      ...gearPart(sheet),
      ...readyPart(sheet),
      ...cautionPart(sheet),
      signPart(sheet),
      ...amendmentPart(sheet),
    ],
    footer: printFoot(`${delivery.boatName} · ${delivery.hull} · ${sheet.printDay(delivery.date)}`, store, tell),
  };
  return printPdf(document);
}
