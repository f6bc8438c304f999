import Papa from "papaparse";

/** A cell that a spreadsheet would work out, also one of several lines, which Papa's own pattern passes over. */
const formula = /^[=+\-@\t\r]/;

/** Rows as CSV (RFC 4180), lines ended by CR LF, no cell read as a formula. `columns` name and order them, and the empty file. */
export function writeCsv(rows: readonly object[], columns?: readonly string[]): string {
  const named = columns === undefined ? {} : { columns: [...columns] };
  return Papa.unparse([...rows], { ...named, escapeFormulae: formula, newline: "\r\n" });
}
