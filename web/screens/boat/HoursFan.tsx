import { useCallback, useState } from "react";
import type { Boat, EngineCare } from "../../../api/index.ts";
import type { Inks } from "../../ui/Chart.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { describeDue } from "../../ui/DueDay.tsx";
import { LazyChart } from "../../ui/LazyChart.tsx";

/** Where the hours are going: what was read, and the fan of what is likely, with the hours of the next service across it. */
export function HoursFan({ boat }: { boat: Boat }) {
  const known = boat.care.filter(({ forecast }) => forecast !== null);
  const [engine, setEngine] = useState(known[0]?.engine ?? "");
  const care = known.find((each) => each.engine === engine) ?? known[0];
  if (care === undefined) return null;
  return (
    <>
      {known.length > 1 && (
        <div className="mb-2 flex flex-wrap gap-2" role="radiogroup" aria-label="Engine of the forecast">
          {known.map((each) => (
            <Chip key={each.engine} isPicked={each.engine === care.engine} onPick={() => setEngine(each.engine)}>
              {each.label}
            </Chip>
          ))}
        </div>
      )}
      <Fan boat={boat} care={care} />
    </>
  );
}

function Fan({ boat, care }: { boat: Boat; care: EngineCare }) {
  const forecast = care.forecast!;
  const { today } = boat;
  const draw = useCallback((inks: Inks) => drawFan(boat, care, inks), [boat, care]);
  const { yearH, nextService } = forecast;
  // Before the first reading of their own it is what such boats usually do.
  const isTheirs = boat.readings.some(({ engine, date }) => engine === care.engine && date > (boat.inService ?? today));
  const says = `${isTheirs ? "This owner runs" : "Nothing is known of this owner yet. Such boats run"} ${yearH.p10.toFixed(0)} to ${yearH.p90.toFixed(0)} h a year, likely ${yearH.p50.toFixed(0)}.${
    nextService === null
      ? ""
      : ` ${nextService.title} at ${nextService.targetH} h${nextService.by === "calendar" ? " or by the calendar" : ""}: ${describeDue({ ...nextService, date: nextService.dueDate }, today)}.`
  }`;
  return (
    <>
      <LazyChart draw={draw} heightPx={210} says={says} />
      <p data-testid={`forecast-${care.engine}`}>{says}</p>
    </>
  );
}

function drawFan(boat: Boat, care: EngineCare, inks: Inks) {
  const forecast = care.forecast!;
  return {
    grid: { left: 50, right: 86, top: 30, bottom: 30 },
    xAxis: {
      type: "time",
      axisLabel: { color: inks.soft, hideOverlap: true },
      axisLine: { lineStyle: { color: inks.ink } },
      splitLine: { show: false },
    },
    yAxis: {
      type: "value",
      min: 0,
      name: "hours",
      nameTextStyle: { color: inks.soft, align: "right" },
      nameGap: 12,
      axisLabel: { color: inks.soft },
      splitLine: { lineStyle: { color: inks.rule } },
    },
    series: [...listBands(forecast.fan, inks), drawReported(boat, care, inks)],
  };
}

type Forecast = NonNullable<EngineCare["forecast"]>;

/** Where the hours go: the range they stay in eight times of ten, and the middle. */
const listBands = (fan: Forecast["fan"], inks: Inks) => [
  {
    type: "line",
    stack: "fan",
    data: fan.map(({ date, p10 }) => [date, p10]),
    showSymbol: false,
    lineStyle: { opacity: 0 },
  },
  {
    type: "line",
    stack: "fan",
    data: fan.map(({ date, p10, p90 }) => [date, p90 - p10]),
    showSymbol: false,
    lineStyle: { opacity: 0 },
    areaStyle: { color: inks.shoal, opacity: 1 },
  },
  {
    type: "line",
    data: fan.map(({ date, p50 }) => [date, p50]),
    showSymbol: false,
    lineStyle: { color: inks.helm, width: 2, type: "dashed" },
    endLabel: { show: true, formatter: "likely", color: inks.helm },
  },
];

/** The hours that were read, today, and the hours the next service is at. */
function drawReported({ readings, today }: Boat, { engine, forecast }: EngineCare, inks: Inks) {
  const target = forecast?.nextService?.targetH ?? undefined;
  return {
    type: "line",
    data: readings.filter((each) => each.engine === engine).map(({ date, hours }) => [date, hours]),
    symbol: "circle",
    symbolSize: 8,
    itemStyle: { color: inks.ink },
    lineStyle: { color: inks.ink, width: 1.5 },
    markLine: {
      silent: true,
      symbol: "none",
      data: [
        {
          xAxis: today,
          lineStyle: { color: inks.soft, type: "dotted" },
          label: { formatter: "today", color: inks.soft, position: "start" },
        },
        ...(target === undefined
          ? []
          : [
              {
                yAxis: target,
                lineStyle: { color: inks.magenta, type: "solid" },
                label: { formatter: `${target} h`, color: inks.magenta },
              },
            ]),
      ],
    },
  };
}
