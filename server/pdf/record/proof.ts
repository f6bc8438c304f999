import type { Content, TableCell } from "pdfmake/interfaces";
import type { Delivery } from "../../../api/index.ts";
import { formatMeasure, judgeMeasure, listMeasures } from "../../../core/measure/index.ts";
import { spellText } from "../../../core/region/index.ts";
import {
  classifyLater,
  type Entry,
  type EntryOf,
  findSignature,
  formatEntry,
  formatStrike,
  isInOrder,
  joinSteps,
  listSetAside,
  type SignRole,
  sayJoined,
  struckFirstWords,
  type WalkState,
} from "../../../core/walk/index.ts";
import { ink, magenta, printSignature, soft } from "../ink.ts";
import { write } from "../printer.ts";
import { heading, label, lined, type Sheet, sayReceipt, sayTime } from "./sheet.ts";

const photoColumns = 4;
const photoWidthPt = 118;

export function photoPart({ delivery, now, pictures, dayOf, tell }: Sheet): Content[] {
  if (pictures.size === 0) return [];
  const titleOf = new Map(delivery.topics.map(({ id, title }) => [id, title]));
  const cells = now.photos.flatMap((entry): TableCell[] => {
    const bytes = pictures.get(entry.photo);
    if (bytes === undefined) return [];
    return [
      {
        stack: [
          {
            image: `data:image/jpeg;base64,${Buffer.from(bytes).toString("base64")}`,
            fit: [photoWidthPt, photoWidthPt * 0.75],
          },
          { text: write(formatPhoto(entry, now, titleOf), { fontSize: 7.5 }) },
          { text: dayOf(entry.at), fontSize: 7, color: soft },
        ],
      },
    ];
  });
  const rows: TableCell[][] = [];
  for (let i = 0; i < cells.length; i += photoColumns) {
    const row = cells.slice(i, i + photoColumns);
    while (row.length < photoColumns) row.push("");
    rows.push(row);
  }
  const missing = now.photos.length - pictures.size;
  return [
    heading(tell("Photos"), missing > 0 ? tell("{0} more are not printed here", missing) : ""),
    {
      table: { widths: Array.from({ length: photoColumns }, () => "*"), body: rows, dontBreakRows: true },
      layout: { defaultBorder: false, paddingLeft: () => 0, paddingRight: () => 6, paddingBottom: () => 6 },
    },
  ];
}

/** What a photo shows: its snag, its topic, or what else it was taken with. */
function formatPhoto(photo: EntryOf<"photo">, state: WalkState, titleOf: ReadonlyMap<string, string>): string {
  const isOf = ({ id }: Entry) => id === photo.ref;
  const of = photo.ref === null ? undefined : (state.snags.find(isOf) ?? state.counted.find(isOf));
  if (of !== undefined && "note" in of && of.note !== undefined) return of.note;
  return photo.topic === null ? "" : (titleOf.get(photo.topic) ?? photo.topic);
}

export function measurePart(sheet: Sheet): Content[] {
  const { delivery, state, nameOf, clockOf, spelling, tell } = sheet;
  const taken = listMeasures(delivery.rig, tell).flatMap((measure): TableCell[][] => {
    const entry = state.measures.get(measure.id);
    if (entry === undefined) return [];
    const { verdict, says } = judgeMeasure(measure, entry, tell);
    const isOff = verdict === "over" || verdict === "tight";
    return [
      [
        { text: write(spellText(measure.label, spelling)) },
        { text: formatMeasure(measure, entry), alignment: "right" },
        {
          text: write([says, sayReceipt(entry, sheet)].filter((line) => line !== "").join("\n")),
          color: isOff ? magenta : soft,
        },
        { text: write(nameOf(entry.by)) },
        { text: clockOf(entry.at), alignment: "right" },
      ],
    ];
  });
  if (taken.length === 0) return [];
  return [
    heading(
      tell("Measured"),
      tell("held against the plate or the resting volts of the chemistry; the makers' figures come first"),
    ),
    lined(
      [118, 62, "*", 84, 34],
      [
        [
          label(tell("What")),
          label(tell("Reading"), true),
          label(tell("Means")),
          label(tell("By")),
          label(tell("At"), true),
        ],
        ...taken,
      ],
    ),
  ];
}

