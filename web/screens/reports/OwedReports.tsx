import type { ReportSheet } from "../../../api/index.ts";
import { count } from "../../ui/words.ts";
import { cellsOf, compareYears, headsOf, isTooFew, sayPercent, sayShare } from "./estimates.ts";
import { MonthColumns, type Stack } from "./MonthColumns.tsx";
import { Report } from "./Report.tsx";
import { SpanRows } from "./SpanRows.tsx";

type Sheet = { readonly sheet: ReportSheet };
const sayDays = (days: number) => (days < 1 ? "within a day" : count(Math.round(days), "day", "days"));

/** Handovers with a snag, by what the boat is called, and the days until it was mended. */
export function SnagReport({ sheet: { snags } }: Sheet) {
  const now = snags.filter(({ n }) => n > 0);
  const [first] = now.filter(({ k }) => k > 0);
  const open = now.reduce((sum, line) => sum + line.open, 0);
  const says =
    first === undefined
      ? "No snag was found in handovers of these twelve months."
      : `Most snags: ${first.name}, in ${first.k} of ${count(first.n, "handover", "handovers")}${
          first.days === null ? "" : `; half of what was fixed was fixed within ${sayDays(first.days.value)}`
        }. ${open === 0 ? "None is open." : `${count(open, "snag is", "snags are")} open over all boats.`}`;
  const csv = [
    [
      "boat",
      "handovers with a snag",
      "handovers",
      ...headsOf("share"),
      ...headsOf("share the year before"),
      ...headsOf("days to fix, the middle one"),
      ...headsOf("days the year before"),
      "open",
    ],
    ...snags.map((line) => [
      line.name,
      line.k,
      line.n,
      ...cellsOf(line.now),
      ...cellsOf(line.before),
      ...cellsOf(line.days, 1),
      ...cellsOf(line.daysBefore, 1),
      line.open,
    ]),
  ];
  const mended = now.flatMap((line) => (line.days === null ? [] : [{ ...line, days: line.days }]));
  return (
    <Report title="Snags, and the days to fix them" says={says} csv={csv}>
      <SpanRows
        label="Handovers with a snag"
        markSays="the year before"
        most={1}
        rows={now.map((line) => ({
          key: line.id,
          name: line.name,
          now: line.now,
          mark: line.before?.value ?? null,
          says: `${line.k} of ${line.n}, ${sayPercent(line.k / line.n)}`,
          ...(line.open === 0 ? {} : { more: `${line.open} open` }),
        }))}
      />
      {mended.length > 0 && (
        <>
          <h3 className="mt-4 font-bold">Days to fix</h3>
          <SpanRows
            label="Days to fix"
            markSays="the year before"
            most={Math.max(1, ...mended.map(({ days }) => days.high)) * 1.05}
            rows={mended.map(({ id, name, days, daysBefore }) => ({
              key: id,
              name,
              now: days,
              mark: daysBefore?.value ?? null,
              says: `${sayDays(days.value)}, the middle one of ${days.n}`,
            }))}
          />
        </>
      )}
    </Report>
  );
}

/** Promises by the month they were made in: kept, late, still to come. */
export function PromiseReport({ sheet: { promises } }: Sheet) {
  const { months, now, before } = promises;
  const says =
    now === null
      ? "No promise of these twelve months has come to its day yet."
      : `${sayShare(now)} promises that came to an end were kept${isTooFew(now) ? "" : `, ${now.n} in all`}. ${compareYears(now, before, sayPercent)}`;
  const csv = [
    ["month of the promise", "kept", "late", "still to come"],
    ...months.map(({ month, kept, late, open }) => [month, kept, late, open]),
  ];
  const stacks: Stack[] = [
    { name: "kept", ink: "helm", values: months.map(({ kept }) => kept) },
    { name: "late", ink: "hatched", values: months.map(({ late }) => late) },
    { name: "still to come", ink: "panel", values: months.map(({ open }) => open) },
  ];
  return (
    <Report title="Promises kept" says={says} csv={csv}>
      {months.some(({ kept, late, open }) => kept + late + open > 0) && (
        <MonthColumns months={months.map(({ month }) => month)} stacks={stacks} unit="promises" says={says} />
      )}
      <p className="mt-1 text-sm text-soft">
        Kept: done by its day, or done where no day was named. Late: done after its day, or its day is past.
      </p>
    </Report>
  );
}

const hundred = 100;
const sayPerHundred = (value: number) => String(Math.round(value * hundred));

/** Calls in the first 90 days, for every hundred handovers, by month of the handover and by topic. */
export function CallReport({ sheet: { calls } }: Sheet) {
  const { months, topics, now, before } = calls;
  const asked = topics.filter(({ k }) => k > 0);
  const [first] = asked;
  const says =
    now === null
      ? "No handover of these twelve months has had its 90 days yet: calls are counted from then on."
      : isTooFew(now)
        ? `${count(Math.round(now.value * now.n), "call", "calls")} came in the first 90 days of ${count(now.n, "handover", "handovers")}: too few for a rate.`
        : `${sayPerHundred(now.value)} calls (${sayPerHundred(now.low)} to ${sayPerHundred(now.high)}) came for every 100 handovers in their first 90 days. ${compareYears(now, before, sayPerHundred)}${
            first === undefined ? "" : ` They called about “${first.name}” most: ${count(first.k, "time", "times")}.`
          }`;
  const perHundred = ({ calls: k, handovers }: (typeof months)[number]) =>
    handovers === 0 ? 0 : (k / handovers) * hundred;
  const csv = [
    ["month of the handover", "calls in 90 days", "handovers", "calls per 100", "its 90 days are over"],
    ...months.map((month) => [
      month.month,
      month.calls,
      month.handovers,
      Number(perHundred(month).toFixed(1)),
      month.isOver ? "yes" : "no",
    ]),
  ];
  const stacks: Stack[] = [
    {
      name: "calls per 100 handovers",
      ink: "helm",
      values: months.map((each) => (each.isOver ? perHundred(each) : 0)),
    },
    {
      name: "its 90 days are not over",
      ink: "hatched",
      values: months.map((each) => (each.isOver ? 0 : perHundred(each))),
    },
  ];
  return (
    <Report title="Calls after the handover" says={says} csv={csv}>
      {months.some(({ calls: k }) => k > 0) && (
        <MonthColumns
          months={months.map(({ month }) => month)}
          stacks={stacks}
          unit="calls per 100 handovers"
          says={says}
        />
      )}
      <SpanRows
        label="Calls by topic"
        markSays="the year before"
        most={Math.max(0.05, ...asked.map((line) => line.now?.high ?? 0)) * 1.05}
        rows={asked.map((line) => ({
          key: line.id,
          name: line.name,
          now: line.now,
          mark: line.before?.value ?? null,
          says: `${line.k} in ${count(line.n, "handover", "handovers")}`,
        }))}
      />
    </Report>
  );
}
