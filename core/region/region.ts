import type { Region } from "./regionSchema.ts";
import type { unitSystems } from "./unitSystems.ts";

/** Where most stores begin; each line can be changed by itself. */
export const regions: Readonly<Record<(typeof unitSystems)[number], Region>> = {
  us: { units: "us", spelling: "us", currency: "USD", paper: "letter", weekStart: 6, dateOrder: "mdy" },
  imperial: { units: "imperial", spelling: "uk", currency: "GBP", paper: "a4", weekStart: 0, dateOrder: "dmy" },
  metric: { units: "metric", spelling: "uk", currency: "EUR", paper: "a4", weekStart: 0, dateOrder: "dmy" },
};
