import type { Inks } from "./Chart.tsx";

/** What a chart says of a point along its axis, in the page's own colours. */
export const tooltipIn = (inks: Inks) => ({
  trigger: "axis",
  backgroundColor: inks.panel,
  borderColor: inks.ink,
  textStyle: { color: inks.ink },
});
