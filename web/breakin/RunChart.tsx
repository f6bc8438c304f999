import { useCallback } from "react";
import type { RunSheet } from "../../api/index.ts";
import { formatClockAt } from "../../core/breakin/index.ts";
import type { Inks } from "../ui/Chart.tsx";
import { LazyChart } from "../ui/LazyChart.tsx";

/** A run as engine speed against time: the limits of its hours shaded, what they ask about marked. */
export function RunChart({ sheet, topRpm }: { sheet: RunSheet; topRpm: number }) {
  const { run, limits, samples, temperatures } = sheet;
  const isWarm = temperatures.length > 1;
  const draw = useCallback(
    (inks: Inks) => {
      const endS = samples.at(-1)?.[0] ?? 0;
      const phaseAt = (s: number) => {
        const hours = run.hoursBefore + s / 3600;
        return limits.find(({ fromH, toH }) => fromH <= hours && hours < toH);
      };
      // The limit line, cut where a phase ends within the run.
      const edges = [
        0,
        ...limits.map(({ toH }) => (toH - run.hoursBefore) * 3600).filter((s) => s > 0 && s < endS),
        endS,
      ];
      const shades = edges.slice(1).flatMap((toS, i) => {
        const maxRpm = phaseAt(edges[i]! + 1)?.maxRpm;
        return maxRpm === undefined
          ? []
          : [
              [
                { xAxis: edges[i]! / 60, yAxis: maxRpm },
                { xAxis: toS / 60, yAxis: topRpm * 1.05 },
              ],
            ];
      });
      return {
        grid: { left: 56, right: isWarm ? 44 : 12, top: 30, bottom: 38 },
        xAxis: {
          type: "value",
          min: 0,
          max: Math.ceil(endS / 60),
          name: "time",
          nameLocation: "middle",
          nameGap: 24,
          axisLabel: { color: inks.soft, formatter: (min: number) => formatClockAt(run.startMin, min * 60) },
          axisLine: { lineStyle: { color: inks.ink } },
          splitLine: { show: false },
        },
        yAxis: [
          {
            type: "value",
            min: 0,
            max: Math.ceil((topRpm * 1.05) / 500) * 500,
            interval: 1000,
            name: "rpm",
            nameTextStyle: { color: inks.soft, align: "right" },
            nameGap: 12,
            axisLabel: { color: inks.soft },
            splitLine: { lineStyle: { color: inks.rule } },
          },
          ...(isWarm
            ? [
                {
                  type: "value",
                  min: 0,
                  max: 120,
                  interval: 40,
                  name: "coolant °C",
                  nameTextStyle: { color: inks.soft, align: "right" },
                  nameGap: 12,
                  axisLabel: { color: inks.soft },
                  splitLine: { show: false },
                },
              ]
            : []),
        ],
        tooltip: {
          trigger: "axis",
          backgroundColor: inks.panel,
          borderColor: inks.ink,
          textStyle: { color: inks.ink },
          formatter: (points: { seriesIndex: number; value: [number, number] }[]) =>
            [
              formatClockAt(run.startMin, points[0]!.value[0] * 60),
              ...points.map(({ seriesIndex, value }) =>
                seriesIndex === 0 ? `${value[1].toLocaleString("en-GB")} rpm` : `coolant ${Math.round(value[1])} °C`,
              ),
            ].join("  "),
        },
        series: [
          {
            type: "line",
            data: samples.map(([s, rpm]) => [s / 60, rpm]),
            showSymbol: false,
            lineStyle: { width: 1.6, color: inks.helm },
            markArea: {
              silent: true,
              itemStyle: { color: inks.buff, opacity: 0.75 },
              data: [
                ...shades,
                ...run.verdict.breaches.map(({ startS, endS: untilS }) => [
                  { xAxis: startS / 60, yAxis: 0, itemStyle: { color: inks.magenta, opacity: 0.14 } },
                  { xAxis: Math.max(untilS, startS + 20) / 60, yAxis: topRpm * 1.05 },
                ]),
              ],
            },
          },
          ...(isWarm
            ? [
                {
                  type: "line",
                  yAxisIndex: 1,
                  data: temperatures.map(([s, celsius]) => [s / 60, celsius]),
                  showSymbol: false,
                  lineStyle: { width: 1.4, color: inks.soft, type: "dashed" },
                },
              ]
            : []),
        ],
      };
    },
    [limits, run, samples, temperatures, isWarm, topRpm],
  );
  const { breaches, runS } = run.verdict;
  return (
    <LazyChart
      draw={draw}
      heightPx={260}
      says={`Engine speed over ${Math.round(runS / 60)} minutes, ${breaches.length === 0 ? "within the limits of its hours" : breaches.length === 1 ? "one stretch outside the limits" : `${breaches.length} stretches outside the limits`}${isWarm ? "; its coolant dashed" : ""}`}
    />
  );
}
