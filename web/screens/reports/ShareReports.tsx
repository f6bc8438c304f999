import type { ReactNode } from "react";
import type { ReportSheet } from "../../../api/index.ts";
import { count } from "../../ui/words.ts";
import { cellsOf, headsOf, sayPercent } from "./estimates.ts";
import { Report } from "./Report.tsx";
import { SpanRows } from "./SpanRows.tsx";

const before = "the year before";

type TopicLine = ReportSheet["putOff"][number];
interface TopicSharesProps {
  readonly title: string;
  readonly lines: readonly TopicLine[];
  /** In the sentence: "“Radar” on the Wending 23, in 6 of 20 handovers" comes after it. */
  readonly most: string;
  readonly none: string;
  /** The heading of the count in the file. */
  readonly counted: string;
  readonly children?: ReactNode;
}

/** Shares of handovers by topic and what the boat is called. */
function TopicShares({ title, lines, most, none, counted, children }: TopicSharesProps) {
  const now = lines.filter(({ k }) => k > 0);
  const [first] = now;
  const says =
    first === undefined
      ? none
      : `${most}: “${first.name}” on the ${first.boat}, in ${first.k} of ${count(first.n, "handover", "handovers")}.`;
  const csv = [
    ["topic", "boat", counted, "handovers", ...headsOf("share"), ...headsOf("share the year before")],
    ...lines.map((line) => [line.name, line.boat, line.k, line.n, ...cellsOf(line.now), ...cellsOf(line.before)]),
  ];
  return (
    <Report title={title} says={says} csv={csv}>
      <SpanRows
        label={title}
        markSays={before}
        most={1}
        rows={now.map((line) => ({
          key: line.id,
          name: `${line.name}, ${line.boat}`,
          now: line.now,
          mark: line.before?.value ?? null,
          says: `${line.k} of ${line.n}, ${sayPercent(line.k / line.n)}`,
        }))}
      />
      {children}
    </Report>
  );
}

/** Topics that were put off, by what the boat is called. */
export const PutOffReport = ({ sheet: { putOff } }: { sheet: ReportSheet }) => (
  <TopicShares
    title="Topics put off"
    lines={putOff}
    most="Put off most"
    none="No topic was put off in these twelve months."
    counted="put off"
  />
);

/** Topics that were planned and have no mark at all at the close, by what the boat is called. */
export const ForgottenReport = ({ sheet: { forgotten } }: { sheet: ReportSheet }) => (
  <TopicShares
    title="Topics never reached"
    lines={forgotten}
    most="Never reached most, though planned"
    none="Every topic that was planned was reached in the handovers that noted it."
    counted="never reached"
  >
    <p className="mt-1 text-sm text-soft">
      Planned, and without any mark when the handover was closed. Counted for handovers signed since Ravik began to
      record it.
    </p>
  </TopicShares>
);

/** Musts left undone at a closing, and why. */
export function NotDoneReport({ sheet: { notDone, closed } }: { sheet: ReportSheet }) {
  const now = notDone.filter(({ k }) => k > 0);
  const [first] = now;
  const says =
    first === undefined
      ? `No must was left undone in ${closed.now} handovers.`
      : `${count(now.length, "must was", "musts were")} left undone at least once, “${first.name}” most: in ${first.k} of ${count(first.n, "handover", "handovers")}.`;
  const csv = [
    ["must", "not done", "handovers", ...headsOf("share"), ...headsOf("share the year before"), "why, most first"],
    ...notDone.map((line) => [
      line.name,
      line.k,
      line.n,
      ...cellsOf(line.now),
      ...cellsOf(line.before),
      line.reasons.map(({ reason, k }) => `${reason} (${k})`).join("; "),
    ]),
  ];
  return (
    <Report title="Musts not done, and why" says={says} csv={csv}>
      <SpanRows
        label="Musts not done"
        markSays={before}
        most={Math.max(0.05, ...now.map((line) => line.now?.high ?? 0))}
        rows={now.map((line) => ({
          key: line.id,
          name: line.name,
          now: line.now,
          mark: line.before?.value ?? null,
          says: `${line.k} of ${line.n}, ${sayPercent(line.now?.value ?? 0)}`,
          more: line.reasons.map(({ reason, k }) => `“${reason}” ${k === 1 ? "once" : `${k} times`}`).join(", "),
        }))}
      />
    </Report>
  );
}
