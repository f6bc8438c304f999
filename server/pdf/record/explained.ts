import type { Content, TableCell } from "pdfmake/interfaces";
import type { Tell } from "../../../core/language/index.ts";
import { systemNames, systems, type Topic } from "../../../core/topic/index.ts";
import {
  countTopics,
  isCovered,
  judgeTime,
  listDisputed,
  listHands,
  listOwed,
  listPutRight,
  listWalkers,
  remoteWords,
} from "../../../core/walk/index.ts";
import { amber, ink, magenta, printDeck, printMark, soft } from "../ink.ts";
import { type Letterhead, printLogo } from "../letterhead.ts";
import { write } from "../printer.ts";
import {
  heading,
  label,
  lined,
  markWords,
  owedWords,
  type Sheet,
  sayReceipt,
  sayTime,
  severityWords,
} from "./sheet.ts";

/** How many of the times here are not when the store received them; nothing where all are. */
function sayTimes({ delivery, state, dayOf, tell }: Sheet): string[] {
  const judged = state.counted.flatMap((entry) => {
    const receipt = delivery.receipts[entry.id];
    return receipt?.receivedAt == null ? [] : [{ how: judgeTime(entry, receipt), receivedAt: receipt.receivedAt }];
  });
  const count = (how: (typeof judged)[number]["how"]) => judged.filter((each) => each.how === how).length;
  const late = judged.filter(({ how }) => how !== "fits").map(({ receivedAt }) => receivedAt);
  if (late.length === 0) return [];
  const last = dayOf(late.toSorted().at(-1)!);
  return [
    tell(
      "{0} of {1} entries waited without signal; {2} bear a time of their device's own; the last was received {3}",
      count("offline"),
      judged.length,
      count("off"),
      last,
    ),
  ];
}

