import { useCallback } from "react";
import type { Inks } from "../../ui/Chart.tsx";
import { hatch, hatched } from "../../ui/hatch.ts";
import { LazyChart } from "../../ui/LazyChart.tsx";
import { tooltipIn } from "../../ui/tooltip.ts";
import { monthNames } from "../../ui/words.ts";

/** "2026-03" → "Mar 26". */
export const sayMonth = (month: string) =>
  `${monthNames[Number(month.slice(5)) - 1]!.slice(0, 3)} ${month.slice(2, 4)}`;

export interface Stack {
  readonly name: string;
  readonly ink: keyof Inks | "hatched";
  readonly values: readonly number[];
}
interface MonthsProps {
  readonly months: readonly string[];
  readonly stacks: readonly Stack[];
  readonly unit: string;
  readonly says: string;
}

/** Columns by month, what they are made of one on the other, with a legend in words. */
export function MonthColumns({ months, stacks, unit, says }: MonthsProps) {
  const draw = useCallback(
    (inks: Inks) => ({
      grid: { left: 40, right: 8, top: 30, bottom: 26 },
      xAxis: {
        type: "category",
        data: months.map(sayMonth),
        axisTick: { show: false },
        axisLine: { lineStyle: { color: inks.ink } },
        axisLabel: { color: inks.soft, hideOverlap: true },
      },
      yAxis: {
        type: "value",
        name: unit,
        minInterval: 1,
        nameTextStyle: { color: inks.soft, align: "left" },
        axisLabel: { color: inks.soft },
        splitLine: { lineStyle: { color: inks.rule } },
      },
      tooltip: {
        ...tooltipIn(inks),
      },
      series: stacks.map(({ name, ink, values }) => ({
        type: "bar",
        name,
        stack: "all",
        barMaxWidth: 44,
        data: [...values],
        itemStyle: { color: ink === "hatched" ? hatch(inks) : inks[ink], borderColor: inks.ink, borderWidth: 0.6 },
      })),
    }),
    [months, stacks, unit],
  );
  return (
    <figure className="mt-2">
      <LazyChart draw={draw} heightPx={230} says={says} />
      <figcaption className="flex flex-wrap gap-x-5 text-sm text-soft">
        {stacks.map(({ name, ink }) => (
          <span key={name} className="inline-flex items-center gap-1.5">
            <span
              aria-hidden
              className={`size-3 border border-ink ${ink === "hatched" ? hatched : ""}`}
              style={ink === "hatched" ? {} : { background: `var(--${ink})` }}
            />
            {name}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
