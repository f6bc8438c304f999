import type { Content, ContentTable, TableCell, TDocumentDefinitions } from "pdfmake/interfaces";
import type { Delivery } from "../../api/index.ts";
import { judgeMeasure, listMeasures, sayMeasure } from "../../core/measure/index.ts";
import { systemNames, systems, type Topic } from "../../core/topic/index.ts";
import {
  type Entry,
  type EntryOf,
  findSignature,
  foldWalk,
  isCovered,
  listDisputed,
  listHands,
  listOpenTopics,
  listOwed,
  type OwedKind,
  ownerId,
  type SignRole,
  sayEntry,
  type WalkState,
} from "../../core/walk/index.ts";
import type { Settings } from "../repositories/settings.ts";
import { amber, ink, magenta, printDeck, printMark, printSignature, rule, soft } from "./ink.ts";
import { printPdf, write } from "./printer.ts";

const markWords = { told: "told", shown: "shown", did: "did it", later: "later", "not-aboard": "not aboard" } as const;
const owedWords: Record<OwedKind, string> = {
  later: "Later",
  snag: "Snag",
  gear: "Gear short",
  must: "Must, not done",
  promise: "Promised",
  extra: "Sold, not fitted",
  question: "Question",
};
const severityWords = {
  stop: "stops the handover",
  "before-leaving": "before leaving",
  "by-date": "by a date",
  cosmetic: "cosmetic",
  note: "note",
} as const;

interface Sheet {
  readonly delivery: Delivery;
  /** As it stood when it was sealed; of a draft as it stands now. */
  readonly state: WalkState;
  /** With everything added since. */
  readonly now: WalkState;
  /** What came after the seal, the first first. */
  readonly added: readonly Entry[];
  readonly pictures: ReadonlyMap<string, Buffer>;
  readonly nameOf: (id: string) => string;
  /** Hours and minutes of an instant in the store's zone. */
  readonly clockOf: (instant: string | null) => string;
  /** Day, hours and minutes of an instant in the store's zone. */
  readonly dayOf: (instant: string) => string;
}

function createTimes(timeZone: string): Pick<Sheet, "clockOf" | "dayOf"> {
  const clock = new Intl.DateTimeFormat("en-GB", { timeZone, hour: "2-digit", minute: "2-digit" });
  const day = new Intl.DateTimeFormat("en-GB", {
    timeZone,
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  });
  return {
    clockOf: (instant) => (instant === null ? "–" : clock.format(new Date(instant))),
    dayOf: (instant) => day.format(new Date(instant)),
  };
}

/** A calendar day in words. It has no time zone: noon UTC is that day everywhere it is printed. */
const longDate = new Intl.DateTimeFormat("en-GB", { timeZone: "UTC", day: "numeric", month: "long", year: "numeric" });

const mostPhotos = 60;

interface RecordOptions {
  readonly paper: "a4" | "letter";
  readonly timeZone: string;
  /** A photo's small version, JPEG; null when it has not arrived. */
  readonly readPhoto: (id: string) => Promise<Buffer | null>;
}

/** The record of a handover as a PDF for Letter or A4: what was explained, by whom, what was given, what is owed. */
export async function writeRecordPdf(
  delivery: Delivery,
  store: Settings,
  { paper, timeZone, readPhoto }: RecordOptions,
): Promise<Buffer> {
  const { entries } = delivery;
  const now = foldWalk(entries);
  const isAdded = new Set(delivery.added);
  const added = now.standing.filter(({ id, kind }) => isAdded.has(id) && kind !== "close");
  const state = isAdded.size === 0 ? now : foldWalk(entries.filter(({ id }) => !isAdded.has(id)));
  const came = [...now.present.values()].map(({ person, name }): [string, string] => [person, name]);
  const people = new Map([...delivery.staff, ...delivery.buyers].map(({ id, name }) => [id, name]));
  for (const [id, name] of came) people.set(id, name);
  people.set(ownerId, "the owner, on their own page");
  const pictures = new Map<string, Buffer>();
  for (const { photo } of now.photos.slice(0, mostPhotos)) {
    const bytes = await readPhoto(photo);
    if (bytes !== null) pictures.set(photo, bytes);
  }
  const sheet: Sheet = {
    delivery,
    state,
    now,
    added,
    pictures,
    nameOf: (id) => people.get(id) ?? id,
    ...createTimes(timeZone),
  };
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `Record of handover, ${delivery.boatName}, ${delivery.date}`, author: store.store },
    tagged: true,
    displayTitle: true,
    language: "en",
    defaultStyle: { font: "Atkinson", fontSize: 9.5, lineHeight: 1.15, color: ink },
    content: [
      head(sheet, store, paper === "a4" ? 499 : 516),
      ...owedPart(sheet),
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
    footer: (page, pages) => ({
      margin: [48, 14, 48, 0],
      columns: [
        { text: write(`${delivery.boatName} · ${delivery.hull} · ${delivery.date}`, { fontSize: 8, color: soft }) },
        { text: `page ${page} of ${pages}`, fontSize: 8, color: soft, alignment: "right" },
      ],
    }),
  };
  return printPdf(document);
}

