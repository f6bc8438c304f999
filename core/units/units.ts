import type { Region } from "../region/index.ts";

export type UnitSystem = Region["units"];

/**
 * What is measured, each with the unit the core keeps it in. length: metres, of boats and distances aboard. height: metres, of
 * what is held against the eye (draft, bunks, fender). ball: millimetres. mass: kg. volume: litres. flow: litres an hour.
 * pressure: kPa. power: kW. temperature: °C. road: km. roadSpeed: km/h. waterSpeed: knots.
 */
export const quantities = [
  "length",
  "height",
  "ball",
  "mass",
  "volume",
  "flow",
  "pressure",
  "power",
  "temperature",
  "road",
  "roadSpeed",
  "waterSpeed",
] as const;
export type Quantity = (typeof quantities)[number];

interface Unit {
  /** As it is written behind a number. */
  readonly sign: string;
  /** What else people write for it. */
  readonly also?: readonly string[];
  /** One of it, and its zero, in metres, kg, litres, litres an hour, kPa, kW, °C or km/h. */
  readonly each: number;
  readonly zero?: number;
  /** Digits after the point that are worth showing. */
  readonly digits: number;
}

const inchM = 0.0254;
const poundKg = 0.45359237;
const usGallonL = 3.785411784;
const imperialGallonL = 4.54609;
const psiKpa = 6.894757293168361;

/**
 * Factors are exact by definition: the international inch and pound (1959), the US gallon of 231 cubic inches, the Imperial
 * gallon (UK Weights and Measures Act 1985), the mechanical horsepower of 550 foot-pounds a second; psi from pound, inch and
 * standard gravity.
 */
const units = {
  m: { sign: "m", also: ["metre", "metres", "meter", "meters"], each: 1, digits: 2 },
  cm: { sign: "cm", each: 0.01, digits: 0 },
  mm: { sign: "mm", each: 0.001, digits: 1 },
  ft: { sign: "ft", also: ["feet", "foot", "′", "'"], each: 12 * inchM, digits: 1 },
  in: { sign: "in", also: ["inch", "inches", "″", '"'], each: inchM, digits: 0 },
  km: { sign: "km", each: 1000, digits: 1 },
  mi: { sign: "mi", also: ["mile", "miles"], each: 1609.344, digits: 1 },
  kg: { sign: "kg", each: 1, digits: 0 },
  lb: { sign: "lb", also: ["lbs", "pound", "pounds"], each: poundKg, digits: 0 },
  L: { sign: "L", also: ["litre", "litres", "liter", "liters"], each: 1, digits: 0 },
  "us-gal": { sign: "gal", also: ["gallon", "gallons", "US gal"], each: usGallonL, digits: 1 },
  "imp-gal": { sign: "gal", also: ["gallon", "gallons"], each: imperialGallonL, digits: 1 },
  "L/h": { sign: "L/h", each: 1, digits: 1 },
  "us-gal/h": { sign: "gal/h", also: ["gph"], each: usGallonL, digits: 1 },
  "imp-gal/h": { sign: "gal/h", also: ["gph"], each: imperialGallonL, digits: 1 },
  kPa: { sign: "kPa", each: 1, digits: 0 },
  psi: { sign: "psi", also: ["PSI"], each: psiKpa, digits: 0 },
  bar: { sign: "bar", each: 100, digits: 1 },
  kW: { sign: "kW", each: 1, digits: 0 },
  hp: { sign: "hp", also: ["HP"], each: 0.7456998715822702, digits: 0 },
  "°C": { sign: "°C", also: ["C"], each: 1, digits: 0 },
  "°F": { sign: "°F", also: ["F"], each: 5 / 9, zero: -160 / 9, digits: 0 },
  "km/h": { sign: "km/h", also: ["kmh", "kph"], each: 1, digits: 0 },
  mph: { sign: "mph", each: 1.609344, digits: 0 },
  kn: { sign: "kn", also: ["knot", "knots", "kt", "kts"], each: 1.852, digits: 1 },
} as const satisfies Record<string, Unit>;

export type UnitId = keyof typeof units;
export const unitIds = Object.keys(units) as [UnitId, ...UnitId[]];
const unitOf = (id: UnitId): Unit => units[id];

/** A figure as a person typed it, beside what the core keeps of it. Feet and inches are kept as inches. */
export interface Typed {
  readonly value: number;
  readonly unit: UnitId;
}

