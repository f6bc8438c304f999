import Papa from "papaparse";

/** A sign that begins what a spreadsheet works out, in plain width or full, at the start of a cell or of a line in it, also after blanks. */
const formula = /(^|[\r\n])(?=[^\S\r\n]*[=+\-@＝＋－＠]|\t)/g;

/** A text that no spreadsheet works out: an apostrophe stands before what would begin a formula. */
const asText = (value: unknown): unknown =>
  typeof value === "string" ? value.replace(formula, "$1'").replace(/^(?=\r)/, "'") : value;

/** Rows as CSV (RFC 4180), lines ended by CR LF, no cell read as a formula. `columns` name and order them, and the empty file. */
export function writeCsv(rows: readonly object[], columns?: readonly string[]): string {
  const named = columns === undefined ? {} : { columns: [...columns] };
  const safe = rows.map((row) => Object.fromEntries(Object.entries(row).map(([name, value]) => [name, asText(value)])));
  return Papa.unparse(safe, { ...named, newline: "\r\n" });
}
