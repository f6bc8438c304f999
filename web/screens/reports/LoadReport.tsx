import type { ReportSheet } from "../../../api/index.ts";
import { sayPercent } from "./estimates.ts";
import { MonthColumns, type Stack, sayMonth } from "./MonthColumns.tsx";
import { Report } from "./Report.tsx";

type Load = ReportSheet["load"]["now"];
const shareOf = ({ bookedH, capacityH }: Load) => (capacityH === 0 ? 0 : bookedH / capacityH);
const round = (hours: number) => Math.round(hours);

/** Hours booked in the workshop against hours it was open, by month: counted, not estimated. */
export function LoadReport({ sheet: { load } }: { sheet: ReportSheet }) {
  const { months, now, before } = load;
  const fullest = months.reduce((most, each) => (shareOf(each) > shareOf(most) ? each : most), months[0]!);
  const says =
    fullest === undefined || now.bookedH === 0
      ? "Nothing was booked in the workshop in these twelve months."
      : `The workshop was booked for ${round(now.bookedH)} of ${round(now.capacityH)} h it was open (${sayPercent(shareOf(now))}), ${
          before.bookedH === 0 ? "nothing the year before" : `${sayPercent(shareOf(before))} the year before`
        }; fullest in ${sayMonth(fullest.month)}, ${sayPercent(shareOf(fullest))}.`;
  const csv = [
    ["month", "booked, h", "open, h"],
    ...months.map(({ month, bookedH, capacityH }) => [month, Number(bookedH.toFixed(1)), Number(capacityH.toFixed(1))]),
  ];
  const stacks: Stack[] = [
    { name: "booked", ink: "helm", values: months.map((each) => round(Math.min(each.bookedH, each.capacityH))) },
    {
      name: "booked beyond it",
      ink: "magenta",
      values: months.map((each) => round(Math.max(0, each.bookedH - each.capacityH))),
    },
    { name: "free", ink: "panel", values: months.map((each) => round(Math.max(0, each.capacityH - each.bookedH))) },
  ];
  return (
    <Report title="Workshop load" says={says} csv={csv}>
      {now.bookedH + before.bookedH > 0 && (
        <MonthColumns months={months.map(({ month }) => month)} stacks={stacks} unit="hours" says={says} />
      )}
      <p className="mt-1 text-sm text-soft">
        Slots that were not cancelled, in hours of work, against opening hours and closed days as the workshop has them
        now. The first and the last month are part of one. What is to come is under Workshop.
      </p>
    </Report>
  );
}
