import { BarChart, LineChart } from "echarts/charts";
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import type { EChartsCoreOption } from "echarts/core";
import * as echarts from "echarts/core";
import { SVGRenderer } from "echarts/renderers";

import { useEffect, useRef } from "react";

echarts.use([LineChart, BarChart, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

/** The roles of the page's colours, as they are now: charts are drawn with them, by day and by night. */
export function readInks() {
  const style = getComputedStyle(document.documentElement);
  const of = (name: string) => style.getPropertyValue(`--${name}`).trim() || "#14222b";
  return {
    ink: of("ink"),
    soft: of("soft"),
    rule: of("rule"),
    helm: of("helm"),
    deep: of("deep"),
    shoal: of("shoal"),
    buff: of("buff"),
    magenta: of("magenta"),
    amber: of("amber"),
    panel: of("panel"),
  };
}
export type Inks = ReturnType<typeof readInks>;

interface ChartProps {
  /** Made anew when `draw` changes: keep it stable. */
  readonly draw: (inks: Inks) => EChartsCoreOption;
  /** What the chart shows, in one sentence: for those who do not see it. */
  readonly says: string;
  readonly heightPx: number;
  readonly onPick?: (index: number) => void;
}

/** A chart as SVG, so that it prints sharp. It is drawn again when its box or the theme changes. */
export default function Chart({ draw, says, heightPx, onPick }: ChartProps) {
  const box = useRef<HTMLDivElement>(null);
  const pick = useRef(onPick);
  pick.current = onPick;
  useEffect(() => {
    const chart = echarts.init(box.current!, undefined, { renderer: "svg" });
    const paint = () =>
      chart.setOption(
        { animation: false, textStyle: { fontFamily: "Archivo Variable, sans-serif" }, ...draw(readInks()) },
        true,
      );
    paint();
    chart.on("click", ({ dataIndex }) => pick.current?.(dataIndex));
    const size = new ResizeObserver(() => chart.resize());
    size.observe(box.current!);
    const theme = new MutationObserver(paint);
    theme.observe(document.documentElement, { attributes: true, attributeFilter: ["class", "data-theme"] });
    return () => {
      size.disconnect();
      theme.disconnect();
      chart.dispose();
    };
  }, [draw]);
  return <div ref={box} role="img" aria-label={says} style={{ height: heightPx }} className="w-full" />;
}
