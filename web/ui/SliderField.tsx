import { useId } from "react";

interface SliderFieldProps {
  readonly label: string;
  readonly value: number;
  /** The value with its unit, as it is shown and read out. */
  readonly says: string;
  readonly least: number;
  readonly most: number;
  readonly step: number;
  readonly onChange: (value: number) => void;
}

/** A figure that is found by trying: its value large, a knob wide enough for a thumb. */
export function SliderField({ label, value, says, least, most, step, onChange }: SliderFieldProps) {
  const id = useId();
  return (
    <div className="border-b border-rule pb-1">
      <div className="flex items-baseline justify-between gap-3">
        <label htmlFor={id}>{label}</label>
        <span aria-hidden className="num head text-xl font-bold">
          {says}
        </span>
      </div>
      <input
        id={id}
        type="range"
        min={least}
        max={most}
        step={step}
        value={value}
        aria-valuetext={says}
        onChange={(event) => onChange(Number(event.target.value))}
        className="h-11 w-full accent-helm"
      />
    </div>
  );
}
