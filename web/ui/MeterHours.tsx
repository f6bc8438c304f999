import { useId } from "react";

interface MeterHoursProps {
  readonly label: string;
  /** As typed. */
  readonly value: string;
  readonly onChange: (text: string) => void;
  /** What is forecast for today; null where nothing is. It stands under the field and never in it: only what was read is kept. */
  readonly likelyH: number | null;
}

/** What an hour meter shows, typed from the meter. */
export function MeterHours({ label, value, onChange, likelyH }: MeterHoursProps) {
  const likely = useId();
  return (
    <div>
      <label className="text-soft">
        {label}
        <input
          inputMode="decimal"
          autoComplete="off"
          value={value}
          aria-describedby={likely}
          onChange={(event) => onChange(event.target.value)}
          className="num mt-0.5 block min-h-11 w-28 rounded-md border border-soft bg-panel px-3 text-right text-ink"
        />
      </label>
      <p id={likely} className="num text-sm text-soft">
        {likelyH !== null && `about ${likelyH.toFixed(0)} likely`}
      </p>
    </div>
  );
}
