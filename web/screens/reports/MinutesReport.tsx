import type { ReportSheet } from "../../../api/index.ts";
import { capitalize } from "../../../core/text/capitalize.ts";
import { count } from "../../ui/words.ts";
import { cellsOf, headsOf, sayPercent } from "./estimates.ts";
import { Report } from "./Report.tsx";
import { SpanRows } from "./SpanRows.tsx";

type Line = ReportSheet["minutes"]["topics"][number];
const toMin = (value: number) => `${value.toFixed(1)} min`;

/** Minutes by topic, place and specialist, against what was planned. */
export function MinutesReport({ sheet: { minutes } }: { sheet: ReportSheet }) {
  const { topics, places, people } = minutes;
  const known = topics.filter(({ now }) => now !== null);
  const over = known.filter(({ now, plannedMin }) => now!.low > plannedMin);
  const [worst] = over;
  const says =
    known.length === 0
      ? "No topic has been walked five times in these twelve months yet: minutes are shown from the fifth walk on."
      : worst === undefined
        ? "No topic clearly takes longer than planned."
        : `${count(over.length, "topic clearly takes", "topics clearly take")} longer than planned, of ${known.length} with five walks or more: “${worst.name}” most, ${toMin(worst.now!.value)} instead of ${toMin(worst.plannedMin)}.`;
  const csv = [
    ["what", "name", "planned, min", ...headsOf("recorded"), ...headsOf("year before")],
    ...(
      [
        ["topic", topics],
        ["place, recorded over planned", places],
        ["specialist, recorded over planned", people],
      ] as const
    ).flatMap(([what, lines]) =>
      lines.map(({ name, plannedMin, now, before }) => [
        what,
        name,
        Number(plannedMin.toFixed(2)),
        ...cellsOf(now),
        ...cellsOf(before),
      ]),
    ),
  ];
  return (
    <Report title="Minutes against the plan" says={says} csv={csv}>
      <SpanRows
        label="Minutes by topic"
        markSays="planned"
        most={Math.max(1, ...known.map(({ now, plannedMin }) => Math.max(now!.high, plannedMin))) * 1.05}
        rows={known.map(({ id, name, now, plannedMin }) => ({
          key: id,
          name,
          now,
          mark: plannedMin,
          says: `${toMin(now!.value)}, planned ${plannedMin.toFixed(1)}`,
        }))}
      />
      <Ratios title="By place" lines={places.map((line) => ({ ...line, name: capitalize(line.name) }))} />
      <Ratios title="By specialist" lines={people} />
    </Report>
  );
}

/** Recorded over planned: at the mark it took as long as planned. */
function Ratios({ title, lines }: { title: string; lines: readonly Line[] }) {
  const known = lines.filter(({ now }) => now !== null);
  if (known.length === 0) return null;
  return (
    <>
      <h3 className="mt-4 font-bold">{title}</h3>
      <SpanRows
        label={title}
        markSays="as planned"
        most={Math.max(1.5, ...known.map(({ now }) => now!.high)) * 1.05}
        rows={known.map(({ id, name, now }) => ({
          key: id,
          name,
          now,
          mark: 1,
          says: `${sayPercent(now!.value)} of the plan, ${count(now!.n, "time", "times")}`,
        }))}
      />
    </>
  );
}
