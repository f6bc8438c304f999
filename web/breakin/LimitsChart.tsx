import { useCallback } from "react";
import type { LimitPhase } from "../../core/breakin/index.ts";
import { formatWhole, type Tell } from "../../core/language/index.ts";
import type { Inks } from "../ui/Chart.tsx";
import { LazyChart } from "../ui/LazyChart.tsx";
import { useReader } from "../ui/tell.ts";
import { formatHours } from "../ui/words.ts";

interface LimitsChartProps {
  readonly limits: readonly LimitPhase[];
  readonly topRpm: number;
  /** Hours reported so far; marked where they are within the break-in. */
  readonly hours: number | null;
  readonly heightPx?: number;
}

/** The limits of a break-in against engine hours: a step line, land above it. */
export function LimitsChart({ limits, topRpm, hours, heightPx = 170 }: LimitsChartProps) {
  const totalH = limits.at(-1)?.toH ?? 0;
  const { tell, language } = useReader();
  const draw = useCallback(
    (inks: Inks) => drawLimits({ limits, topRpm, hours }, inks, tell),
    [limits, topRpm, hours, tell],
  );
  const says = tell(
    "Limits over {0} engine hours: {1}",
    totalH.toFixed(0),
    limits
      .map(({ fromH, toH, maxRpm }) =>
        maxRpm === undefined
          ? tell("{0} to {1} h, the whole band", formatHours(fromH), formatHours(toH))
          : tell("{0} to {1} h, at most {2} rpm", formatHours(fromH), formatHours(toH), formatWhole(maxRpm, language)),
      )
      .join("; "),
  );
  return <LazyChart draw={draw} heightPx={heightPx} says={says} />;
}

function drawLimits({ limits, topRpm, hours }: Omit<LimitsChartProps, "heightPx">, inks: Inks, tell: Tell) {
  const totalH = limits.at(-1)?.toH ?? 0;
  const line = limits.flatMap(({ fromH, toH, maxRpm }) => [
    [fromH, maxRpm ?? topRpm],
    [toH, maxRpm ?? topRpm],
  ]);
  return {
    grid: { left: 52, right: 14, top: 30, bottom: 34 },
    xAxis: {
      type: "value",
      min: 0,
      max: totalH,
      name: tell("engine hours"),
      nameLocation: "middle",
      nameGap: 20,
      axisLabel: { color: inks.soft },
      axisLine: { lineStyle: { color: inks.ink } },
      splitLine: { show: false },
    },
    yAxis: {
      type: "value",
      min: 0,
      max: Math.ceil(topRpm / 1000) * 1000,
      name: tell("rpm at most"),
      nameTextStyle: { color: inks.soft, align: "left" },
      nameGap: 12,
      interval: 2000,
      axisLabel: { color: inks.soft },
      splitLine: { lineStyle: { color: inks.rule } },
    },
    series: [
      {
        type: "line",
        data: line,
        showSymbol: false,
        lineStyle: { color: inks.helm, width: 2 },
        areaStyle: { color: inks.shoal, opacity: 0.8 },
        markLine:
          hours === null || hours > totalH
            ? undefined
            : {
                silent: true,
                symbol: "none",
                lineStyle: { color: inks.magenta, width: 2, type: "solid" },
                label: {
                  formatter: tell("now {0} h", hours.toFixed(1)),
                  color: inks.magenta,
                  position: "insideMiddleTop",
                  rotate: 0,
                  offset: [30, 0],
                },
                data: [{ xAxis: hours }],
              },
      },
    ],
  };
}
