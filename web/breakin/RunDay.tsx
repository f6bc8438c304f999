import type { BreakInDoor } from "./door.ts";

export const runField = "num min-h-12 rounded-md border border-soft bg-panel px-3";

interface DayProps {
  readonly door: BreakInDoor;
  readonly date: string;
  readonly start: string;
  readonly onDate: (date: string) => void;
  readonly onStart: (start: string) => void;
}

/** The day of a run and when it began. */
export function RunDay({ door, date, start, onDate, onStart }: DayProps) {
  return (
    <div className="flex flex-wrap gap-3">
      <label>
        <span className="block text-sm text-soft">Day</span>
        <input
          type="date"
          className={runField}
          max={door.today}
          value={date}
          onChange={(event) => onDate(event.target.value)}
        />
      </label>
      <label>
        <span className="block text-sm text-soft">Began at</span>
        <input type="time" className={runField} value={start} onChange={(event) => onStart(event.target.value)} />
      </label>
    </div>
  );
}
