import type { ComponentPropsWithRef } from "react";
import { isLocalDate, type LocalDate } from "../../core/dates/index.ts";
import { useTell } from "./tell.ts";

type Rest = Omit<ComponentPropsWithRef<"input">, "type" | "value" | "onChange" | "min" | "max">;
interface DateInputProps extends Rest {
  /** Null while none is chosen, or while it is being typed. */
  readonly value: LocalDate | null;
  readonly onDate: (date: LocalDate | null) => void;
  readonly min?: LocalDate | undefined;
  readonly max?: LocalDate | undefined;
}

/** While a year is being typed the field answers days of the years 2, 20 and 202. */
const earliest = "1900-01-01";
const readDay = (text: string) => (isLocalDate(text) && text >= earliest ? text : null);

/** A day to choose. One that is `required` says so while there is none. */
export function DateInput({ value, onDate, required = false, ...rest }: DateInputProps) {
  const tell = useTell();
  const isMissing = required && value === null;
  return (
    <>
      <input
        {...rest}
        {...(isMissing ? { "aria-invalid": true } : {})}
        type="date"
        required={required}
        value={value ?? ""}
        onChange={({ target }) => onDate(readDay(target.value))}
      />
      {isMissing && (
        <span role="alert" className="block text-sm text-magenta">
          {tell("▲ Choose a day.")}
        </span>
      )}
    </>
  );
}
