/** How a figure of the boat sheet is asked for; bounds in the units of the core. */
export interface FigureField {
  readonly label: string;
  readonly least: number;
  readonly most: number;
  readonly why?: string;
  readonly isOptional?: true;
  /** Of counts and of what has one unit only. */
  readonly unit?: string;
  readonly isWhole?: true;
}

const optional = { isOptional: true } as const;
const weight = { least: 0, most: 20_000, ...optional };

/** By path; `*` stands for the id of an item in a list. */
const fields: Record<string, FigureField> = {
  loaM: { label: "Length overall", least: 3, most: 20, why: "Everything aboard keeps its place in proportion." },
  beamM: { label: "Beam", least: 1, most: 6 },
  "weights.dryKg": { ...weight, label: "Dry hull", least: 1 },
  "weights.enginesKg": { ...weight, label: "Engines" },
  "weights.gearKg": { ...weight, label: "Gear carried on the road" },
  "weights.ballastL": { ...weight, label: "Ballast tanks" },
  "weights.sternDraftM": {
    ...optional,
    label: "Draft at the stern, engine up",
    least: 0.05,
    most: 3,
    why: "Tells how deep the trailer goes before the boat floats.",
  },
  "engines.*.powerKw": { ...optional, label: "Power", least: 0.5, most: 2000 },
  "engines.*.ratedRpm.from": {
    label: "Rated from",
    least: 500,
    most: 10_000,
    unit: "rpm",
    why: "The full-throttle band in its manual; break-in limits are shares of it.",
  },
  "engines.*.ratedRpm.to": { label: "Rated to", least: 500, most: 10_000, unit: "rpm" },
  "engines.*.burnLph": {
    ...optional,
    label: "Burn",
    least: 0.2,
    most: 500,
    why: "As entered or measured; turns a break-in counted in tanks into hours.",
  },
  "tanks.*.litres": { label: "Holds up to", least: 1, most: 20_000 },
  "batteries.*.capacityAh": {
    label: "Capacity, 20-hour rating",
    least: 1,
    most: 2000,
    unit: "Ah",
    why: "From its label: how long lights may burn hangs on it.",
  },
  "trailer.ballMm": {
    ...optional,
    label: "Ball",
    least: 20,
    most: 100,
    why: "Stamped on the coupler; must match the vehicle's.",
  },
  "trailer.tyreKpa": {
    ...optional,
    label: "Tire pressure, cold",
    least: 50,
    most: 1000,
    why: "From the trailer's plate.",
  },
  "trailer.hitchToTransomM": { label: "Ball to transom", least: 1, most: 25 },
  "trailer.grossLimitKg": {
    ...optional,
    label: "Gross limit",
    least: 100,
    most: 20_000,
    why: "Boat and trailer together, from the plate.",
  },
  "trailer.kg": { ...optional, label: "Trailer alone", least: 50, most: 5000 },
  "trailer.axleLimitKg": { ...optional, label: "Axles, limit in all", least: 100, most: 20_000 },
  "trailer.tyreLimitKg": {
    ...optional,
    label: "Limit of one tire",
    least: 50,
    most: 5000,
    why: "It stands on the tire's side.",
  },
  "trailer.couplerLimitKg": { ...optional, label: "Coupler, limit", least: 100, most: 20_000, why: "Stamped on top." },
  "trailer.tongueLimitKg": { ...optional, label: "Tongue, limit", least: 10, most: 2000 },
  "trailer.tongueKg": {
    ...optional,
    label: "Tongue weight as it stands",
    least: 1,
    most: 2000,
    why: "Weighed at the coupler with this boat on.",
  },
  "trailer.tyres": { ...optional, label: "Tires", least: 2, most: 6, isWhole: true },
  "trailer.bunkHeightM": {
    ...optional,
    label: "Bunks above the ground",
    least: 0.1,
    most: 3,
    why: "At the stern end.",
  },
  "trailer.fenderFromTransomM": {
    ...optional,
    label: "Fender ahead of transom",
    least: 0.1,
    most: 12,
    why: "To its middle.",
  },
  "trailer.fenderHeightM": { ...optional, label: "Top of fender above the ground", least: 0.1, most: 2 },
};

/** How the figure at a path is asked for. */
export function fieldOf(path: string): FigureField {
  const [list, , ...rest] = path.split(".");
  const isListed = list === "engines" || list === "tanks" || list === "batteries";
  return fields[isListed ? [list, "*", ...rest].join(".") : path]!;
}
