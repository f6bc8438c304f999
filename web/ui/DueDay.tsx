import type { LocalDate } from "../../core/dates/index.ts";
import type { DayRange } from "../../core/hours/index.ts";
import { plainReader, type Reader, useReader } from "./tell.ts";
import { formatDay, formatDayAndYear, formatDistance } from "./words.ts";

/** A day that something falls due or is reached, as the forecast or the calendar has it. */
export interface Day {
  readonly date: LocalDate | null;
  readonly range: DayRange | null;
  readonly isAnyDay: boolean;
}

/** 3 Dec 2026; any day now; – where there is none within ten years. */
export const formatDue = ({ date, isAnyDay }: Omit<Day, "range">, reader: Reader = plainReader): string =>
  isAnyDay ? reader.tell("any day now") : date === null ? "–" : formatDayAndYear(date, reader);

/** From when to when a forecast may be: 18 Nov to 20 Jan 2027; from 18 Nov 2026, no end known. */
export function formatRange({ from, to }: DayRange, reader: Reader = plainReader): string {
  if (to === null) return reader.tell("from {0}, no end known", formatDayAndYear(from, reader));
  const isOneYear = from.slice(0, 4) === to.slice(0, 4);
  const first = isOneYear ? formatDay(from, reader).replace(/^[\p{L}.]+ /u, "") : formatDayAndYear(from, reader);
  return reader.tell("{0} to {1}", first, formatDayAndYear(to, reader));
}

/** A due day in a sentence: `likely 3 Dec 2026, between 18 Nov 2026 and 20 Jan 2027`. */
export function describeDue({ date, range, isAnyDay }: Day, today: LocalDate, reader: Reader = plainReader): string {
  const { tell } = reader;
  const say = (day: LocalDate) => formatDayAndYear(day, reader);
  if (date === null) return range === null ? tell("not within ten years") : tell("not before {0}", say(range.from));
  if (range === null) return `${say(date)}, ${formatDistance(date, today, reader)}`;
  if (isAnyDay) return tell("any day now, likely by {0}", say(date));
  const until = range.to === null ? tell("much later") : say(range.to);
  return date < today
    ? tell("likely since {0}, between {1} and {2}", say(date), say(range.from), until)
    : tell("likely {0}, between {1} and {2}", say(date), say(range.from), until);
}

interface DueProps {
  readonly day: Day;
  readonly isOverdue: boolean;
  readonly today: LocalDate;
}

/** A due day in a table: the day, how far off it is, and from when to when it may be. */
export function DueDay({ day, isOverdue, today }: DueProps) {
  const reader = useReader();
  const { tell } = reader;
  const { date, range, isAnyDay } = day;
  return (
    <span className={isOverdue ? "text-magenta" : ""}>
      {isOverdue && "▲ "}
      {formatDue(day, reader)}
      {date !== null && !isAnyDay && (
        <span className={`block text-sm font-normal ${isOverdue ? "" : "text-soft"}`}>
          {isOverdue && <span className="sr-only">{tell("overdue,")} </span>}
          {isOverdue && range !== null
            ? tell("likely {0}", formatDistance(date, today, reader))
            : formatDistance(date, today, reader)}
        </span>
      )}
      {range !== null && <span className="block text-sm font-normal text-soft">{formatRange(range, reader)}</span>}
    </span>
  );
}
