import { toClock } from "../dates/index.ts";
import { fail, type Result, succeed } from "../result.ts";
import type { TripPlan } from "./tripPlan.ts";

export type WindFault =
  | { readonly code: "no-rows" }
  | { readonly code: "bad-row"; readonly line: number; readonly got: string }
  | { readonly code: "not-later"; readonly line: number; readonly got: string };

const clock = /^(\d{1,2})(?::?([0-5]\d))?$/;
const mostRows = 100;

/**
 * Wind out of a table: rows of time, knots and, if there is one, the direction it comes from in degrees; comma, semicolon, tab or
 * blanks between. A head line is passed over; an hour alone is a full hour; after midnight it goes on as 24, 25, or begins anew at 0.
 */
export function readWind(text: string): Result<TripPlan["wind"], WindFault> {
  const wind: TripPlan["wind"] = [];
  let days = 0;
  let beforeMin = -1;
  for (const [i, row] of text.split(/\r\n|\r|\n/).entries()) {
    if (row.trim() === "") continue;
    const cells = split(row);
    const time = clock.exec(cells[0] ?? "");
    const kn = Number((cells[1] ?? "").replace(",", ".").replace(/\s*kn?$/, ""));
    if (time === null || cells[1] === undefined || cells[1] === "" || !(kn >= 0 && kn <= 150)) {
      if (wind.length === 0 && i === 0) continue;
      return fail({ code: "bad-row", line: i + 1, got: row.slice(0, 60) });
    }
    let min = Number(time[1]) * 60 + Number(time[2] ?? 0) + days * 1440;
    if (min <= beforeMin && min + 1440 - beforeMin <= 720) {
      days++;
      min += 1440;
    }
    if (min <= beforeMin || min >= 6000) return fail({ code: "not-later", line: i + 1, got: cells[0]! });
    beforeMin = min;
    const fromDeg = Number(cells[2] || Number.NaN);
    wind.push({ at: toClock(min), kn, ...(fromDeg >= 0 && fromDeg <= 360 ? { fromDeg } : {}) });
  }
  return wind.length === 0 ? fail({ code: "no-rows" }) : succeed(wind.slice(0, mostRows));
}

/** By the first of tab, semicolon and comma that is there, else by blanks; a comma in "7,5" is left alone beside a semicolon. */
function split(row: string): string[] {
  const by = ["\t", ";", ","].find((each) => row.includes(each));
  return (by === undefined ? row.trim().split(/\s+/) : row.split(by)).map((cell) => cell.trim().replace(/^"|"$/g, ""));
}
