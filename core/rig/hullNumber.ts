/** What a hull identification number says, and what about it cannot be right. */
export interface HullNumber {
  /** As it is written on the transom, without spaces, hyphens and small letters. */
  readonly number: string;
  readonly form: "us-12" | "iso-14" | "unknown";
  readonly country: string | null;
  readonly maker: string | null;
  readonly serial: string | null;
  /** Month and year the boat was built (or certified), the model year. */
  readonly built: { readonly year: number; readonly month: number } | null;
  readonly modelYear: number | null;
  /** In plain words; empty when nothing is wrong. A warning, never a refusal. */
  readonly doubts: readonly string[];
}

const months = "ABCDEFGHIJKL";
const usForm = /^([A-Z]{3}|[A-Z][A-Z0-9]{2})([A-Z0-9]{5})([A-Z])(\d)(\d{2})$/;

/**
 * Reads a hull identification number: 12 characters as in US rules (33 CFR 181.25: maker 3, serial 5, month letter A–L,
 * last digit of the year built, model year 2) or 14 as in ISO 10087 (country 2, then the same 12). A model year is of the
 * 100 years up to two ahead of `thisYear`.
 *
 * @example "SLW23118K526" in 2026 → built November 2025, model year 2026, no doubts.
 */
export function readHullNumber(text: string, thisYear: number): HullNumber {
  const number = text.toUpperCase().replace(/[\s-]/g, "");
  const none = { country: null, maker: null, serial: null, built: null, modelYear: null };
  const doubt = (said: string): HullNumber => ({ number, form: "unknown", ...none, doubts: [said] });
  if (number === "") return doubt("There is no hull number yet; it stands at the top of the transom, starboard side");
  if (!/^[A-Z0-9]+$/.test(number)) return doubt("A hull number has letters and digits only");
  const isIso = number.length === 14;
  if (number.length !== 12 && !isIso)
    return doubt(`It has ${number.length} characters; a hull number has 12 (US) or 14 (ISO)`);
  const country = isIso ? number.slice(0, 2) : null;
  if (country !== null && !/^[A-Z]{2}$/.test(country)) return doubt("The first two of 14 characters name the country");
  const match = usForm.exec(isIso ? number.slice(2) : number);
  if (match === null)
    return doubt("It does not read as maker (3), serial (5), month letter, year digit, model year (2)");
  const [, maker, serial, letter, digit, years] = match as unknown as [string, string, string, string, string, string];
  const doubts: string[] = [];
  const modelYear = thisYear + 2 - ((((thisYear + 2 - Number(years)) % 100) + 100) % 100);
  const month = months.indexOf(letter) + 1;
  if (month === 0) doubts.push(`"${letter}" stands for no month; A is January, L December`);
  if (/[OIQ]/.test(serial)) doubts.push("The serial part never has I, O or Q, which look like digits");
  const year = builtIn(modelYear, Number(digit));
  if (year === null)
    doubts.push(
      `Built in a year ending in ${digit} does not go with model year ${modelYear}: at most two years lie between`,
    );
  else if (year > thisYear) doubts.push(`It would have been built in ${year}, which is to come`);
  const built = month === 0 || year === null ? null : { year, month };
  return { number, form: isIso ? "iso-14" : "us-12", country, maker, serial, built, modelYear, doubts };
}

/** What people call a boat by: the builder's serial number in its hull number; of one in no known form its last five characters. */
export const serialOf = (hull: string): string => readHullNumber(hull, 0).serial ?? hull.slice(-5);

/** The year ending in `digit` from two before to one after the model year; null if there is none. */
function builtIn(modelYear: number, digit: number): number | null {
  for (const year of [modelYear, modelYear - 1, modelYear - 2, modelYear + 1]) if (year % 10 === digit) return year;
  return null;
}
