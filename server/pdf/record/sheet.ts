import type { Content, ContentTable, TableCell } from "pdfmake/interfaces";
import type { Delivery } from "../../../api/index.ts";
import { dayOf, type Instant, minutesOfDay } from "../../../core/dates/index.ts";
import type { Language, Tell } from "../../../core/language/index.ts";
import { formatTime, type Region } from "../../../core/region/index.ts";
import { type Entry, judgeTime, type OwedKind, type WalkState } from "../../../core/walk/index.ts";
import { createDays, type Days } from "../../days.ts";
import { ink, rule, soft } from "../ink.ts";
import { write } from "../printer.ts";

export const markWords = {
  told: "told",
  shown: "shown",
  did: "did it",
  later: "later",
  "not-aboard": "not aboard",
} as const;
export const owedWords: Record<OwedKind, string> = {
  later: "Later",
  snag: "Snag",
  gear: "Gear short",
  must: "Must, not done",
  promise: "Promised",
  extra: "Sold, not fitted",
  question: "Question",
};
export const severityWords = {
  stop: "stops the handover",
  "before-leaving": "before leaving",
  "by-date": "by a date",
  cosmetic: "cosmetic",
  note: "note",
} as const;

export interface Sheet extends Days {
  readonly delivery: Delivery;
  /** As it stood when it was sealed; of a draft as it stands now. */
  readonly state: WalkState;
  /** With everything added since. */
  readonly now: WalkState;
  /** What came after the seal, the first first. */
  readonly added: readonly Entry[];
  readonly spelling: Region["spelling"];
  /** Words in the language of whoever the paper is for. */
  readonly tell: Tell;
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  readonly nameOf: (id: string) => string;
  /** Hours and minutes of an instant in the store's zone. */
  readonly clockOf: (instant: Instant | null) => string;
  /** Day, hours and minutes of an instant in the store's zone. */
  readonly dayOf: (instant: Instant) => string;
  /** Its day alone. */
  readonly dateOf: (instant: Instant) => string;
}

export function createTimes(
  timeZone: string,
  region: Region,
  language: Language,
): Pick<Sheet, "clockOf" | "dayOf" | "dateOf" | "printDay" | "printShortDay"> {
  const { printDay, printShortDay } = createDays(region, language);
  const clockOf = (instant: Instant) => formatTime(minutesOfDay(instant, timeZone), region.clock, language);
  return {
    printDay,
    printShortDay,
    clockOf: (instant) => (instant === null ? "–" : clockOf(instant)),
    dayOf: (instant) => `${printShortDay(dayOf(instant, timeZone))}, ${clockOf(instant)}`,
    dateOf: (instant) => printShortDay(dayOf(instant, timeZone)),
  };
}

/** When an entry came, where that is not explained by the time it bears: it waited without signal, or the device's clock was off. */
export function sayReceipt(
  entry: Entry,
  { delivery, dayOf, dateOf, clockOf, tell }: Pick<Sheet, "delivery" | "dayOf" | "dateOf" | "clockOf" | "tell">,
): string {
  const receipt = delivery.receipts[entry.id];
  if (receipt?.receivedAt == null) return "";
  const isSameDay = dateOf(receipt.receivedAt) === dateOf(entry.at);
  const came = isSameDay ? clockOf(receipt.receivedAt) : dayOf(receipt.receivedAt);
  switch (judgeTime(entry, receipt)) {
    case "fits":
      return "";
    case "offline":
      return tell("received {0}, without signal until then", came);
    case "off":
      return tell("the device's own time; received {0}", came);
    default:
      throw new Error("sayReceipt: expected a known judgement");
  }
}

/** When something was, and when it came where that does not say it. */
export const sayTime = (
  entry: Entry,
  format: (at: Instant) => string,
  sheet: Parameters<typeof sayReceipt>[1],
): string => [format(entry.at), sayReceipt(entry, sheet)].filter((each) => each !== "").join("; ");

export const heading = (text: string, note = ""): Content => ({
  margin: [0, 14, 0, 4],
  text: [
    ...write(text, { font: "Archivo", bold: true, fontSize: 12.5 }),
    ...write(note === "" ? "" : `   ${note}`, { fontSize: 9, color: soft }),
  ],
});

export const lined = (widths: (string | number)[], body: TableCell[][], headerRows = 1): ContentTable => ({
  table: { widths, body, headerRows, dontBreakRows: true, keepWithHeaderRows: headerRows },
  layout: {
    hLineWidth: (i) => (i === 0 ? 0 : i === headerRows ? 0.8 : 0.4),
    hLineColor: (i) => (i === headerRows ? ink : rule),
    vLineWidth: () => 0,
    paddingLeft: () => 0,
    paddingRight: () => 8,
    paddingTop: () => 2.6,
    paddingBottom: () => 2.2,
  },
});
export const label = (text: string, right = false): TableCell => ({
  text: write(text, { font: "Archivo", bold: true, fontSize: 7.8, color: soft }),
  alignment: right ? "right" : "left",
});
