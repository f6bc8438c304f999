import { useCallback } from "react";
import { type Tell, tellJoined } from "../../core/language/index.ts";
import { usualFloor } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Inks } from "../ui/Chart.tsx";
import { LazyChart } from "../ui/LazyChart.tsx";
import { type Reader, useReader } from "../ui/tell.ts";
import { formatTime } from "../ui/words.ts";
import { nameBattery } from "./powerWords.ts";
import type { Power } from "./usePower.ts";

const longestH = 72;

interface CurveProps {
  readonly rig: Rig;
  readonly power: Power;
  readonly nowMin: number;
  readonly says: string;
}

/** How the charge of each bank goes down from now on, with the floor it should not go below. */
export function DrainCurve({ rig, power, nowMin, says }: CurveProps) {
  const reader = useReader();
  const { lasts, setting } = power;
  const draw = useCallback(
    (inks: Inks) => drawCurve(rig, lasts.groups, setting.charge, nowMin, inks, reader),
    [rig, lasts, setting.charge, nowMin, reader],
  );
  return <LazyChart draw={draw} heightPx={230} says={says} />;
}

function drawCurve(
  rig: Rig,
  groups: Power["lasts"]["groups"],
  charge: Readonly<Record<string, number>>,
  nowMin: number,
  inks: Inks,
  reader: Reader,
) {
  const { tell } = reader;
  const drawn = groups.map((group) => ({ ...group, ...readGroup(rig, group.batteries, charge, tell) }));
  const soonest = Math.min(...drawn.flatMap(({ hoursToFloor }) => hoursToFloor ?? []), longestH);
  const endH = Math.max(6, Math.min(longestH, Math.ceil((soonest * 1.6) / 6) * 6));
  return {
    grid: { left: 46, right: 24, top: 26, bottom: 30 },
    xAxis: {
      type: "value",
      min: 0,
      max: endH,
      interval: endH / 6,
      axisLabel: { color: inks.soft, formatter: (h: number) => formatTime((nowMin + h * 60) % 1440, reader) },
      axisLine: { lineStyle: { color: inks.ink } },
      splitLine: { show: false },
    },
    yAxis: {
      type: "value",
      min: 0,
      max: 100,
      interval: 25,
      name: tell("charge, %"),
      nameTextStyle: { color: inks.soft, align: "left" },
      nameGap: 10,
      axisLabel: { color: inks.soft },
      splitLine: { lineStyle: { color: inks.rule } },
    },
    series: drawn.map(({ share, floor, hoursToFloor, name }, i) => ({
      type: "line",
      showSymbol: false,
      data: listPoints(share, floor, hoursToFloor, endH),
      lineStyle: {
        color: hoursToFloor === null ? inks.helm : inks.ink,
        width: hoursToFloor === null ? 2 : 3,
        type: hoursToFloor === null ? "dashed" : "solid",
      },
      label: { show: false },
      endLabel: {
        show: true,
        formatter: name,
        color: inks.ink,
        align: "right",
        offset: [-8, i % 2 === 0 ? -12 : 14],
        fontWeight: "bold",
      },
      ...(i === 0
        ? {
            markLine: {
              silent: true,
              symbol: "none",
              lineStyle: { color: inks.magenta, type: "solid", width: 1.2 },
              label: { formatter: tell("too low"), color: inks.magenta, position: "insideStartTop" },
              data: [{ yAxis: Math.max(...drawn.map((each) => each.floor)) * 100 }],
            },
          }
        : {}),
    })),
  };
}

function readGroup(rig: Rig, ids: readonly string[], charge: Readonly<Record<string, number>>, tell: Tell) {
  const batteries = ids.map((id) => rig.batteries.find((each) => each.id === id)!);
  const capacity = batteries.reduce((sum, { capacityAh }) => sum + capacityAh, 0);
  const held = batteries.reduce((sum, { id, capacityAh }) => sum + capacityAh * (charge[id] ?? 1), 0);
  return {
    name: tellJoined(
      tell,
      ids.map((id) => tell.label(nameBattery(rig, id))),
    ),
    share: held / capacity,
    floor: Math.max(...batteries.map(({ chemistry }) => usualFloor[chemistry])),
  };
}

/** Straight down to the floor and on to nothing, as the contract has it: a draw that does not change. */
function listPoints(share: number, floor: number, hours: number | null, endH: number): [number, number][] {
  if (hours === null) return [0, endH].map((h) => [h, share * 100]);
  const perH = hours === 0 ? share / 6 : (share - floor) / hours;
  const emptyH = share / perH;
  const ends = [0, Math.min(emptyH, endH), endH];
  return ends.map((h) => [h, Math.max(0, share - perH * h) * 100]);
}
