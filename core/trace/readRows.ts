import type { Instant, LocalDate } from "../dates/index.ts";
import type { Told } from "../language/index.ts";
/** One thing that is wrong with a file of a run, and where. Lines and columns count from 1. */
export interface TraceFault {
  readonly line: number;
  readonly column: string | null;
  readonly message: Told;
}

/** What a reader of a run has after all lines: samples by engine, the first sample at 0 s. */
export interface ReadRun {
  /** When it began, where the file says it in UTC; else the minutes of the day and the day as they stand there. */
  readonly startsAt: Instant | null;
  readonly startMin: number | null;
  readonly date: LocalDate | null;
  readonly engines: readonly {
    readonly label: string;
    readonly samples: readonly (readonly [number, number])[];
    /** Coolant in °C against seconds, at most one in ten seconds; empty where none was recorded. */
    readonly temperatures: readonly (readonly [number, number])[];
  }[];
  readonly lines: number;
}

export const mostRpm = 20_000;
const mostFaults = 20;
/** Coolant colder or hotter than this is a slipped column or a broken sender. */
const celsiusRange = { least: -40, most: 200 } as const;
const temperatureEveryS = 10;

/**
 * Collects samples as they come, line by line, one a second at the most: an engine does not change its speed faster than
 * a rule of break-in would see, and 40 hours at ten a second come down to 144,000.
 */
export function createCollector(labels: readonly string[]) {
  const kept = labels.map(() => [] as [number, number][]);
  const warmth = labels.map(() => [] as [number, number][]);
  const faults: TraceFault[] = [];
  let firstS: number | null = null;
  const last = labels.map(() => Number.NEGATIVE_INFINITY);
  const blame = (line: number, column: string | null, phrase: string, ...values: Told["values"]) => {
    if (faults.length < mostFaults) faults.push({ line, column, message: { phrase, values } });
  };
  return {
    faults,
    blame,
    get isFull() {
      return faults.length >= mostFaults;
    },
    get firstS() {
      return firstS;
    },
    add(engine: number, line: number, column: string | null, atS: number, rpm: number) {
      if (rpm < 0) return blame(line, column, "rpm must not be negative, got {0}", rpm);
      if (rpm > mostRpm) return blame(line, column, "{0} rpm is more than any engine turns", rpm);
      if (atS < last[engine]!) return blame(line, column, "time goes back; lines must be in order of time");
      if (atS === last[engine]) return;
      last[engine] = atS;
      firstS ??= atS;
      const samples = kept[engine]!;
      const before = samples.at(-1);
      const s = Math.round((atS - firstS) * 1000) / 1000;
      if (before === undefined || Math.floor(s) > Math.floor(before[0])) samples.push([s, rpm]);
    },
    addTemperature(engine: number, line: number, column: string | null, atS: number, celsius: number) {
      const { least, most } = celsiusRange;
      if (celsius < least || celsius > most)
        return blame(line, column, "{0} °C is no coolant temperature", Math.round(celsius));
      firstS ??= atS;
      const s = Math.round(atS - firstS);
      const before = warmth[engine]!.at(-1);
      if (before === undefined || s >= before[0] + temperatureEveryS)
        warmth[engine]!.push([s, Math.round(celsius * 10) / 10]);
    },
    finish: (): ReadRun["engines"] =>
      labels.map((label, i) => ({ label, samples: kept[i]!, temperatures: warmth[i]! })),
  };
}
export type Collector = ReturnType<typeof createCollector>;