/** The first half page. `widthPt`: what the paper leaves between its margins. */
export function head(sheet: Sheet, store: Letterhead, widthPt: number): Content {
  const { delivery, state, nameOf, clockOf, dayOf, printDay, tell } = sheet;
  const { rig, plan } = delivery;
  const stops = plan.visits.map(({ station }, i) => ({
    label: String(i + 1),
    ...rig.stations.find(({ id }) => id === station)!.at,
  }));
  const first = stops.filter((stop, i) => stops.findIndex((s) => s.xM === stop.xM && s.yM === stop.yM) === i);
  const { planned, done, putOff, extra } = countTopics(delivery, state);
  const musts = delivery.topics.filter(({ must }) => must);
  const spentMin = Math.round([...state.topics.values()].reduce((sum, topic) => sum + topic.spentS, 0) / 60);
  const facts: [string, string][] = [
    [tell("Boat"), `${rig.maker} ${rig.model}, ${rig.modelYear}`],
    ...(rig.used === undefined
      ? []
      : [[tell("Used boat"), formatChanges(rig.used.changes, tell)] satisfies [string, string]]),
    [tell("Hull number"), delivery.hull],
    [tell("Handed to"), delivery.buyers.map(({ name }) => name).join(", ")],
    [tell("Walked by"), listWalkers(state).map(nameOf).join(", ") || "–"],
    [
      tell("Date"),
      tell("{0}, from {1} to {2}", printDay(delivery.date), clockOf(state.startedAt), clockOf(state.lastAt)),
    ],
    ...sayTimes(sheet).map((line): [string, string] => [tell("Times"), line]),
    [
      tell("On topics"),
      [
        tell("{0} min", spentMin),
        tell("{0} of {1} planned topics done", done, planned),
        ...(putOff > 0 ? [tell("{0} put off", putOff)] : []),
        ...(extra > 0 ? [tell("{0} more not planned", extra)] : []),
        tell("{0} of {1} must-do", musts.filter((topic) => isCovered(topic, state)).length, musts.length),
      ].join(", "),
    ],
    ...rig.engines.map((engine): [string, string] => {
      const read = state.hours.get(engine.id);
      return [
        tell.label(engine.label),
        read === undefined
          ? tell("hours not read")
          : tell("{0} h on the meter, read by {1}", read.hours.toFixed(1), nameOf(read.by)),
      ];
    }),
    [
      tell("Seal"),
      delivery.seal === null
        ? tell("NOT SIGNED YET: this is a draft")
        : tell("sealed {0}", dayOf(delivery.seal.sealedAt)),
    ],
  ];
  return {
    stack: [
      ...printLogo(store.picture, 34),
      {
        columns: [
          { text: write(store.store, { font: "Archivo", bold: true, fontSize: 10 }) },
          { text: tell("Record of handover"), alignment: "right", font: "Archivo", fontSize: 10, color: soft },
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

export function owedPart({ delivery, state, dateOf, printShortDay, tell }: Sheet): Content[] {
  const owed = listOwed(delivery.topics, delivery.rig.gear, state, tell);
  const { planned, done, putOff } = countTopics(delivery, state);
  const open = planned - done - putOff;
  const rows = owed.map(({ what, text, since, severity, owner, due }): TableCell[] => [
    {
      text: [
        { text: tell(owedWords[what]), color: what === "snag" ? magenta : ink, bold: what === "snag" },
        ...write(severity === null ? "" : `\n${tell(severityWords[severity])}`, { fontSize: 8, color: soft }),
      ],
    },
    {
      text: [
        ...write(text),
        ...write(owner === null ? "" : `\n${tell("taken care of by {0}", owner)}`, { fontSize: 8, color: soft }),
      ],
    },
    {
      text: due === null ? tell("no day given") : printShortDay(due),
      color: due === null ? soft : ink,
      alignment: "right",
    },
    { text: dateOf(since), alignment: "right" },
  ]);
  const note =
    open <= 0
      ? ""
      : open === 1
        ? tell("1 planned topic was not taken as far as planned; see below")
        : tell("{0} planned topics were not taken as far as planned; see below", open);
  return [
    heading(tell("Owed to the buyer"), note),
    rows.length === 0
      ? { text: tell("Nothing is owed."), color: soft }
      : lined(
          [86, "*", 66, 66],
          [
            [label(tell("Kind")), label(tell("What")), label(tell("Promised for"), true), label(tell("Since"), true)],
            ...rows,
          ],
        ),
  ];
}

/** What was wrong or promised and has been put right before the close, with what was done: the buyer sees both. */
export function putRightPart({ state, nameOf, dateOf, tell }: Sheet): Content[] {
  const rows = listPutRight(state).map(({ what, how }): TableCell[] => [
    { text: write(what.note) },
    { text: write(how.note) },
    { text: write(nameOf(how.by)) },
    { text: dateOf(how.at), alignment: "right" },
  ]);
  if (rows.length === 0) return [];
  return [
    heading(tell("Put right before signing"), ""),
    lined(
      ["*", "*", 90, 66],
      [[label(tell("What")), label(tell("What was done")), label(tell("By")), label(tell("When"), true)], ...rows],
    ),
  ];
}

const small = { fontSize: 8, color: soft };

export function topicPart(sheet: Sheet): Content[] {
  const { delivery, state, tell } = sheet;
  const parts = systems.flatMap((system): Content[] => {
    const topics = delivery.topics.filter((topic) => topic.system === system);
    if (topics.length === 0) return [];
    // What nobody touched and nobody must is named in one paragraph: the rows are for what was done.
    const isUntouched = ({ id, must }: Topic) =>
      !must && !state.topics.has(id) && !state.remote.has(id) && !state.reasons.has(id);
    const onPlan = new Set(
      [...delivery.plan.visits, ...(delivery.plan.second?.visits ?? [])].flatMap((visit) => visit.topics),
    );
    // What was never planned was not missed either.
    const untouched = topics.filter((topic) => isUntouched(topic) && onPlan.has(topic.id));
    return [
      lined(
        [12, "*", 62, 88, 46],
        [
          ["", label(tell(systemNames[system])), label(tell("Mark")), label(tell("By")), label(tell("At"), true)],
          ...topics.filter((topic) => !isUntouched(topic)).map((topic) => topicRow(sheet, topic)),
        ],
      ),
      {
        text: write(
          untouched.length === 0
            ? ""
            : tell("Planned, not reached: {0}.", untouched.map(({ title }) => title).join("; ")),
          {
            fontSize: 8,
            color: soft,
          },
        ),
        margin: [12, 3, 0, 10],
      },
    ];
  });
  return [heading(tell("What was explained")), ...parts];
}

const breakBefore = (line: string) => (line === "" ? "" : `\n${line}`);

function topicRow(sheet: Sheet, topic: Topic): TableCell[] {
  const { delivery, state, nameOf, clockOf, dayOf, tell } = sheet;
  const marked = state.topics.get(topic.id);
  const reason = state.reasons.get(topic.id);
  const hands = [...listHands(topic, delivery.buyers, state)];
  const isMarked = marked !== undefined && (marked.people.size > 0 || (topic.must && topic.level === "done"));
  const who = !isMarked
    ? ""
    : hands.map(([id, mark]) => `${nameOf(id)}: ${tell(mark === null ? "not marked" : markWords[mark])}`).join(", ");
  const disputed = marked === undefined ? [] : listDisputed(marked);
  const remote = state.remote.get(topic.id);
  return [
    { svg: printMark(marked?.mark ?? "open"), width: 8.5, margin: [0, 1, 0, 0] },
    {
      text: [
        ...write(topic.title, { bold: topic.must }),
        ...write(topic.must ? `  ${tell("must")}` : "", { fontSize: 7.5, color: soft }),
        ...write(who === "" ? "" : `\n${who}`, small),
        ...write(
          disputed
            .map(
              (other) =>
                `\n${tell("also marked {0} by {1} at {2}", tell(markWords[other.mark]), nameOf(other.by), sayTime(other, clockOf, sheet))}`,
            )
            .join(""),
          small,
        ),
        ...write(marked === undefined ? "" : breakBefore(sayReceipt(marked.entry, sheet)), small),
        ...write(marked?.entry.note === undefined ? "" : `\n${marked.entry.note}`, small),
        ...write(
          remote === undefined
            ? ""
            : `\n${tell("Remote: {0} ({1})", tell(remoteWords[remote.as]), sayTime(remote, dayOf, sheet))}`,
          small,
        ),
        ...write(reason === undefined ? "" : `\n${tell("Not done: {0}", reason.reason)}`, {
          fontSize: 8,
          color: magenta,
        }),
      ],
    },
    {
      text: tell(marked === undefined ? "not reached" : markWords[marked.mark]),
      color: marked === undefined ? soft : ink,
    },
    { text: write(marked === undefined ? "" : nameOf(marked.entry.by)) },
    { text: marked === undefined ? "" : clockOf(marked.entry.at), alignment: "right" },
  ];
}

export function cautionPart({ delivery, state, tell }: Sheet): Content[] {
  const given = delivery.topics.filter((topic) => {
    const mark = state.topics.get(topic.id)?.mark;
    return topic.cautions.length > 0 && (mark === "told" || mark === "shown" || mark === "did");
  });
  if (given.length === 0) return [];
  return [
    heading(tell("Cautions given"), tell("local rules, the boat's plates and the makers' manuals come first")),
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

export function gearPart({ delivery, state, tell }: Sheet): Content[] {
  const rows = delivery.rig.gear.map((item): TableCell[] => {
    const counted = state.gear.get(item.id)?.count;
    const short = counted !== undefined && counted < item.count;
    return [
      { text: write(tell.label(item.label), { bold: item.must }) },
      { text: String(item.count), alignment: "right" },
      {
        text: counted === undefined ? "–" : String(counted),
        alignment: "right",
        bold: short,
        color: short ? magenta : ink,
      },
      {
        text: counted === undefined ? tell("not yet") : short ? tell("{0} short", item.count - counted) : "",
        color: short ? magenta : soft,
      },
    ];
  });
  const middle = Math.ceil(rows.length / 2);
  const half = (part: TableCell[][]) =>
    lined(
      ["*", 26, 36, 42],
      [[label(tell("Item")), label(tell("Sold"), true), label(tell("Counted"), true), ""], ...part],
    );
  return [
    heading(tell("Handed over and counted")),
    { columnGap: 20, columns: [half(rows.slice(0, middle)), half(rows.slice(middle))] },
  ];
}

/** Says plainly what was not face to face. */
export function remotePart({ delivery, state, nameOf, dayOf, tell }: Sheet): Content[] {
  const { remote, inspected } = state;
  if (remote.size === 0 && inspected.size === 0) return [];
  const checks = delivery.arrival.filter(({ id }) => inspected.has(id));
  const said =
    remote.size === 0
      ? []
      : [
          {
            text: write(
              tell(
                "{0} of {1} topics were gone through by the owner on their own page, without anybody of the store beside them. They are marked “Remote” above.",
                remote.size,
                delivery.topics.length,
              ),
            ),
            margin: [0, 0, 0, 6] as [number, number, number, number],
          },
        ];
  const row = ({ id, title }: (typeof checks)[number]): TableCell[] => {
    const { ok, note, by, at } = inspected.get(id)!;
    return [
      { text: [...write(title), ...write(note === undefined ? "" : `\n${note}`, { fontSize: 8, color: magenta })] },
      { text: tell(ok ? "in order" : "damaged"), color: ok ? ink : magenta, bold: !ok },
      { text: write(nameOf(by)) },
      { text: dayOf(at), alignment: "right" },
    ];
  };
  const head = [
    label(tell("Looked at on arrival")),
    label(tell("Found")),
    label(tell("By")),
    label(tell("When"), true),
  ];
  const table = checks.length === 0 ? [] : [lined(["*", 70, 120, 92], [head, ...checks.map(row)])];
  return [heading(tell("Remote handover")), ...said, ...table];
}

const formatChanges = (changes: readonly string[], tell: Tell) =>
  changes.length === 0
    ? tell("no changes by others found on it")
    : tell("changed by others before: {0}", changes.join("; "));
