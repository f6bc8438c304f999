import type { LocalDate } from "../../core/dates/index.ts";
import { DateInput } from "../ui/DateInput.tsx";
import { useTell } from "../ui/tell.ts";
import type { BreakInPort } from "./breakInPort.ts";

export const runField = "num min-h-12 rounded-md border border-soft bg-panel px-3";

interface DayFieldProps {
  readonly port: BreakInPort;
  readonly date: LocalDate | null;
  readonly onDate: (date: LocalDate | null) => void;
}

/** A day until today. */
export function DayField({ port, date, onDate }: DayFieldProps) {
  const tell = useTell();
  return (
    <label>
      <span className="block text-soft">{tell("Day")}</span>
      <DateInput required className={runField} max={port.today} value={date} onDate={onDate} />
    </label>
  );
}

interface DayProps extends DayFieldProps {
  readonly start: string;
  readonly onStart: (start: string) => void;
}

/** The day of a run and when it began. */
export function RunDay({ port, date, start, onDate, onStart }: DayProps) {
  const tell = useTell();
  return (
    <div className="flex flex-wrap gap-3">
      <DayField port={port} date={date} onDate={onDate} />
      <label>
        <span className="block text-soft">{tell("Began at")}</span>
        <input type="time" className={runField} value={start} onChange={(event) => onStart(event.target.value)} />
      </label>
    </div>
  );
}
