import { useCallback } from "react";
import type { WorkshopSheet } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { spell } from "../../ui/amounts.ts";
import type { Inks } from "../../ui/Chart.tsx";
import { type Hatch, hatch, hatched } from "../../ui/hatch.ts";
import { LazyChart } from "../../ui/LazyChart.tsx";
import { tooltipIn } from "../../ui/tooltip.ts";
import { formatDay } from "../../ui/words.ts";

type Week = WorkshopSheet["weeks"][number];
const kinds = [
  ["booked", "booked"],
  ["first-service", "first service"],
  ["yearly", "yearly and larger"],
  ["season", "spring and lay-up"],
  ["other", "other"],
] as const;

interface LoadProps {
  readonly weeks: readonly Week[];
  readonly picked: string;
  readonly onPick: (begins: LocalDate) => void;
}

const month = new Intl.DateTimeFormat("en-GB", { timeZone: "UTC", month: "short", year: "2-digit" });

/** Expected hours a week as columns by kind, the band they stay in eight times of ten, and shop capacity as a line. */
export function LoadChart({ weeks, picked, onPick }: LoadProps) {
  const draw = useCallback((inks: Inks) => drawLoad(weeks, picked, inks), [weeks, picked]);
  const over = weeks.filter(({ expectedH, capacityH }) => expectedH > capacityH).length;
  return (
    <figure className="mt-2">
      <LazyChart
        draw={draw}
        heightPx={270}
        onPick={(index) => onPick(weeks[index]!.begins)}
        says={`Expected hours of work in each of ${weeks.length} weeks against shop capacity; ${over === 1 ? "one week is" : `${over} weeks are`} too full`}
      />
      <Legend />
    </figure>
  );
}

function drawLoad(weeks: readonly Week[], picked: string, inks: Inks) {
  const labels = weeks.map(({ begins }) => begins);
  return {
    grid: { left: 48, right: 12, top: 34, bottom: 30 },
    xAxis: {
      type: "category",
      data: labels,
      axisTick: { show: false },
      axisLine: { lineStyle: { color: inks.ink } },
      axisLabel: {
        color: inks.soft,
        // On a phone there is room for some of the months.
        hideOverlap: true,
        interval: (index: number) => index === 0 || labels[index]!.slice(5, 7) !== labels[index - 1]!.slice(5, 7),
        formatter: (begins: LocalDate) => month.format(new Date(`${begins}T12:00:00Z`)),
      },
    },
    yAxis: {
      type: "value",
      name: "hours of work",
      nameGap: 12,
      nameTextStyle: { color: inks.soft, align: "left" },
      axisLabel: { color: inks.soft },
      splitLine: { lineStyle: { color: inks.rule } },
    },
    tooltip: {
      ...tooltipIn(inks),
      formatter: (points: { dataIndex: number }[]) => {
        const week = weeks[points[0]!.dataIndex]!;
        return `Week of ${formatDay(week.begins)}<br>${week.expectedH.toFixed(0)} h expected, ${week.p10H.toFixed(0)} to ${week.p90H.toFixed(0)}<br>${week.capacityH.toFixed(0)} h shop capacity`;
      },
    },
    series: [...listBars(weeks, picked, inks), ...listLines(weeks, inks)],
  };
}

function listBars(weeks: readonly Week[], picked: string, inks: Inks) {
  const colours: Record<(typeof kinds)[number][0], string | Hatch> = {
    booked: inks.ink,
    "first-service": inks.deep,
    yearly: inks.buff,
    season: hatch(inks),
    other: inks.rule,
  };
  return kinds.map(([kind, name]) => ({
    type: "bar",
    name,
    stack: "load",
    barCategoryGap: "18%",
    data: weeks.map((week) => ({
      value: week.byKind[kind],
      itemStyle: {
        color: colours[kind],
        borderColor: week.begins === picked ? inks.magenta : inks.soft,
        borderWidth: week.begins === picked ? 1.5 : 0.4,
      },
    })),
  }));
}

/** The band the hours stay in eight weeks of ten, and the shop capacity. */
const listLines = (weeks: readonly Week[], inks: Inks) => [
  {
    type: "line",
    stack: "band",
    data: weeks.map(({ p10H }) => p10H),
    showSymbol: false,
    lineStyle: { opacity: 0 },
    silent: true,
  },
  {
    type: "line",
    stack: "band",
    data: weeks.map(({ p10H, p90H }) => p90H - p10H),
    showSymbol: false,
    silent: true,
    lineStyle: { opacity: 0 },
    areaStyle: { color: inks.soft, opacity: 0.22 },
  },
  {
    type: "line",
    step: "middle",
    data: weeks.map(({ capacityH }) => capacityH),
    showSymbol: false,
    silent: true,
    lineStyle: { color: inks.magenta, width: 2 },
  },
];

function Legend() {
  return (
    <figcaption className="flex flex-wrap gap-x-5 text-sm text-soft">
      {[
        ["bg-ink", "booked"],
        ["bg-deep", "first service"],
        ["bg-buff", "yearly and larger"],
        [hatched, "spring and lay-up"],
      ].map(([look, says]) => (
        <span key={says} className="inline-flex items-center gap-1.5">
          <span aria-hidden className={`size-3 border border-soft ${look}`} />
          {says}
        </span>
      ))}
      <span className="inline-flex items-center gap-1.5">
        <span aria-hidden className="h-0.5 w-5 bg-magenta" />
        shop capacity
      </span>
      <span>{spell("gray")}: likely range (8 weeks in 10)</span>
    </figcaption>
  );
}