/** Make-ready in a paragraph: what was checked, by whom, what was left open and who answered for it. */
export function readyPart({ delivery, state, nameOf, dayOf, tell }: Sheet): Content[] {
  const { makeReady } = delivery;
  const done = makeReady.filter((check) => isInOrder(state, check));
  if (makeReady.length === 0 || done.length === 0) return [];
  const by = [...new Set(done.map(({ id }) => nameOf(state.ready.get(id)!.by)))].join(", ");
  const last = done
    .map(({ id }) => state.ready.get(id)!.at)
    .sort()
    .at(-1)!;
  const run = done.flatMap(({ id }) => state.ready.get(id)!.minutes ?? []).reduce((sum, minutes) => sum + minutes, 0);
  const open = makeReady.filter((check) => !done.includes(check));
  const panel = done.filter((check) => check.switch !== null).length;
  return [
    heading(tell("Made ready before"), tell("{0} of {1} checks", done.length, makeReady.length)),
    {
      text: [
        ...write(`${tell("By {0}, last on {1}. {2} panel positions tried.", by, dayOf(last), panel)} `),
        ...write(run > 0 ? `${tell("Engines run for {0} min.", run)} ` : ""),
        ...write(open.length === 0 ? "" : `${tell("Left open: {0}.", open.map(({ title }) => title).join("; "))} `, {
          color: magenta,
        }),
        ...write(
          state.allowed === null
            ? ""
            : tell("{0} allowed the walk to start anyway: {1}", nameOf(state.allowed.by), state.allowed.reason),
          { color: magenta },
        ),
      ],
    },
  ];
}

/** What came after the seal, each line in words. */
export function amendmentPart(sheet: Sheet): Content[] {
  const { delivery, added, nameOf, dayOf, tell } = sheet;
  const { strikes } = delivery;
  if (added.length + strikes.length === 0) return [];
  const titleOf = new Map(delivery.topics.map(({ id, title }) => [id, title]));
  return [
    heading(tell("Added after signing"), tell("each addition is chained to the seal before it")),
    lined(
      [92, "*", 92],
      [
        [label(tell("When")), label(tell("What")), label(tell("By"))],
        ...joinSteps(added).map(({ entry, steps }): TableCell[] => [
          dayOf(entry.at),
          {
            text: [
              ...write(
                sayJoined({ entry, steps }, tell) ?? formatEntry(entry, delivery, (id) => titleOf.get(id) ?? id, tell),
              ),
              ...write(describeClaim(entry, sheet), { fontSize: 8, color: soft }),
            ],
          },
          { text: write(nameOf(entry.by)) },
        ]),
        ...strikes.map((strike): TableCell[] => [
          dayOf(strike.at),
          {
            text: [
              ...write(`${formatStrike(strike, tell)} ${strike.reason}`),
              ...write(
                `\n${delivery.snapshot === null ? tell(struckFirstWords) : tell("the hashes stay, so that the rest still verifies")}`,
                { fontSize: 8, color: soft },
              ),
            ],
          },
          { text: write(nameOf(strike.by)) },
        ]),
      ],
    ),
  ];
}

/** What an addition is to the sealed record, and when it came where its own time does not say it. */
function describeClaim(entry: Entry, sheet: Sheet): string {
  const { delivery, tell } = sheet;
  const claim = claimWords[classifyLater(entry, delivery.uncovered.includes(entry.id))];
  const lines = [sayReceipt(entry, sheet), claim === "" ? "" : tell(claim)];
  return lines.map((line) => (line === "" ? "" : `\n${line}`)).join("");
}

export const claimWords = {
  uncovered: "not covered by the signatures",
  claim: "a later claim: what was signed stays as it is",
  addition: "",
};

export const signWords: Record<SignRole, string> = {
  buyer: "The marks above are right, the gear was received, and I know what is owed.",
  staff: "I explained this boat as marked above.",
  countersign: "I was there and saw it.",
};

export const unsignedWords: Record<SignRole, string> = {
  buyer: "buyer: not signed",
  staff: "staff: not signed",
  countersign: "countersign: not signed",
};

const sayUndone = ({ by, reason }: EntryOf<"undo">, time: string, { nameOf, tell }: Sheet) =>
  reason === undefined
    ? tell("Taken back by {0} ({1}).", nameOf(by), time)
    : tell("Taken back by {0} ({1}): {2}", nameOf(by), time, reason);

