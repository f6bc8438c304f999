import {
  digitsOf,
  fromCore,
  isFeetAndInches,
  type Quantity,
  shownUnit,
  signOf,
  type Typed,
  toCore,
  type UnitId,
  type UnitSystem,
} from "./units.ts";

/** Figures typed a double's rounding apart are the same. */
const sameShare = 1e-9;

/** Whether what was typed is what the core keeps: it is not, once the figure was changed in another way. */
export const isTyped = (typed: Typed | undefined, amount: number, quantity: Quantity): typed is Typed =>
  typed !== undefined && Math.abs(toCore(typed, quantity) - amount) <= sameShare * Math.max(1, Math.abs(amount));

/**
 * An amount with its unit, as a store of this system reads it. What somebody typed in a unit of the store stays digit for digit.
 *
 * @param amount in the unit of the core (`quantities`).
 * @example (344.738, "pressure", "us") → "50 psi"; (5.6388, "length", "us") → "18 ft 6 in"; (50.8, "ball", "us") → "2 in (50.8 mm)".
 */
export function sayAmount(amount: number, quantity: Quantity, system: UnitSystem, typed?: Typed): string {
  if (quantity === "ball") return sayBall(amount, system);
  const unit = shownUnit(quantity, system);
  if (isTyped(typed, amount, quantity) && typed.unit === unit) return sayIn(typed.value, quantity, unit, isExact);
  return sayIn(fromCore(amount, quantity, unit), quantity, unit);
}

/** As somebody typed it, whatever the store measures in: what stands on a plate, or what a signer saw. */
export const sayTyped = ({ value, unit }: Typed, quantity: Quantity): string => sayIn(value, quantity, unit, isExact);

/** An amount of the core in one given unit. (450, "pressure", "psi") → "65 psi". */
export const sayAmountIn = (amount: number, quantity: Quantity, unit: UnitId): string =>
  sayIn(fromCore(amount, quantity, unit), quantity, unit);

/** The number alone, without its unit: for a column whose head bears it (`headOf`). */
export const sayNumber = (amount: number, quantity: Quantity, system: UnitSystem): string => {
  const unit = shownUnit(quantity, system);
  return isFeetAndInches(quantity, unit)
    ? sayFeet(fromCore(amount, quantity, unit))
    : roundTo(fromCore(amount, quantity, unit), unit);
};

/** A column's head with the unit of what stands below it: "Length, ft in"; "Fuel, gal". */
export const headOf = (name: string, quantity: Quantity, system: UnitSystem): string =>
  `${name}, ${signOf(quantity, shownUnit(quantity, system))}`;

const isExact = true;

function sayIn(value: number, quantity: Quantity, unit: UnitId, exact = false): string {
  if (isFeetAndInches(quantity, unit)) return sayFeet(value);
  if (quantity === "ball" && unit === "in") return `${sayInches(value)} in`;
  return `${exact ? trim(value) : roundTo(value, unit)} ${signOf(quantity, unit)}`;
}

function roundTo(value: number, unit: UnitId): string {
  const digits = digitsOf(unit);
  // A metre bears two digits because boats are told apart by them; elsewhere a large figure needs none after the point.
  const shown = unit !== "m" && Math.abs(value) >= 100 ? 0 : digits;
  const text = value.toFixed(shown);
  return unit === "m" ? text : trim(Number(text));
}

/** Without zeros that say nothing: 50.0 → 50. Thousands are set off from five digits on, where an eye would count them. */
const trim = (value: number): string =>
  Number(value.toFixed(6)).toLocaleString("en-US", {
    maximumFractionDigits: 6,
    useGrouping: Math.abs(value) >= 10_000,
  });

const perFoot = 12;

/** "18 ft 6 in"; "7 in" under a foot; minus in front; to the whole inch. */
function sayFeet(inches: number): string {
  const whole = Math.round(Math.abs(inches));
  const sign = inches < 0 && whole > 0 ? "−" : "";
  const feet = Math.floor(whole / perFoot);
  const rest = whole % perFoot;
  if (feet === 0) return `${sign}${rest} in`;
  return `${sign}${feet} ft${rest === 0 ? "" : ` ${rest} in`}`;
}

const sixteenths = 16;

/** Inches with a fraction, as tools and balls are named: 1.875 → "1 7/8"; in decimals where no sixteenth is near. */
export function sayInches(inches: number): string {
  const parts = Math.round(inches * sixteenths);
  if (Math.abs(inches * sixteenths - parts) > 0.16) return trim(Number(inches.toFixed(2)));
  const whole = Math.floor(parts / sixteenths);
  let over = parts % sixteenths;
  let under = sixteenths;
  while (over > 0 && over % 2 === 0) {
    over /= 2;
    under /= 2;
  }
  const fraction = over === 0 ? "" : `${over}/${under}`;
  return [whole === 0 && fraction !== "" ? "" : String(whole), fraction].filter(Boolean).join(" ");
}

/** Balls are stamped in either; a 2 in ball under a 50 mm coupler comes off, so both are said, the store's first. */
function sayBall(mm: number, system: UnitSystem): string {
  const inches = `${sayInches(mm / 25.4)} in`;
  const metric = `${trim(Number(mm.toFixed(1)))} mm`;
  return shownUnit("ball", system) === "in" ? `${inches} (${metric})` : `${metric} (${inches})`;
}
