import type { Region } from "./regionSchema.ts";
import type { unitSystems } from "./unitSystems.ts";

/** Where most stores begin; each line can be changed by itself. */
export const regions: Readonly<Record<(typeof unitSystems)[number], Region>> = {
  us: {
    units: "us",
    spelling: "us",
    currency: "USD",
    paper: "letter",
    weekStart: 6,
    dateOrder: "mdy",
    clock: "12",
    emergency: "911",
  },
  imperial: {
    units: "imperial",
    spelling: "uk",
    currency: "GBP",
    paper: "a4",
    weekStart: 0,
    dateOrder: "dmy",
    clock: "24",
    emergency: "999",
  },
  metric: {
    units: "metric",
    spelling: "uk",
    currency: "EUR",
    paper: "a4",
    weekStart: 0,
    dateOrder: "dmy",
    clock: "24",
    emergency: "112",
  },
};

/** A region as an older version kept it, with what has been added since as its units usually have it. */
export const completeRegion = (kept: Partial<Region> & Pick<Region, "units">): Region => ({
  ...regions[kept.units],
  ...kept,
});
