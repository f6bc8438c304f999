import type { Content, TableCell } from "pdfmake/interfaces";
import { systemNames, systems, type Topic } from "../../../core/topic/index.ts";
import { countTopics, isCovered, listDisputed, listHands, listOwed, listWalkers } from "../../../core/walk/index.ts";
import { amber, ink, magenta, printDeck, printMark, soft } from "../ink.ts";
import { type Letterhead, printLogo } from "../letterhead.ts";
import { write } from "../printer.ts";
import { heading, label, lined, markWords, owedWords, type Sheet, severityWords } from "./sheet.ts";

/** The first half page. `widthPt`: what the paper leaves between its margins. */
export function head(
  { delivery, state, nameOf, clockOf, dayOf, printDay }: Sheet,
  store: Letterhead,
  widthPt: number,
): Content {
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
    ["Boat", `${rig.maker} ${rig.model}, ${rig.modelYear}`],
    ...(rig.used === undefined ? [] : [["Used boat", formatChanges(rig.used.changes)] satisfies [string, string]]),
    ["Hull number", delivery.hull],
    ["Handed to", delivery.buyers.map(({ name }) => name).join(", ")],
    ["Walked by", listWalkers(state).map(nameOf).join(", ") || "–"],
    ["Date", `${printDay(delivery.date)}, from ${clockOf(state.startedAt)} to ${clockOf(state.lastAt)}`],
    [
      "On topics",
      `${spentMin} min, ${done} of ${planned} planned topics done${putOff > 0 ? `, ${putOff} put off` : ""}${extra > 0 ? `, ${extra} more not planned` : ""}, ${musts.filter((topic) => isCovered(topic, state)).length} of ${musts.length} must-do`,
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
      ...printLogo(store.picture, 34),
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

export function owedPart({ delivery, state, dateOf, printShortDay }: Sheet): Content[] {
  const owed = listOwed(delivery.topics, delivery.rig.gear, state);
  const { planned, done, putOff } = countTopics(delivery, state);
  const open = planned - done - putOff;
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
    { text: due === null ? "no day given" : printShortDay(due), color: due === null ? soft : ink, alignment: "right" },
    { text: dateOf(since), alignment: "right" },
  ]);
  const note =
    open <= 0
      ? ""
      : `${open} planned ${open === 1 ? "topic was" : "topics were"} not taken as far as planned; see below`;
  return [
    heading("Owed to the buyer", note),
    rows.length === 0
      ? { text: "Nothing is owed.", color: soft }
      : lined(
          [86, "*", 66, 66],
          [[label("Kind"), label("What"), label("Promised for", true), label("Since", true)], ...rows],
        ),
  ];
}

const remoteWords = { understood: "read and understood on the owner page", did: "did it, on the owner page" } as const;

const small = { fontSize: 8, color: soft };

export function topicPart(sheet: Sheet): Content[] {
  const { delivery, state } = sheet;
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
        [12, "*", 62, 92, 34],
        [
          ["", label(systemNames[system]), label("Mark"), label("By"), label("At", true)],
          ...topics.filter((topic) => !isUntouched(topic)).map((topic) => topicRow(sheet, topic)),
        ],
      ),
      {
        text: write(
          untouched.length === 0 ? "" : `Planned, not reached: ${untouched.map(({ title }) => title).join("; ")}.`,
          {
            fontSize: 8,
            color: soft,
          },
        ),
        margin: [12, 3, 0, 10],
      },
    ];
  });
  return [heading("What was explained"), ...parts];
}

function topicRow({ delivery, state, nameOf, clockOf, dayOf }: Sheet, topic: Topic): TableCell[] {
  const marked = state.topics.get(topic.id);
  const reason = state.reasons.get(topic.id);
  const hands = [...listHands(topic, delivery.buyers, state)];
  const isMarked = marked !== undefined && (marked.people.size > 0 || (topic.must && topic.level === "done"));
  const who = !isMarked
    ? ""
    : hands.map(([id, mark]) => `${nameOf(id)}: ${mark === null ? "not marked" : markWords[mark]}`).join(", ");
  const disputed = marked === undefined ? [] : listDisputed(marked);
  const remote = state.remote.get(topic.id);
  return [
    { svg: printMark(marked?.mark ?? "open"), width: 8.5, margin: [0, 1, 0, 0] },
    {
      text: [
        ...write(topic.title, { bold: topic.must }),
        ...write(topic.must ? "  must" : "", { fontSize: 7.5, color: soft }),
        ...write(who === "" ? "" : `\n${who}`, small),
        ...write(
          disputed
            .map((other) => `\nalso marked ${markWords[other.mark]} by ${nameOf(other.by)} at ${clockOf(other.at)}`)
            .join(""),
          small,
        ),
        ...write(marked?.entry.note === undefined ? "" : `\n${marked.entry.note}`, small),
        ...write(remote === undefined ? "" : `\nRemote: ${remoteWords[remote.as]} (${dayOf(remote.at)})`, small),
        ...write(reason === undefined ? "" : `\nNot done: ${reason.reason}`, { fontSize: 8, color: magenta }),
      ],
    },
    { text: marked === undefined ? "not reached" : markWords[marked.mark], color: marked === undefined ? soft : ink },
    { text: write(marked === undefined ? "" : nameOf(marked.entry.by)) },
    { text: marked === undefined ? "" : clockOf(marked.entry.at), alignment: "right" },
  ];
}

export function cautionPart({ delivery, state }: Sheet): Content[] {
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

export function gearPart({ delivery, state }: Sheet): Content[] {
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
export function remotePart({ delivery, state, nameOf, dayOf }: Sheet): Content[] {
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
  const row = ({ id, title }: (typeof checks)[number]): TableCell[] => {
    const { ok, note, by, at } = inspected.get(id)!;
    return [
      { text: [...write(title), ...write(note === undefined ? "" : `\n${note}`, { fontSize: 8, color: magenta })] },
      { text: ok ? "in order" : "damaged", color: ok ? ink : magenta, bold: !ok },
      { text: write(nameOf(by)) },
      { text: dayOf(at), alignment: "right" },
    ];
  };
  const head = [label("Looked at on arrival"), label("Found"), label("By"), label("When", true)];
  const table = checks.length === 0 ? [] : [lined(["*", 70, 120, 92], [head, ...checks.map(row)])];
  return [heading("Remote handover"), ...said, ...table];
}

const formatChanges = (changes: readonly string[]) =>
  changes.length === 0 ? "no changes by others found on it" : `changed by others before: ${changes.join("; ")}`;
