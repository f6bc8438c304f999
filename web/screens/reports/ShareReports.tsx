import type { ReportSheet } from "../../../api/index.ts";
import { count } from "../../ui/words.ts";
import { cellsOf, headsOf, sayPercent } from "./estimates.ts";
import { Report } from "./Report.tsx";
import { SpanRows } from "./SpanRows.tsx";

const before = "the year before";

/** Topics that were put off, by the boat's template. */
export function PutOffReport({ sheet: { putOff } }: { sheet: ReportSheet }) {
  const now = putOff.filter(({ k }) => k > 0);
  const [first] = now;
  const says =
    first === undefined
      ? "No topic was put off in these twelve months."
      : `Put off most: “${first.name}” on the ${first.boat || "boats without a template"}, in ${first.k} of ${count(first.n, "handover", "handovers")}.`;
  const csv = [
    ["topic", "boat", "put off", "handovers", ...headsOf("share"), ...headsOf("share the year before")],
    ...putOff.map((line) => [line.name, line.boat, line.k, line.n, ...cellsOf(line.now), ...cellsOf(line.before)]),
  ];
  return (
    <Report title="Topics put off" says={says} csv={csv}>
      <SpanRows
        label="Topics put off"
        markSays={before}
        most={1}
        rows={now.map((line) => ({
          key: line.id,
          name: `${line.name}, ${line.boat || "no template"}`,
          now: line.now,
          mark: line.before?.value ?? null,
          says: `${line.k} of ${line.n}, ${sayPercent(line.k / line.n)}`,
        }))}
      />
    </Report>
  );
}

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
