import type { Content, ContentTable, TableCell, TDocumentDefinitions } from "pdfmake/interfaces";
import type { Delivery } from "../../api/index.ts";
import { systemNames, systems, type Topic } from "../../core/topic/index.ts";
import { foldWalk, isCovered, listOpenTopics, listOwed, type WalkState } from "../../core/walk/index.ts";
import type { Settings } from "../repositories/settings.ts";
import { amber, ink, magenta, printDeck, printMark, printSignature, rule, soft } from "./ink.ts";
import { printPdf, write } from "./printer.ts";

const markWords = { told: "told", shown: "shown", did: "did it", later: "later", "not-aboard": "not aboard" } as const;
const owedWords = { later: "Later", snag: "Snag", gear: "Gear short", must: "Must, not done" } as const;

interface Sheet {
  readonly delivery: Delivery;
  readonly state: WalkState;
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

/** The record of a handover as a PDF for Letter or A4: what was explained, by whom, what was given, what is owed. */
export function writeRecordPdf(
  delivery: Delivery,
  store: Settings,
  { paper, timeZone }: { readonly paper: "a4" | "letter"; readonly timeZone: string },
): Promise<Buffer> {
  const people = new Map([...delivery.staff, ...delivery.buyers].map(({ id, name }) => [id, name]));
  const sheet: Sheet = {
    delivery,
    state: foldWalk(delivery.entries),
    nameOf: (id) => people.get(id) ?? id,
    ...createTimes(timeZone),
  };
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `Record of handover, ${delivery.boatName}, ${delivery.date}`, author: store.store },
    defaultStyle: { font: "Atkinson", fontSize: 9.5, lineHeight: 1.15, color: ink },
    content: [
      head(sheet, store, paper === "a4" ? 499 : 516),
      ...owedPart(sheet),
      ...topicPart(sheet),
      ...cautionPart(sheet),
      ...gearPart(sheet),
      ...amendmentPart(sheet),
      signPart(sheet),
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
  const rows = owed.map(({ what, text, since }): TableCell[] => [
    { text: owedWords[what], color: what === "snag" ? magenta : ink, bold: what === "snag" },
    { text: write(text) },
    { text: since.slice(0, 10), alignment: "right" },
  ]);
  const note =
    open.length === 0 ? "" : `${open.length} further topics were not taken as far as planned; they are marked below`;
  return [
    heading("Owed to the buyer", note),
    rows.length === 0
      ? { text: "Nothing is owed.", color: soft }
      : lined([86, "*", 60], [[label("Kind"), label("What"), label("Since", true)], ...rows]),
  ];
}

function topicPart({ delivery, state, nameOf, clockOf }: Sheet): Content[] {
  const row = (topic: Topic): TableCell[] => {
    const told = state.topics.get(topic.id);
    const reason = state.reasons.get(topic.id);
    const who =
      told === undefined || told.people.size === 0
        ? ""
        : [...told.people].map(([id, mark]) => `${nameOf(id)}: ${markWords[mark]}`).join(", ");
    return [
      { svg: printMark(told?.mark ?? "open"), width: 8.5, margin: [0, 1, 0, 0] },
      {
        text: [
          ...write(topic.title, { bold: topic.must }),
          ...write(topic.must ? "  must" : "", { fontSize: 7.5, color: soft }),
          ...write(who === "" ? "" : `\n${who}`, { fontSize: 8, color: soft }),
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
    return [
      lined(
        [12, "*", 62, 92, 34],
        [["", label(systemNames[system]), label("Mark"), label("By"), label("At", true)], ...topics.map(row)],
      ),
      { text: "", margin: [0, 0, 0, 8] },
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

function amendmentPart({ state, nameOf, dayOf }: Sheet): Content[] {
  const added = [...state.amendments, ...state.settled.values()].sort((a, b) => (a.at < b.at ? -1 : 1));
  if (added.length === 0) return [];
  return [
    heading("Added after signing"),
    lined(
      [86, "*", 92],
      [
        [label("When"), label("What"), label("By")],
        ...added.map((entry): TableCell[] => [
          dayOf(entry.at),
          { text: write(entry.kind === "settle" ? `Settled: ${entry.note}` : entry.note) },
          { text: write(nameOf(entry.by)) },
        ]),
      ],
    ),
  ];
}

function signPart({ delivery, state, dayOf }: Sheet): Content {
  const pad = (role: "buyer" | "staff", says: string): Content => {
    const signed = state.signatures.get(role);
    return {
      stack: [
        signed === undefined
          ? { text: "not signed", color: soft, margin: [0, 30, 0, 10] }
          : { svg: printSignature(signed), fit: [220, 62] },
        { canvas: [{ type: "line", x1: 0, y1: 2, x2: 232, y2: 2, lineWidth: 0.8, lineColor: ink }] },
        { text: write(signed?.name ?? "", { bold: true }), margin: [0, 4, 0, 0] },
        { text: says, fontSize: 8, color: soft },
        { text: signed === undefined ? "" : dayOf(signed.at), fontSize: 8, color: soft },
      ],
    };
  };
  return {
    unbreakable: true,
    stack: [
      heading("Signed"),
      {
        columnGap: 24,
        columns: [
          pad("buyer", "The marks above are right, the gear was received, and I know what is owed."),
          pad("staff", "I explained this boat as marked above."),
        ],
      },
      ...(delivery.seal === null
        ? []
        : [
            {
              text: "SHA-256 of the sealed record",
              fontSize: 8,
              color: soft,
              margin: [0, 12, 0, 0] as [number, number, number, number],
            },
            { text: delivery.seal.sha256, font: "Archivo", fontSize: 8.5 },
          ]),
    ],
  };
}
