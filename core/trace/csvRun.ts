import { isLocalDate, type LocalDate, toDayNumber, toInstant } from "../dates/index.ts";
import { createCollector, type ReadRun } from "./readRows.ts";

/** Which column holds what, counted from 0. `rpm`: one column an engine; `temperatures`: of the engines in the same order. */
export interface RunColumns {
  readonly time: number;
  readonly rpm: readonly number[];
  readonly temperatures: readonly number[];
}

const timeNames = /^(time|zeit|t|s|sec|seconds|utc|date.?time|timestamp|clock)\b/i;
const rpmNames = /(rpm|r\/min|1\/min|speed.*eng|eng.*speed|rev)/i;
const temperatureNames = /(temp|coolant|°c)/i;
const fahrenheitNames = /(°\s*f\b|\bf\b|fahrenheit)/i;
/** Words that say a temperature is not that of the engine. */
const otherWarmthNames = /(air|sea|water temp|outside|cabin|oil|exhaust)/i;
const mostEngines = 5;

/** Guesses the columns from the headings; null where there is no time or no rpm among them. */
export function guessRunColumns(headings: readonly string[]): RunColumns | null {
  const names = headings.map((name) => name.trim());
  const time = names.findIndex((name) => timeNames.test(name));
  const rpm = names.flatMap((name, i) => (rpmNames.test(name) && i !== time ? [i] : [])).slice(0, mostEngines);
  const warm = names.flatMap((name, i) =>
    temperatureNames.test(name) && !otherWarmthNames.test(name) && i !== time && !rpm.includes(i) ? [i] : [],
  );
  return time < 0 || rpm.length === 0 ? null : { time, rpm, temperatures: warm.slice(0, rpm.length) };
}

/** What parts the cells of a file, by its first line: there the commas of numbers do not count yet. */
export function findDelimiter(heading: string): string {
  const plain = heading.replace(/"[^"]*"/g, "");
  const count = (mark: string) => plain.split(mark).length;
  return [";", "\t", "|", ","].reduce((most, mark) => (count(mark) > count(most) ? mark : most));
}

/** A number as loggers write it, with a point or a comma: `3200`, `3.200,5`, `3,200.5`, `3200,5`. */
export function readNumber(text: string): number | null {
  const plain = text.trim().replace(/[\s'’]/g, "");
  if (!/^[-+]?[\d.,]+(e[-+]?\d+)?$/i.test(plain)) return null;
  const comma = plain.lastIndexOf(",");
  const point = plain.lastIndexOf(".");
  const isThousands = (at: number, other: number) => other < 0 && /^[-+]?\d{1,3}([.,]\d{3})+$/.test(plain) && at >= 0;
  let number = plain;
  if (comma > point)
    number = isThousands(comma, point) ? plain.replaceAll(",", "") : plain.replaceAll(".", "").replace(",", ".");
  else if (comma >= 0) number = plain.replaceAll(",", "");
  const value = Number(number);
  return Number.isFinite(value) ? value : null;
}

const daySeconds = 86_400;
const clock = /^(?:(\d{4}-\d{2}-\d{2})[T ])?(\d{1,3}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?(?:\s*(Z|[+-]\d{2}:?\d{2}))?$/;

interface ReadTime {
  /** Since midnight; of a time with a day since 1970, in UTC where the file says how far from it the clock is. */
  readonly s: number;
  readonly date: LocalDate | null;
  readonly isUtc: boolean;
  readonly isClock: boolean;
}

/** Seconds from a cell: seconds, or hours, minutes and seconds, with or without a day, with or without `Z` or `+02:00`. */
export function readTime(text: string): ReadTime | null {
  const found = clock.exec(text.trim());
  if (found !== null) {
    const [, day, hours, minutes, seconds = "0", offset] = found;
    if (Number(minutes) > 59) return null;
    const s = Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds.replace(",", "."));
    if (day === undefined) return { s, date: null, isUtc: false, isClock: true };
    if (!isLocalDate(day)) return null;
    const atS = s + toDayNumber(day) * daySeconds - offsetSeconds(offset);
    return { s: atS, date: day, isUtc: offset !== undefined, isClock: true };
  }
  const s = readNumber(text);
  return s === null ? null : { s, date: null, isUtc: false, isClock: false };
}

/** Of `Z`, `+02:00` or `-0530`: how far the clock is before UTC. */
function offsetSeconds(offset: string | undefined): number {
  if (offset === undefined || offset === "Z") return 0;
  const minutes = Number(offset.slice(1, 3)) * 60 + Number(offset.slice(-2));
  return (offset.startsWith("-") ? -minutes : minutes) * 60;
}

/** Reads a run from rows of cells, a row a call. `line`: of the file, its heading being line 1. */
export function createCsvRun(headings: readonly string[], columns: RunColumns) {
  const names = columns.rpm.map((i) => headings[i]?.trim() ?? `column ${i + 1}`);
  const collector = createCollector(names);
  const isFahrenheit = columns.temperatures.map((i) => fahrenheitNames.test(headings[i] ?? ""));
  let lines = 0;
  let start: ReadTime | null = null;
  let lastS = Number.NEGATIVE_INFINITY;
  return {
    collector,
    push(cells: readonly string[], line: number) {
      if (cells.every((cell) => cell.trim() === "")) return;
      lines++;
      if (cells.length <= Math.max(columns.time, ...columns.rpm))
        return collector.blame(line, null, "has {0} columns, too few; the file may be cut off here", cells.length);
      const time = readTime(cells[columns.time]!);
      if (time === null)
        return collector.blame(
          line,
          headings[columns.time] ?? null,
          "“{0}” is not a time",
          cells[columns.time]!.slice(0, 20),
        );
      // A clock without a day that falls by half a day or more has passed midnight.
      const s = time.isClock && time.date === null && time.s < lastS - 43_200 ? time.s + daySeconds : time.s;
      lastS = s;
      start ??= time;
      columns.rpm.forEach((column, engine) => {
        const cell = cells[column]!;
        if (cell.trim() === "") return;
        const rpm = readNumber(cell);
        if (rpm === null)
          collector.blame(line, headings[column] ?? null, "“{0}” is not an engine speed", cell.slice(0, 20));
        else collector.add(engine, line, headings[column] ?? null, s, rpm);
      });
      columns.temperatures.forEach((column, engine) => {
        const cell = cells[column] ?? "";
        if (cell.trim() === "") return;
        const degrees = readNumber(cell);
        const name = headings[column] ?? null;
        if (degrees === null) collector.blame(line, name, "“{0}” is not a temperature", cell.slice(0, 20));
        else collector.addTemperature(engine, line, name, s, isFahrenheit[engine] ? (degrees - 32) / 1.8 : degrees);
      });
    },
    finish(): ReadRun {
      const { s, date, isUtc, isClock } = start ?? { s: 0, date: null, isUtc: false, isClock: false };
      return {
        startsAt: isUtc ? toInstant(s * 1000) : null,
        startMin: isClock && !isUtc ? Math.floor((s % daySeconds) / 60) : null,
        date: isUtc ? null : date,
        engines: collector.finish(),
        lines,
      };
    },
  };
}
