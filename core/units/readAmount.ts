import { sayAmount, sayInches } from "./sayAmount.ts";
import {
  findUnit,
  isFeetAndInches,
  listUnits,
  type Quantity,
  quantities,
  type Typed,
  toCore,
  type UnitId,
  type UnitSystem,
} from "./units.ts";

/** A number as people write it: comma or point, a fraction ("2 5/16"), a comma between thousands where the store has those. */
function readNumber(text: string, system: UnitSystem): number | null {
  const tidy = text.trim().replaceAll("−", "-");
  const fraction = /^(-?)(?:(\d+)[ -])?(\d+)\/(\d+)$/.exec(tidy);
  if (fraction !== null) {
    const [, sign, whole = "0", over, under] = fraction;
    const value = Number(whole) + Number(over) / Number(under);
    return Number.isFinite(value) ? (sign === "-" ? -value : value) : null;
  }
  const isGrouped = system !== "metric" && /^-?\d{1,3}(,\d{3})+(\.\d*)?$/.test(tidy);
  const plain = isGrouped ? tidy.replaceAll(",", "") : tidy.replace(",", ".");
  return /^-?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : null;
}

const footMarks = "ft|feet|foot|'|′";
const inchMarks = `in|inch|inches|"|″|''`;
const feetAndInches = new RegExp(
  `^(-?[\\d.,]+)\\s*(?:${footMarks})\\.?\\s*(?:([\\d.,]+(?:[ -]\\d+/\\d+)?|\\d+/\\d+)\\s*(?:${inchMarks})?\\.?)?$`,
  "i",
);
const withUnit = /^(.*?[\d.])\s*([^\d\s.,-][^\d]*)$/;
const perFoot = 12;

/**
 * What somebody typed, as number and unit; null where it is no amount of this quantity. A unit that is written goes before the
 * chosen one; a bare number is of the chosen one, of feet where lengths are in feet and inches.
 *
 * @example ("18' 6\"", "length", "us") → 222 in; ("18.5", "length", "us") → 222 in; ("4,5 bar", "pressure", "metric") → 4.5 bar.
 */
export function readAmount(text: string, quantity: Quantity, system: UnitSystem, chosen?: UnitId): Typed | null {
  const units = listUnits(quantity, system);
  const unit = chosen ?? units[0]!;
  const tidy = text.trim();
  if (units.includes("ft")) {
    const feet = feetAndInches.exec(tidy);
    if (feet !== null) return readFeet(feet[1]!, feet[2], system);
  }
  const bare = readNumber(tidy, system);
  if (bare !== null) return isFeetAndInches(quantity, unit) ? inInches(bare * perFoot) : { value: bare, unit };
  const written = withUnit.exec(tidy);
  if (written === null) return null;
  const named = findUnit(written[2]!, [unit, ...units]);
  const value = readNumber(written[1]!, system);
  return named === null || value === null ? null : { value, unit: named };
}

function readFeet(feetText: string, inchText: string | undefined, system: UnitSystem): Typed | null {
  const feet = readNumber(feetText, system);
  const inches = inchText === undefined ? 0 : readNumber(inchText, system);
  if (feet === null || inches === null || inches >= perFoot) return null;
  return inInches(feet < 0 ? feet * perFoot - inches : feet * perFoot + inches);
}

/** Without what binary halves leave behind: 18.4 ft is 220.8 in, not 220.79999. */
const inInches = (value: number): Typed => ({ value: Number(value.toFixed(9)), unit: "in" });

/** How an amount is put back into the field in which it was typed. ({ value: 222, unit: "in" }, "length") → "18 ft 6 in". */
export function writeAmount({ value, unit }: Typed, quantity: Quantity): string {
  if (quantity === "ball" && unit === "in" && Number.isInteger(value * 16)) return sayInches(value);
  if (!isFeetAndInches(quantity, unit)) return String(Number(value.toFixed(4)));
  const sign = value < 0 ? "-" : "";
  const size = Number(Math.abs(value).toFixed(2));
  const feet = Math.floor(size / perFoot);
  const rest = Number((size - feet * perFoot).toFixed(2));
  return feet === 0 ? `${sign}${rest} in` : `${sign}${feet} ft${rest === 0 ? "" : ` ${rest} in`}`;
}

/** An amount as an author wrote it, in the store's units: "100 L" → "26 gal"; what is no amount stays as it is written. */
export function sayWritten(written: string, system: UnitSystem): string {
  for (const quantity of quantities) {
    const typed = /\d\s*[^\d\s]/.test(written) ? readAmount(written, quantity, "metric") : null;
    if (typed !== null) return sayAmount(toCore(typed, quantity), quantity, system);
  }
  return written;
}
