import { useId, useState } from "react";
import {
  fromCore,
  isTyped,
  listUnits,
  type Quantity,
  readAmount,
  sayTyped,
  signOf,
  type Typed,
  toCore,
  type UnitId,
  writeAmount,
} from "../../core/units/index.ts";
import { type Asked, Frame, fieldLook, useTyped } from "./fields.tsx";
import { storeRegion } from "./storeTime.ts";
import { useTell } from "./tell.ts";

interface QuantityFieldProps extends Asked {
  readonly quantity: Quantity;
  /** In the unit of the core. */
  readonly value: number | undefined;
  readonly typed?: Typed | undefined;
  readonly onChange: (value: number | undefined, typed: Typed | undefined) => void;
  readonly least: number;
  readonly most: number;
  readonly isOptional?: boolean;
}

/**
 * An amount as it stands on a plate or a gauge: in the store's unit at first, in another by choosing it or by writing it behind
 * the number; what was typed in another is said below. Choosing a unit shows what stands there in that unit; only typing changes it. What is wrong is said below, and the
 * last good amount stays.
 */
export function QuantityField(props: QuantityFieldProps) {
  const tell = useTell();
  const { label, why, quantity, value, typed: known, onChange, least, most, isOptional = false } = props;
  const id = useId();
  const offered = listUnits(quantity, storeRegion().units);
  const asTyped = value !== undefined && isTyped(known, value, quantity) ? known : undefined;
  const [unit, setUnit] = useState<UnitId>(offered[0]);
  const given = value === undefined ? "" : asTyped?.unit === unit ? writeAmount(asTyped, quantity) : round(value);
  function round(amount: number): string {
    return writeAmount(
      { value: Number(fromCore(amount, quantity, unit).toFixed(digits(quantity, unit))), unit },
      quantity,
    );
  }
  const [text, setText] = useTyped(given);
  const read = (written: string): Typed | undefined | string => {
    if (written.trim() === "") return isOptional ? undefined : tell("A number is needed.");
    const amount = readAmount(written, quantity, storeRegion().units, unit);
    if (amount === null) return tell("A number such as {0}.", example(quantity, unit));
    const core = toCore(amount, quantity);
    if (core < least || core > most) return tell("From {0} to {1}.", bound(least, Math.ceil), bound(most, Math.floor));
    return amount;
  };
  /** What may be typed at the most, in this unit: rounded to the inside, so that a bound that is said is taken. */
  function bound(amount: number, inward: (value: number) => number): string {
    const step = 10 ** digits(quantity, unit);
    return sayTyped({ value: inward(fromCore(amount, quantity, unit) * step) / step, unit }, quantity);
  }
  const now = text === given ? undefined : read(text);
  const error = typeof now === "string" ? now : null;
  return (
    <Frame id={id} label={label} {...(why === undefined ? {} : { why })} error={error}>
      <span className="flex items-center gap-2">
        <input
          id={id}
          inputMode={unit === "in" ? "text" : "decimal"}
          autoComplete="off"
          value={text}
          aria-invalid={error !== null}
          aria-describedby={why === undefined ? undefined : `${id}-why`}
          className={`${fieldLook} num max-w-32 text-right`}
          onChange={(event) => {
            const next = read(event.target.value);
            if (typeof next === "string") return setText(event.target.value, given);
            const core = next && toCore(next, quantity);
            setText(
              event.target.value,
              core === undefined ? "" : next!.unit === unit ? writeAmount(next!, quantity) : round(core),
            );
            onChange(core, next);
          }}
        />
        <select
          aria-label={tell("Unit: {0}", label)}
          value={unit}
          onChange={(event) => setUnit(event.target.value as UnitId)}
          className="min-h-11 rounded-md border border-transparent bg-transparent pr-1 text-soft hover:border-soft"
        >
          {offered.map((each) => (
            <option key={each} value={each}>
              {signOf(quantity, each)}
            </option>
          ))}
        </select>
      </span>
      {asTyped !== undefined && asTyped.unit !== unit && text === given && (
        <p className="text-sm text-soft">{tell("Typed as {0}.", sayTyped(asTyped, quantity))}</p>
      )}
    </Frame>
  );
}

/** How finely an amount is shown that nobody typed in this unit: never so that a ball of 50 mm passes for one of 2 in. */
function digits(quantity: Quantity, unit: UnitId): number {
  if (quantity === "ball") return unit === "in" ? 3 : 1;
  return unit === "m" || unit === "bar" ? 2 : unit === "in" || unit === "kPa" ? 0 : 1;
}

const example = (quantity: Quantity, unit: UnitId): string =>
  quantity === "length" && unit === "in" ? "18 ft 6 in" : quantity === "ball" && unit === "in" ? "2 5/16" : "12.5";
