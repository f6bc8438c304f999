import { Combobox, ComboboxButton, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { Check, ChevronsUpDown } from "lucide-react";
import { type ReactNode, useId, useState } from "react";
import { readPlain } from "./readPlain.ts";
import { useTell } from "./tell.ts";

export const fieldLook =
  "min-h-11 w-full rounded-md border border-soft bg-panel px-3 text-ink aria-invalid:border-magenta";

export interface Asked {
  readonly label: string;
  /** Why it is asked, where that is not plain. */
  readonly why?: string;
}

interface FrameProps extends Asked {
  readonly id: string;
  readonly error?: string | null;
  readonly children: ReactNode;
}

/** Label, field, why it is asked and what is wrong, one below the other. */
export function Frame({ id, label, why, error, children }: FrameProps) {
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="text-soft">
        {label}
      </label>
      {children}
      {why !== undefined && (
        <p id={`${id}-why`} className="text-sm text-soft">
          {why}
        </p>
      )}
      {error != null && (
        <p role="alert" className="text-sm text-magenta">
          ▲ {error}
        </p>
      )}
    </div>
  );
}

interface TextFieldProps extends Asked {
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly most?: number;
  readonly isOptional?: boolean;
  readonly isLong?: boolean;
  readonly placeholder?: string;
  /** What becomes of a text where it is kept in another form (a list); what is typed then stays as it is typed. */
  readonly becomes?: (text: string) => string;
}

/** A line or a paragraph of text. What cannot be kept is said below, and the last good text stays in place. */
export function TextField(props: TextFieldProps) {
  const { label, why, value, onChange, most = 60, isOptional, isLong, placeholder, becomes } = props;
  const tell = useTell();
  const id = useId();
  const [typed, setTyped] = useTyped(value);
  const [isTouched, setTouched] = useState(false);
  const error = isTouched && !isOptional && typed.trim() === "" ? tell("Must not be empty.") : null;
  const input = {
    id,
    value: typed,
    maxLength: most,
    placeholder,
    "aria-invalid": error !== null,
    "aria-describedby": why === undefined ? undefined : `${id}-why`,
    className: `${fieldLook} ${isLong ? "py-2" : ""} placeholder:text-soft`,
    onChange: (event: { target: { value: string } }) => {
      // Markup does not get in, however it is typed.
      const text = readPlain(event);
      setTouched(true);
      const isGiven = isOptional || text.trim() !== "";
      setTyped(text, isGiven ? (becomes?.(text) ?? text.trim()) : value);
      if (isGiven) onChange(text.trim());
    },
  };
  return (
    <Frame id={id} label={label} {...(why === undefined ? {} : { why })} error={error}>
      {isLong ? <textarea rows={3} {...input} /> : <input {...input} />}
    </Frame>
  );
}

interface NumberFieldProps extends Asked {
  readonly value: number | undefined;
  readonly onChange: (value: number | undefined) => void;
  readonly unit?: string;
  readonly least: number;
  readonly most: number;
  readonly isWhole?: boolean;
  readonly isOptional?: boolean;
}

/** A number with its unit; comma or point. Out of range or no number is said below, and the last good one stays. */
export function NumberField(props: NumberFieldProps) {
  const { label, why, value, onChange, unit, least, most, isWhole = false, isOptional = false } = props;
  const tell = useTell();
  const id = useId();
  const given = toText(value);
  const [typed, setTyped] = useTyped(given);
  const read = (text: string): number | undefined | string => {
    const tidy = text.trim().replace(",", ".");
    if (tidy === "") return isOptional ? undefined : tell("A number is needed.");
    const number = Number(tidy);
    if (!Number.isFinite(number) || (isWhole && !Number.isInteger(number)))
      return tell(isWhole ? "A whole number." : "A number such as 12.5.");
    if (number < least || number > most)
      return unit === undefined
        ? tell("From {0} to {1}.", least, most)
        : tell("From {0} to {1} {2}.", least, most, unit);
    return number;
  };
  // Of a field that nobody has filled yet nothing is said.
  const now = typed === "" && given === "" ? undefined : read(typed);
  return (
    <Frame id={id} label={label} {...(why === undefined ? {} : { why })} error={typeof now === "string" ? now : null}>
      <span className="flex items-center gap-2">
        <input
          id={id}
          inputMode="decimal"
          value={typed}
          aria-invalid={typeof now === "string"}
          aria-describedby={why === undefined ? undefined : `${id}-why`}
          className={`${fieldLook} num max-w-32 text-right`}
          onChange={(event) => {
            const next = read(event.target.value);
            setTyped(event.target.value, typeof next === "string" ? given : toText(next));
            if (typeof next !== "string") onChange(next);
          }}
        />
        {unit !== undefined && <span className="text-soft">{unit}</span>}
      </span>
    </Frame>
  );
}