const heading = (text: string, note = ""): Content => ({
  margin: [0, 14, 0, 4],
  text: [
    ...write(text, { font: "Archivo", bold: true, fontSize: 12.5 }),
    ...write(note === "" ? "" : `   ${note}`, { fontSize: 9, color: soft }),
  ],
});

const lined = (widths: (string | number)[], body: TableCell[][], headerRows = 1): ContentTable => ({
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
const label = (text: string, right = false): TableCell => ({
  text: write(text, { font: "Archivo", bold: true, fontSize: 7.8, color: soft }),
  alignment: right ? "right" : "left",
});

/** The first half page. `widthPt`: what the paper leaves between its margins. */
function head({ delivery, state, nameOf, clockOf, dayOf }: Sheet, store: Settings, widthPt: number): Content {
  const { rig, plan } = delivery;
  const stops = plan.visits.map(({ station }, i) => ({
    label: String(i + 1),
    ...rig.stations.find(({ id }) => id === station)!.at,
  }));
  const first = stops.filter((stop, i) => stops.findIndex((s) => s.xM === stop.xM && s.yM === stop.yM) === i);
  const covered = delivery.topics.filter((topic) => isCovered(topic, state));
  const musts = delivery.topics.filter(({ must }) => must);
  const spentMin = Math.round([...state.topics.values()].reduce((sum, topic) => sum + topic.spentS, 0) / 60);
  const facts: [string, string][] = [
    ["Boat", `${rig.maker} ${rig.model}, ${rig.modelYear}`],
    ["Hull number", delivery.hull],
    ["Handed to", delivery.buyers.map(({ name }) => name).join(", ")],
    ["Walked by", delivery.staff.map(({ name }) => name).join(", ") || "–"],
    [
      "Date",
      `${longDate.format(new Date(`${delivery.date}T12:00:00Z`))}, from ${clockOf(state.startedAt)} to ${clockOf(state.lastAt)}`,
    ],
    [
      "On topics",
      `${spentMin} min, ${covered.length} of ${delivery.topics.length} topics, ${musts.filter((topic) => isCovered(topic, state)).length} of ${musts.length} must-do`,
    ],
    ...rig.engines.map((engine): [string, string] => {
      const read = state.hours.get(engine.id);
      return [
        engine.label,
        read === undefined ? "hours not read" : `${read.hours.toFixed(1)} h on the meter, read by ${nameOf(read.by)}`,
      ];
    }),
    ["Seal", delivery.seal === null ? "NOT SIGNED YET: this is a draft" : `sealed ${dayOf(delivery.seal.sealedAt)}`],
  ];
  return {
    stack: [
      {
        columns: [
          { text: write(store.store, { font: "Archivo", bold: true, fontSize: 10 }) },
          { text: "Record of handover", alignment: "right", font: "Archivo", fontSize: 10, color: soft },
        ],
      },
      { canvas: [{ type: "line", x1: 0, y1: 4, x2: widthPt, y2: 4, lineWidth: 1, lineColor: ink }] },
      { text: write(delivery.boatName, { font: "Archivo", bold: true, fontSize: 25 }), margin: [0, 8, 0, 8] },
      {
        columns: [
          { svg: printDeck(rig, first), fit: [140, 320], width: 140 },
          {
            width: "*",
            ...lined(
              [78, "*"],
              facts.map(([name, value]): TableCell[] => [label(name), { text: write(value) }]),
              0,
            ),
          },
        ],
        columnGap: 18,
      },
    ],
  };
}

function owedPart({ delivery, state }: Sheet): Content[] {
  const owed = listOwed(delivery.topics, delivery.rig.gear, state);
  const open = listOpenTopics(delivery.topics, state).filter(({ why }) => why !== "later");
  const rows = owed.map(({ what, text, since, severity, owner, due }): TableCell[] => [
    {
      text: [
        { text: owedWords[what], color: what === "snag" ? magenta : ink, bold: what === "snag" },
        ...write(severity === null ? "" : `\n${severityWords[severity]}`, { fontSize: 8, color: soft }),
      ],
    },
    {
      text: [
        ...write(text),
        ...write(owner === null ? "" : `\ntaken care of by ${owner}`, { fontSize: 8, color: soft }),
      ],
    },
    { text: due ?? "no day given", color: due === null ? soft : ink, alignment: "right" },
    { text: since.slice(0, 10), alignment: "right" },
  ]);
  const note =
    open.length === 0 ? "" : `${open.length} further topics were not taken as far as planned; they are marked below`;
  return [
    heading("Owed to the buyer", note),
    rows.length === 0
      ? { text: "Nothing is owed.", color: soft }
      : lined(
          [86, "*", 60, 54],
          [[label("Kind"), label("What"), label("Promised for", true), label("Since", true)], ...rows],
        ),
  ];
}

const remoteWords = { understood: "read and understood on the owner page", did: "did it, on the owner page" } as const;

function topicPart({ delivery, state, nameOf, clockOf, dayOf }: Sheet): Content[] {
  const row = (topic: Topic): TableCell[] => {
    const told = state.topics.get(topic.id);
    const reason = state.reasons.get(topic.id);
    const hands = [...listHands(topic, delivery.buyers, state)];
    const isTold = told !== undefined && (told.people.size > 0 || (topic.must && topic.level === "done"));
    const who = !isTold
      ? ""
      : hands.map(([id, mark]) => `${nameOf(id)}: ${mark === null ? "not marked" : markWords[mark]}`).join(", ");
    const disputed = told === undefined ? [] : listDisputed(told);
    const remote = state.remote.get(topic.id);
    return [
      { svg: printMark(told?.mark ?? "open"), width: 8.5, margin: [0, 1, 0, 0] },
      {
        text: [
          ...write(topic.title, { bold: topic.must }),
          ...write(topic.must ? "  must" : "", { fontSize: 7.5, color: soft }),
          ...write(who === "" ? "" : `\n${who}`, { fontSize: 8, color: soft }),
          ...write(
            disputed
              .map((other) => `\nalso marked ${markWords[other.mark]} by ${nameOf(other.by)} at ${clockOf(other.at)}`)
              .join(""),
            { fontSize: 8, color: soft },
          ),
          ...write(told?.entry.note === undefined ? "" : `\n${told.entry.note}`, { fontSize: 8, color: soft }),
          ...write(remote === undefined ? "" : `\nRemote: ${remoteWords[remote.as]} (${dayOf(remote.at)})`, {
            fontSize: 8,
            color: soft,
          }),
          ...write(reason === undefined ? "" : `\nNot done: ${reason.reason}`, { fontSize: 8, color: magenta }),
        ],
      },
      { text: told === undefined ? "not reached" : markWords[told.mark], color: told === undefined ? soft : ink },
      { text: write(told === undefined ? "" : nameOf(told.entry.by)) },
      { text: told === undefined ? "" : clockOf(told.entry.at), alignment: "right" },
    ];
  };
  const parts = systems.flatMap((system): Content[] => {
    const topics = delivery.topics.filter((topic) => topic.system === system);
    if (topics.length === 0) return [];
    // What nobody touched and nobody must is named in one paragraph: the rows are for what was done.
    const isUntouched = ({ id, must }: Topic) =>
      !must && !state.topics.has(id) && !state.remote.has(id) && !state.reasons.has(id);
    const untouched = topics.filter(isUntouched);
    return [
      lined(
        [12, "*", 62, 92, 34],
        [
          ["", label(systemNames[system]), label("Mark"), label("By"), label("At", true)],
          ...topics.filter((topic) => !isUntouched(topic)).map(row),
        ],
      ),
      {
        text: write(untouched.length === 0 ? "" : `Not reached: ${untouched.map(({ title }) => title).join("; ")}.`, {
          fontSize: 8,
          color: soft,
        }),
        margin: [12, 3, 0, 10],
      },
    ];
  });
  return [heading("What was explained"), ...parts];
}

function cautionPart({ delivery, state }: Sheet): Content[] {
  const given = delivery.topics.filter((topic) => {
    const mark = state.topics.get(topic.id)?.mark;
    return topic.cautions.length > 0 && (mark === "told" || mark === "shown" || mark === "did");
  });
  if (given.length === 0) return [];
  return [
    heading("Cautions given", "local rules, the boat's plates and the makers' manuals come first"),
    {
      ul: given.flatMap((topic) =>
        topic.cautions.map((caution) => ({
          text: [
            ...write(`${topic.title}: `, { color: amber, bold: true, fontSize: 8.6 }),
            ...write(caution, { fontSize: 8.6 }),
          ],
          margin: [0, 0, 0, 2] as [number, number, number, number],
        })),
      ),
      markerColor: amber,
    },
  ];
}

function gearPart({ delivery, state }: Sheet): Content[] {
  const rows = delivery.rig.gear.map((item): TableCell[] => {
    const counted = state.gear.get(item.id)?.count;
    const short = counted !== undefined && counted < item.count;
    return [
      { text: write(item.label, { bold: item.must }) },
      { text: String(item.count), alignment: "right" },
      {
        text: counted === undefined ? "–" : String(counted),
        alignment: "right",
        bold: short,
        color: short ? magenta : ink,
      },
      {
        text: counted === undefined ? "not yet" : short ? `${item.count - counted} short` : "",
        color: short ? magenta : soft,
      },
    ];
  });
  const middle = Math.ceil(rows.length / 2);
  const half = (part: TableCell[][]) =>
    lined(["*", 26, 36, 42], [[label("Item"), label("Sold", true), label("Counted", true), ""], ...part]);
  return [
    heading("Handed over and counted"),
    { columnGap: 20, columns: [half(rows.slice(0, middle)), half(rows.slice(middle))] },
  ];
}

/** Says plainly what was not face to face. */
function remotePart({ delivery, state, nameOf, dayOf }: Sheet): Content[] {
  const { remote, inspected } = state;
  if (remote.size === 0 && inspected.size === 0) return [];
  const checks = delivery.arrival.filter(({ id }) => inspected.has(id));
  const said =
    remote.size === 0
      ? []
      : [
          {
            text: write(
              `${remote.size} of ${delivery.topics.length} topics were gone through by the owner on their own page, without anybody of the store beside them. They are marked "Remote" above.`,
            ),
            margin: [0, 0, 0, 6] as [number, number, number, number],
          },
        ];
  if (checks.length === 0) return [heading("Remote handover"), ...said];
  return [
    heading("Remote handover"),
    ...said,
    lined(
      ["*", 70, 120, 92],
      [
        [label("Looked at on arrival"), label("Found"), label("By"), label("When", true)],
        ...checks.map(({ id, title }): TableCell[] => {
          const entry = inspected.get(id)!;
          return [
            {
              text: [
                ...write(title),
                ...write(entry.note === undefined ? "" : `\n${entry.note}`, { fontSize: 8, color: magenta }),
              ],
            },
            { text: entry.ok ? "in order" : "damaged", color: entry.ok ? ink : magenta, bold: !entry.ok },
            { text: write(nameOf(entry.by)) },
            { text: dayOf(entry.at), alignment: "right" },
          ];
        }),
      ],
    ),
  ];
}

const photoColumns = 4;
const photoWidthPt = 118;

function photoPart({ delivery, now, pictures, dayOf }: Sheet): Content[] {
  if (pictures.size === 0) return [];
  const titleOf = new Map(delivery.topics.map(({ id, title }) => [id, title]));
  const cells = now.photos.flatMap((entry): TableCell[] => {
    const bytes = pictures.get(entry.photo);
    if (bytes === undefined) return [];
    return [
      {
        stack: [
          {
            image: `data:image/jpeg;base64,${bytes.toString("base64")}`,
            fit: [photoWidthPt, photoWidthPt * 0.75],
          },
          { text: write(sayPhoto(entry, now, titleOf), { fontSize: 7.5 }) },
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
    heading("Photos", missing > 0 ? `${missing} more are not printed here` : ""),
    {
      table: { widths: Array.from({ length: photoColumns }, () => "*"), body: rows, dontBreakRows: true },
      layout: { defaultBorder: false, paddingLeft: () => 0, paddingRight: () => 6, paddingBottom: () => 6 },
    },
  ];
}

/** What a photo shows: its snag, its topic, or what else it was taken with. */
function sayPhoto(photo: EntryOf<"photo">, state: WalkState, titleOf: ReadonlyMap<string, string>): string {
  const of = photo.ref === null ? undefined : state.standing.find(({ id }) => id === photo.ref);
  if (of !== undefined && "note" in of && of.note !== undefined) return of.note;
  return photo.topic === null ? "" : (titleOf.get(photo.topic) ?? photo.topic);
}

function measurePart({ delivery, state, nameOf, clockOf }: Sheet): Content[] {
  const taken = listMeasures(delivery.rig).flatMap((measure): TableCell[][] => {
    const entry = state.measures.get(measure.id);
    if (entry === undefined) return [];
    const { verdict, says } = judgeMeasure(measure, entry.value, entry.isJustCharged);
    const isOff = verdict === "over" || verdict === "tight";
    return [
      [
        { text: write(measure.label) },
        { text: sayMeasure(measure, entry.value), alignment: "right" },
        { text: write(says), color: isOff ? magenta : soft },
        { text: write(nameOf(entry.by)) },
        { text: clockOf(entry.at), alignment: "right" },
      ],
    ];
  });
  if (taken.length === 0) return [];
  return [
    heading("Measured", "held against the plate or the resting volts of the chemistry; the makers' figures come first"),
    lined(
      [118, 62, "*", 84, 34],
      [[label("What"), label("Reading", true), label("Means"), label("By"), label("At", true)], ...taken],
    ),
  ];
}

/** Make-ready in a paragraph: what was checked, by whom, what was left open and who answered for it. */
function readyPart({ delivery, state, nameOf, dayOf }: Sheet): Content[] {
  const { makeReady } = delivery;
  const done = makeReady.filter(({ id }) => state.ready.get(id)?.ok === true);
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
    heading("Made ready before", `${done.length} of ${makeReady.length} checks`),
    {
      text: [
        ...write(`By ${by}, last on ${dayOf(last)}. ${panel} panel positions tried. `),
        ...write(run > 0 ? `Engines run for ${run} min. ` : ""),
        ...write(open.length === 0 ? "" : `Left open: ${open.map(({ title }) => title).join("; ")}. `, {
          color: magenta,
        }),
        ...write(
          state.allowed === null
            ? ""
            : `${nameOf(state.allowed.by)} allowed the walk to start all the same: ${state.allowed.reason}`,
          { color: magenta },
        ),
      ],
    },
  ];
}

/** What came after the seal, each line in words. */
function amendmentPart({ delivery, added, nameOf, dayOf }: Sheet): Content[] {
  if (added.length === 0) return [];
  const titleOf = new Map(delivery.topics.map(({ id, title }) => [id, title]));
  return [
    heading("Added after signing", "each addition is chained to the seal before it"),
    lined(
      [92, "*", 92],
      [
        [label("When"), label("What"), label("By")],
        ...added.map((entry): TableCell[] => [
          dayOf(entry.at),
          { text: write(sayEntry(entry, delivery, (id) => titleOf.get(id) ?? id)) },
          { text: write(nameOf(entry.by)) },
        ]),
      ],
    ),
  ];
}

const signWords: Record<SignRole, string> = {
  buyer: "The marks above are right, the gear was received, and I know what is owed.",
  staff: "I explained this boat as marked above.",
  countersign: "I was there and saw it.",
};

function signPart({ delivery, state, dayOf }: Sheet): Content {
  const pad = (signed: EntryOf<"sign"> | null, role: SignRole): Content => {
    const says = signed?.signsFor ?? [signWords[role]];
    return {
      stack: [
        signed === null
          ? { text: `${role}: not signed`, color: soft, margin: [0, 30, 0, 10] }
          : { svg: printSignature(signed), fit: [220, 62] },
        { canvas: [{ type: "line", x1: 0, y1: 2, x2: 232, y2: 2, lineWidth: 0.8, lineColor: ink }] },
        { text: write(signed?.name ?? "", { bold: true }), margin: [0, 4, 0, 0] },
        ...says.map((line): Content => ({ text: write(line, { fontSize: 8, color: soft }) })),
        { text: signed === null ? "" : dayOf(signed.at), fontSize: 8, color: soft },
      ],
      margin: [0, 0, 0, 10],
    };
  };
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
      heading("Signed"),
      ...state.refusals.map(
        ({ name, reason, at }): Content => ({
          text: write(`${name} did not sign (${dayOf(at)}): ${reason}`, { color: magenta }),
          margin: [0, 0, 0, 8],
        }),
      ),
      ...rows,
      ...(delivery.seal === null
        ? []
        : [
            {
              text: `SHA-256 of the sealed record, number ${delivery.seal.number} in this store's seal chain`,
              fontSize: 8,
              color: soft,
              margin: [0, 8, 0, 0] as [number, number, number, number],
            },
            { text: delivery.seal.sha256, font: "Archivo", fontSize: 8.5 },
          ]),
    ],
  };
}