export function signPart(sheet: Sheet): Content {
  const { delivery, state, nameOf, dayOf, tell } = sheet;
  const titles = new Map(delivery.topics.map(({ id, title }) => [id, title]));
  const titleOf = (id: string) => titles.get(id) ?? id;
  const pad = (signed: EntryOf<"sign"> | null, role: SignRole) => signPad(signed, role, sheet);
  /** When it was, and when it came where that does not say it. */
  const timeOf = (entry: Entry) => sayTime(entry, dayOf, sheet);
  const isRefused = state.refusals.length > 0;
  const buyers = state.signatures.filter(({ role }) => role === "buyer");
  const pads = [
    ...(buyers.length === 0 && !isRefused ? [pad(null, "buyer")] : buyers.map((sign) => pad(sign, "buyer"))),
    pad(findSignature(state, "staff"), "staff"),
    ...state.signatures.filter(({ role }) => role === "countersign").map((sign) => pad(sign, "countersign")),
  ];
  const rows = [];
  for (let i = 0; i < pads.length; i += 2) rows.push({ columnGap: 24, columns: [pads[i]!, pads[i + 1] ?? ""] });
  return {
    unbreakable: true,
    stack: [
      heading(tell("Signed")),
      ...state.takenBack.map(
        ({ sign, by }): Content => ({
          text: write(tell("{0} signed ({1}) and took it back ({2}).", sign.name, timeOf(sign), timeOf(by)), {
            color: soft,
          }),
          margin: [0, 0, 0, 6],
        }),
      ),
      ...state.undone.map(
        ({ what, by }): Content => ({
          text: write(
            `${formatEntry(what, { rig: delivery.rig, entries: state.counted }, titleOf, tell)}. ${sayUndone(by, timeOf(by), sheet)}`,
            { color: soft },
          ),
          margin: [0, 0, 0, 6],
        }),
      ),
      ...listSetAside(state, delivery.entries).map((entry): Content => {
        const says = formatEntry(entry, delivery, titleOf, tell);
        return {
          text: write(tell("Unknown to whoever signed: {0} ({1}, {2}).", says, nameOf(entry.by), timeOf(entry)), {
            color: magenta,
          }),
          margin: [0, 0, 0, 6],
        };
      }),
      ...state.refusals.map(
        (refusal): Content => ({
          text: write(tell("{0} did not sign ({1}): {2}", refusal.name, timeOf(refusal), refusal.reason), {
            color: magenta,
          }),
          margin: [0, 0, 0, 8],
        }),
      ),
      ...rows,
      ...sealLines(sheet),
    ],
  };
}

function signPad(signed: EntryOf<"sign"> | null, role: SignRole, sheet: Sheet): Content {
  const { dayOf, tell } = sheet;
  // What was signed stands in the words that were shown.
  const says = signed?.signsFor ?? [tell(signWords[role])];
  return {
    stack: [
      signed === null
        ? { text: tell(unsignedWords[role]), color: soft, margin: [0, 30, 0, 10] }
        : { svg: printSignature(signed), fit: [220, 62] },
      { canvas: [{ type: "line", x1: 0, y1: 2, x2: 232, y2: 2, lineWidth: 0.8, lineColor: ink }] },
      { text: write(signed?.name ?? "", { bold: true }), margin: [0, 4, 0, 0] },
      ...says.map((line): Content => ({ text: write(line, { fontSize: 8, color: soft }) })),
      { text: signed === null ? "" : dayOf(signed.at), fontSize: 8, color: soft },
      { text: write(signed === null ? "" : sayReceipt(signed, sheet)), fontSize: 8, color: soft },
    ],
    margin: [0, 0, 0, 10],
  };
}

function sealLines({ delivery: { seal }, dayOf, tell }: Sheet): Content[] {
  if (seal === null) return [];
  const fine = (text: string, abovePt: number): Content => ({
    text: write(text),
    fontSize: 8,
    color: soft,
    margin: [0, abovePt, 0, 0],
  });
  const code = (text: string): Content => ({ text, font: "Archivo", fontSize: 8.5 });
  const { from } = seal;
  const signed =
    from === null
      ? tell("signed with this store's public key (Ed25519)")
      : tell("signed with that store's public key (Ed25519)");
  return [
    fine(tell("SHA-256 of the sealed record, number {0} in this store's seal chain", seal.number), 8),
    code(seal.sha256),
    ...(from === null ? [] : sayTaken(from, { dayOf, tell }).map((line) => fine(line, 4))),
    ...(seal.key === null ? [] : [fine(signed, 4), code(seal.key)]),
  ];
}

/** Whose record it is, by whom it was taken in, and how it was checked then. */
function sayTaken(
  { store, taken }: NonNullable<NonNullable<Delivery["seal"]>["from"]>,
  { dayOf, tell }: Pick<Sheet, "dayOf" | "tell">,
): string[] {
  if (taken === null) return [store, tell("how it was checked then was not noted")];
  const line = tell("sealed by {0}, taken in {1} by {2}", store, dayOf(taken.at), taken.by);
  return taken.verdict === "signed" ? [line] : [line, tell("it bore no signature when it was taken in")];
}
