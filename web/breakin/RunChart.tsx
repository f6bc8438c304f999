import { useCallback } from "react";
import type { RunSheet } from "../../api/index.ts";
import { minuteAt } from "../../core/breakin/index.ts";
import type { Tell } from "../../core/language/index.ts";
import { fromCore, shownUnit } from "../../core/units/index.ts";
import { headOf } from "../ui/amounts.ts";
import type { Inks } from "../ui/Chart.tsx";
import { LazyChart } from "../ui/LazyChart.tsx";
import { storeRegion } from "../ui/storeTime.ts";
import { type Reader, useReader } from "../ui/tell.ts";
import { tooltipIn } from "../ui/tooltip.ts";
import { formatTime } from "../ui/words.ts";

/** A run as engine speed against time: the limits of its hours shaded, what they ask about marked. */
export function RunChart({ sheet, topRpm }: { sheet: RunSheet; topRpm: number }) {
  const reader = useReader();
  const { tell } = reader;
  const isWarm = sheet.temperatures.length > 1;
  const draw = useCallback((inks: Inks) => drawRun(sheet, topRpm, inks, reader), [sheet, topRpm, reader]);
  const { breaches, runS } = sheet.run.verdict;
  return (
    <LazyChart
      draw={draw}
      heightPx={260}
      says={tell(
        "Engine speed over {0} minutes, {1}{2}",
        Math.round(runS / 60),
        breaches.length === 0
          ? tell("within the limits of its hours")
          : breaches.length === 1
            ? tell("one stretch outside the limits")
            : tell("{0} stretches outside the limits", breaches.length),
        isWarm ? tell("; its coolant dashed") : "",
      )}
    />
  );
}

/** Where in the run which limit stands, as areas above it: the limit line is cut where a phase ends within the run. */
function shadeLimits({ run, limits }: RunSheet, endS: number, topRpm: number) {
  const phaseAt = (s: number) => {
    const hours = run.hoursBefore + s / 3600;
    return limits.find(({ fromH, toH }) => fromH <= hours && hours < toH);
  };
  const edges = [0, ...limits.map(({ toH }) => (toH - run.hoursBefore) * 3600).filter((s) => s > 0 && s < endS), endS];
  return edges.slice(1).flatMap((toS, i) => {
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
}

function drawRun(sheet: RunSheet, topRpm: number, inks: Inks, reader: Reader) {
  const { tell } = reader;
  const { run, samples, temperatures } = sheet;
  const endS = samples.at(-1)?.[0] ?? 0;
  const isWarm = temperatures.length > 1;
  return {
    grid: { left: 56, right: isWarm ? 44 : 12, top: 30, bottom: 38 },
    xAxis: {
      type: "value",
      min: 0,
      max: Math.ceil(endS / 60),
      name: tell("time"),
      nameLocation: "middle",
      nameGap: 24,
      axisLabel: { color: inks.soft, formatter: (min: number) => formatTime(minuteAt(run.startMin, min * 60), reader) },
      axisLine: { lineStyle: { color: inks.ink } },
      splitLine: { show: false },
    },
    yAxis: [speedAxis(topRpm, inks, tell), ...(isWarm ? [coolantAxis(inks, tell)] : [])],
    tooltip: {
      ...tooltipIn(inks),
      formatter: formatPoints(run.startMin, reader),
    },
    series: [speedSeries(sheet, topRpm, inks), ...(isWarm ? [coolantSeries(temperatures, inks)] : [])],
  };
}

const speedAxis = (topRpm: number, inks: Inks, tell: Tell) => ({
  type: "value",
  min: 0,
  max: Math.ceil((topRpm * 1.05) / 500) * 500,
  interval: 1000,
  name: tell("rpm"),
  nameTextStyle: { color: inks.soft, align: "right" },
  nameGap: 12,
  axisLabel: { color: inks.soft },
  splitLine: { lineStyle: { color: inks.rule } },
});

const coolantUnit = () => shownUnit("temperature", storeRegion().units);

const coolantAxis = (inks: Inks, tell: Tell) => ({
  type: "value",
  min: 0,
  max: coolantUnit() === "°F" ? 250 : 120,
  interval: coolantUnit() === "°F" ? 50 : 40,
  name: headOf(tell("coolant"), "temperature"),
  nameTextStyle: { color: inks.soft, align: "right" },
  nameGap: 12,
  axisLabel: { color: inks.soft },
  splitLine: { show: false },
});

const formatPoints =
  (startMin: number, reader: Reader) => (points: { seriesIndex: number; value: [number, number] }[]) =>
    [
      formatTime(minuteAt(startMin, points[0]!.value[0] * 60), reader),
      ...points.map(({ seriesIndex, value }) =>
        seriesIndex === 0
          ? `${value[1].toLocaleString("en-GB")} ${reader.tell("rpm")}`
          : `${reader.tell("coolant")} ${Math.round(value[1])} ${coolantUnit()}`,
      ),
    ].join("  ");

function speedSeries(sheet: RunSheet, topRpm: number, inks: Inks) {
  const { run, samples } = sheet;
  return {
    type: "line",
    data: samples.map(([s, rpm]) => [s / 60, rpm]),
    showSymbol: false,
    lineStyle: { width: 1.6, color: inks.helm },
    markArea: {
      silent: true,
      itemStyle: { color: inks.buff, opacity: 0.75 },
      data: [
        ...shadeLimits(sheet, samples.at(-1)?.[0] ?? 0, topRpm),
        ...run.verdict.breaches.map(({ startS, endS: untilS }) => [
          { xAxis: startS / 60, yAxis: 0, itemStyle: { color: inks.magenta, opacity: 0.14 } },
          { xAxis: Math.max(untilS, startS + 20) / 60, yAxis: topRpm * 1.05 },
        ]),
      ],
    },
  };
}

const coolantSeries = (temperatures: RunSheet["temperatures"], inks: Inks) => ({
  type: "line",
  yAxisIndex: 1,
  data: temperatures.map(([s, celsius]) => [s / 60, fromCore(celsius, "temperature", coolantUnit())]),
  showSymbol: false,
  lineStyle: { width: 1.4, color: inks.soft, type: "dashed" },
});