const toText = (value: number | undefined) => (value === undefined ? "" : String(value));

/** What is typed, until the value becomes another than what was typed last: by undo, or another item. */
export function useTyped(value: string): [string, (text: string, gives: string) => void] {
  const [state, setState] = useState({ typed: value, gives: value });
  return [state.gives === value ? state.typed : value, (typed, gives) => setState({ typed, gives })];
}

interface PickFieldProps<T extends string> extends Asked {
  readonly value: T;
  readonly options: readonly (readonly [value: T, says: string])[];
  readonly onChange: (value: T) => void;
}

/** One of a few. */
export function PickField<T extends string>({ label, why, value, options, onChange }: PickFieldProps<T>) {
  const id = useId();
  return (
    <Frame id={id} label={label} {...(why === undefined ? {} : { why })}>
      <select
        id={id}
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
        aria-describedby={why === undefined ? undefined : `${id}-why`}
        className={fieldLook}
      >
        {options.map(([option, says]) => (
          <option key={option} value={option}>
            {says}
          </option>
        ))}
      </select>
    </Frame>
  );
}

interface TickFieldProps extends Asked {
  readonly value: boolean;
  readonly onChange: (value: boolean) => void;
}

/** Yes or no. */
export function TickField({ label, why, value, onChange }: TickFieldProps) {
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="size-5 shrink-0 accent-ink"
        checked={value}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>
        {label}
        {why !== undefined && <span className="block text-sm text-soft">{why}</span>}
      </span>
    </label>
  );
}

interface ManyFieldProps extends Asked {
  readonly value: readonly string[];
  readonly options: readonly (readonly [value: string, says: string])[];
  readonly onChange: (value: string[]) => void;
  /** Makes a new option of what is typed, and gives its value. */
  readonly onCreate?: (says: string) => void;
}

const mostShown = 40;

/** Any of many, found by typing; what is missing can be made on the spot. */
export function ManyField({ label, why, value, options, onChange, onCreate }: ManyFieldProps) {
  const tell = useTell();
  const id = useId();
  const [typed, setTyped] = useState("");
  const wanted = typed.trim().toLowerCase();
  const shown = options.filter(([, says]) => says.toLowerCase().includes(wanted)).slice(0, mostShown);
  const canCreate =
    onCreate !== undefined && wanted !== "" && !options.some(([, says]) => says.toLowerCase() === wanted);
  const saysOf = new Map(options);
  return (
    <Frame id={id} label={label} {...(why === undefined ? {} : { why })}>
      <Combobox
        immediate
        multiple
        value={[...value]}
        onChange={(next: string[]) => {
          setTyped("");
          const fresh = next.find((each) => each.startsWith(createMark));
          if (fresh === undefined) onChange(next);
          else onCreate?.(fresh.slice(createMark.length));
        }}
      >
        <div className="flex">
          <ComboboxInput
            id={id}
            className={`${fieldLook} placeholder:text-ink`}
            placeholder={
              value.length === 0 ? tell("nothing") : value.map((each) => saysOf.get(each) ?? each).join(", ")
            }
            displayValue={() => typed}
            onChange={(event) => setTyped(readPlain(event))}
            onBlur={() => setTyped("")}
          />
          <ComboboxButton className="-ml-10 grid w-10 place-items-center" aria-label={tell("Show all: {0}", label)}>
            <ChevronsUpDown size={16} aria-hidden />
          </ComboboxButton>
        </div>
        <ComboboxOptions
          modal={false}
          anchor="bottom start"
          className="z-20 mt-1 max-h-72 w-(--input-width) overflow-auto rounded-md border border-ink bg-panel shadow-lg empty:invisible"
        >
          {canCreate && (
            <ComboboxOption value={`${createMark}${typed.trim()}`} className="min-h-11 px-3 py-2 data-focus:bg-shoal">
              {tell("Add “{0}”", typed.trim())}
            </ComboboxOption>
          )}
          {shown.map(([option, says]) => (
            <ComboboxOption
              key={option}
              value={option}
              className="group flex min-h-11 items-center gap-2 px-3 py-2 data-focus:bg-shoal"
            >
              <Check size={16} aria-hidden className="invisible shrink-0 group-data-selected:visible" />
              {says}
            </ComboboxOption>
          ))}
        </ComboboxOptions>
      </Combobox>
    </Frame>
  );
}

/** Stands before the text of an option that is yet to be made; no id begins so. */
const createMark = "+ ";
