import { isLocalDate, toDayNumber, toInstant, writeDate } from "../dates/index.ts";
import { createCollector, type ReadRun } from "./readRows.ts";

const sentence = /^(?:\\([^\\]*)\\)?[$!]([A-Z]{2}[A-Z]{3}|P[A-Z0-9]+),([^*]*)(?:\*([0-9A-F]{2}))?\s*$/i;
const mostEngines = 4;
const daySeconds = 86_400;

/** The checksum of a sentence: all characters between `$` and `*`, exclusive or. IEC 61162-1. */
export function checksumOf(text: string): string {
  let sum = 0;
  for (let i = 0; i < text.length; i++) sum ^= text.charCodeAt(i);
  return sum.toString(16).toUpperCase().padStart(2, "0");
}

/** hhmmss.ss of a sentence as seconds of the day; null where it is empty or none. */
function readClock(field: string | undefined): number | null {
  const found = /^(\d{2})(\d{2})(\d{2}(?:\.\d+)?)$/.exec(field ?? "");
  return found === null ? null : Number(found[1]) * 3600 + Number(found[2]) * 60 + Number(found[3]);
}

/** Seconds since 1970 of a day's beginning in UTC; null where there is no such day. */
function midnightOf(year: number, month: number, day: number): number | null {
  const date = writeDate(year, month, day);
  return isLocalDate(date) ? toDayNumber(date) * daySeconds : null;
}

/**
 * Reads a run from NMEA 0183 sentences, a line a call: engine speed from `RPM` (source E, the engine's number, rpm), time
 * from `RMC`, `GGA` or `ZDA`, or from the time in a TAG block (`\c:…\`). Other sentences are passed over. Times are UTC.
 */
export function createNmeaRun() {
  const collector = createCollector(Array.from({ length: mostEngines }, (_, i) => `Engine ${i + 1}`));
  let lines = 0;
  let clockS: number | null = null;
  let days = 0;
  /** Midnight in UTC of the day the sentences name. */
  let dayS: number | null = null;
  let start: { s: number } | null = null;
  const setClock = (s: number | null) => {
    if (s === null) return;
    if (clockS !== null && s < clockS - 43_200) days++;
    clockS = s;
  };
  return {
    collector,
    push(text: string, line: number) {
      if (text.trim() === "") return;
      lines++;
      const found = sentence.exec(text.trim());
      if (found === null) return collector.blame(line, null, "is not an NMEA 0183 sentence");
      const [, tag, name, body, sum] = found;
      if (sum !== undefined && checksumOf(`${name},${body}`) !== sum.toUpperCase())
        return collector.blame(
          line,
          "checksum",
          "does not fit: {0}, and should be {1}",
          sum,
          checksumOf(`${name},${body}`),
        );
      const fields = body!.split(",");
      const kind = name!.slice(-3).toUpperCase();
      const unix = /c:(\d{9,13})/.exec(tag ?? "")?.[1];
      if (unix !== undefined) {
        const s = unix.length > 10 ? Number(unix) / 1000 : Number(unix);
        dayS ??= Math.floor(s / daySeconds) * daySeconds;
        setClock(s % daySeconds);
      }
      if (kind === "RMC" || kind === "GGA" || kind === "ZDA") setClock(readClock(fields[0]));
      if (kind === "ZDA" && fields[3] !== undefined && fields[3] !== "")
        dayS ??= midnightOf(Number(fields[3]), Number(fields[2]), Number(fields[1]));
      if (kind === "RMC" && /^\d{6}$/.test(fields[8] ?? ""))
        dayS ??= midnightOf(
          2000 + Number(fields[8]!.slice(4)),
          Number(fields[8]!.slice(2, 4)),
          Number(fields[8]!.slice(0, 2)),
        );
      if (kind !== "RPM" || fields[0]?.toUpperCase() !== "E") return;
      if ((fields[4] ?? "A").toUpperCase() === "V") return;
      const engine = Number(fields[1]);
      const rpm = Number(fields[2]);
      if (!Number.isInteger(engine) || engine < 0 || engine > mostEngines)
        return collector.blame(line, "engine", "“{0}” is not an engine's number", fields[1] ?? "");
      if (fields[2] === "" || !Number.isFinite(rpm))
        return collector.blame(line, "rpm", "“{0}” is not an engine speed", fields[2] ?? "");
      if (clockS === null)
        return collector.blame(
          line,
          null,
          "no time yet: there must be an RMC, GGA or ZDA sentence, or a TAG block, before it",
        );
      start ??= { s: clockS };
      // Numbers are odd on one side and even on the other; a single engine is 0 or 1.
      collector.add(Math.max(0, engine - 1), line, "rpm", clockS + days * daySeconds, rpm);
    },
    finish(): ReadRun {
      return {
        // A clock in UTC without a day says nothing of the time at the store: it may be summer there or winter.
        startsAt: start === null || dayS === null ? null : toInstant((dayS + start.s) * 1000),
        startMin: null,
        date: null,
        engines: collector.finish().filter(({ samples }) => samples.length > 0),
        lines,
      };
    },
  };
}