/** The unit in which the core keeps a quantity. */
const coreUnits = {
  length: "m",
  height: "m",
  ball: "mm",
  mass: "kg",
  volume: "L",
  flow: "L/h",
  pressure: "kPa",
  power: "kW",
  temperature: "°C",
  road: "km",
  roadSpeed: "km/h",
  waterSpeed: "kn",
} as const satisfies Record<Quantity, UnitId>;

/** The units of a quantity by system, the one it is shown in first; after it what people type there as well. */
const offered: Readonly<Record<Quantity, Readonly<Record<UnitSystem, readonly [UnitId, ...UnitId[]]>>>> = {
  length: { us: ["in", "ft", "m"], imperial: ["in", "ft", "m"], metric: ["m", "cm", "ft", "in"] },
  height: { us: ["in", "ft", "cm", "m"], imperial: ["in", "ft", "cm", "m"], metric: ["cm", "m", "in", "ft"] },
  ball: { us: ["in", "mm"], imperial: ["mm", "in"], metric: ["mm", "in"] },
  mass: { us: ["lb", "kg"], imperial: ["lb", "kg"], metric: ["kg", "lb"] },
  volume: { us: ["us-gal", "L"], imperial: ["imp-gal", "L"], metric: ["L", "us-gal"] },
  flow: { us: ["us-gal/h", "L/h"], imperial: ["imp-gal/h", "L/h"], metric: ["L/h", "us-gal/h"] },
  pressure: { us: ["psi", "kPa", "bar"], imperial: ["psi", "kPa", "bar"], metric: ["kPa", "bar", "psi"] },
  power: { us: ["hp", "kW"], imperial: ["hp", "kW"], metric: ["kW", "hp"] },
  temperature: { us: ["°F", "°C"], imperial: ["°C", "°F"], metric: ["°C", "°F"] },
  road: { us: ["mi", "km"], imperial: ["mi", "km"], metric: ["km", "mi"] },
  roadSpeed: { us: ["mph", "km/h"], imperial: ["mph", "km/h"], metric: ["km/h", "mph"] },
  waterSpeed: { us: ["kn", "mph"], imperial: ["kn", "mph"], metric: ["kn", "km/h"] },
};

/** The units in which a quantity can be typed in a store, the store's own first. */
export const listUnits = (quantity: Quantity, system: UnitSystem): readonly [UnitId, ...UnitId[]] =>
  offered[quantity][system];

/** The unit in which a store shows a quantity. */
export const shownUnit = (quantity: Quantity, system: UnitSystem): UnitId => offered[quantity][system][0];

/** As it stands behind a number or over a column: "psi"; "ft in" where lengths are written in both. */
export const signOf = (quantity: Quantity, unit: UnitId): string =>
  isFeetAndInches(quantity, unit) ? "ft in" : unitOf(unit).sign;

/** Lengths of whole boats are said in feet and inches; heights in inches alone. */
export const isFeetAndInches = (quantity: Quantity, unit: UnitId): boolean => quantity === "length" && unit === "in";

/** In the unit of the core. ({ value: 50, unit: "psi" }, "pressure") → 344.7 kPa. */
export const toCore = (typed: Typed, quantity: Quantity): number =>
  convert(typed.value, typed.unit, coreUnits[quantity]);

/** In this unit. (344.7 kPa, "pressure", "psi") → 50. */
export const fromCore = (amount: number, quantity: Quantity, unit: UnitId): number =>
  convert(amount, coreUnits[quantity], unit);

function convert(value: number, from: UnitId, to: UnitId): number {
  if (from === to) return value;
  const [a, b] = [unitOf(from), unitOf(to)];
  return (value * a.each + (a.zero ?? 0) - (b.zero ?? 0)) / b.each;
}

/** Digits after the point worth showing in this unit. */
export const digitsOf = (unit: UnitId): number => unitOf(unit).digits;

/** The unit that somebody wrote behind a number, of those offered; null where it is none of them. */
export function findUnit(written: string, among: readonly UnitId[]): UnitId | null {
  const tidy = written.trim();
  const isIt = (id: UnitId) => unitOf(id).sign === tidy || unitOf(id).also?.includes(tidy);
  return among.find(isIt) ?? among.find((id) => unitOf(id).sign.toLowerCase() === tidy.toLowerCase()) ?? null;
}
