import { describeCondition, formatPartKind } from "../../../core/rig/index.ts";
import { momentWords } from "../../../core/route/index.ts";
import { formatQuarters } from "../../../core/text/index.ts";
import { systemNames, type Topic } from "../../../core/topic/index.ts";

interface CompareProps {
  readonly shipped: Topic | null;
  /** What shipped when ours was written, where it has changed since. */
  readonly basis?: Topic | null;
  readonly ours: Topic;
  readonly titles: ReadonlyMap<string, string>;
}

/** Field by field where our wording is not the shipped one, and what shipped when ours was written. */
export function CompareShipped({ shipped, basis = null, ours, titles }: CompareProps) {
  if (shipped === null) return <p className="mt-2">This topic is ours alone; nothing like it ships.</p>;
  const columns = [
    ...(basis === null ? [] : [["Original, when ours was written", basis] as const]),
    [basis === null ? "Original" : "Original now", shipped] as const,
    ["Ours", ours] as const,
  ];
  const rows = fields
    .map(([label, read]) => ({ label, says: columns.map(([, topic]) => read(topic, titles)) }))
    .filter(({ says }) => new Set(says).size > 1);
  return (
    <div className="mt-2 relative overflow-x-auto">
      <table className="w-full min-w-120 table-fixed">
        <thead>
          <tr className="border-b border-ink">
            <th className="w-28 py-1">Part</th>
            {columns.map(([name]) => (
              <th key={name} className="pl-3">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ label, says }) => (
            <tr key={label} className="border-b border-rule align-top">
              <td className="head py-2 text-soft">{label}</td>
              {says.map((text, i) => (
                <td key={columns[i]![0]} className="py-2 pl-3 break-words">
                  {text === "" ? "–" : text}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <p className="py-2">Word for word the same.</p>}
    </div>
  );
}

type Read = (topic: Topic, titles: ReadonlyMap<string, string>) => string;
const levelWords = { told: "explained", shown: "shown", done: "done by them" } as const;
const asksWords = { any: "", cooling: "with cooling water", afloat: "afloat", ashore: "out of the water" } as const;

const fields: readonly (readonly [label: string, read: Read])[] = [
  ["Title", ({ title }) => title],
  ["Cautions", ({ cautions }) => cautions.join(" / ")],
  ["Say", ({ say, schools }) => (schools === undefined ? say : "")],
  [
    "Methods",
    ({ schools = [] }) => schools.map(({ name, say, tradeOff }) => `${name}: ${say} (${tradeOff})`).join(" / "),
  ],
  ["Show", ({ show }) => show],
  ["They do", ({ does }) => does],
  ["What goes wrong", ({ wrong }) => wrong],
  ["Why", ({ why }) => why],
  ["Which boats", ({ when }) => describeCondition(when)],
  ["About", ({ of }) => (of === undefined ? "" : formatPartKind(of))],
  ["Explained at", ({ where }) => where.join(", ")],
  ["Comes after", ({ after }, titles) => after.map((id) => titles.get(id) ?? id).join(", ")],
  ["Level", ({ level, must }) => `${levelWords[level]}${must ? ", must" : ""}`],
  ["Minutes", ({ minutes }) => `${formatQuarters(minutes)} min`],
  ["Worth", ({ value }) => `${value} of 9`],
  ["System", ({ system }) => systemNames[system]],
  ["Moment", ({ moment }) => momentWords[moment]],
  ["Where it can be taught", ({ asks }) => asksWords[asks ?? "any"]],
];
