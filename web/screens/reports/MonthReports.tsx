import type { ReportSheet } from "../../../api/index.ts";
import { compareYears, isTooFew, sayPercent, sayShare } from "./estimates.ts";
import { MonthColumns, type Stack } from "./MonthColumns.tsx";
import { Report } from "./Report.tsx";

/** First services of engines by the month their boat was handed over: kept, late, lost, still to come. */
export function FirstServiceReport({ sheet: { firstServices } }: { sheet: ReportSheet }) {
  const { months, now, before } = firstServices;
  const says =
    now === null
      ? "No first service has fallen due yet of what was handed over in these twelve months."
      : `${sayShare(now)} first services that fell due were kept${isTooFew(now) ? "" : `, ${now.n} in all`}. ${compareYears(now, before, sayPercent)}`;
  const csv = [
    ["month of the handover", "kept", "late", "lost", "still to come"],
    ...months.map(({ month, kept, late, lost, open }) => [month, kept, late, lost, open]),
  ];
  const stacks: Stack[] = [
    { name: "kept", ink: "helm", values: months.map(({ kept }) => kept) },
    { name: "late", ink: "hatched", values: months.map(({ late }) => late) },
    { name: "lost", ink: "magenta", values: months.map(({ lost }) => lost) },
    { name: "still to come", ink: "panel", values: months.map(({ open }) => open) },
  ];
  return (
    <Report title="First services kept" says={says} csv={csv}>
      {months.some(({ kept, late, lost, open }) => kept + late + lost + open > 0) && (
        <MonthColumns months={months.map(({ month }) => month)} stacks={stacks} unit="engines" says={says} />
      )}
      <p className="mt-1 text-sm text-soft">
        Kept: done here by its day or hours, with 30 days and 5 h of grace. Late: later, or overdue. Lost: done
        elsewhere, or 120 days past its day, or at twice its hours. By the month in which the boat was handed over.
      </p>
    </Report>
  );
}

/** Runs of the break-in by the month of the handover: as asked, or with something to change. */
export function BreakInReport({ sheet: { runs } }: { sheet: ReportSheet }) {
  const { months, now, before } = runs;
  const says =
    now === null
      ? "No run was logged by boats that were handed over in these twelve months."
      : `${sayShare(now)} runs that were logged kept to the break-in${isTooFew(now) ? "" : `, ${now.n} in all`}. ${compareYears(now, before, sayPercent)}`;
  const csv = [
    ["month of the handover", "runs", "as asked", "boats that logged some"],
    ...months.map(({ month, n, k, boats }) => [month, n, k, boats]),
  ];
  const stacks: Stack[] = [
    { name: "as asked", ink: "helm", values: months.map(({ k }) => k) },
    { name: "something to change", ink: "hatched", values: months.map(({ k, n }) => n - k) },
  ];
  return (
    <Report title="Break-ins run well" says={says} csv={csv}>
      {months.some(({ n }) => n > 0) && (
        <MonthColumns months={months.map(({ month }) => month)} stacks={stacks} unit="runs" says={says} />
      )}
    </Report>
  );
}
