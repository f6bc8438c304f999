import { useState } from "react";
import { formatMeasure, judgeMeasure, type Measure, type Verdict } from "../../core/measure/index.ts";
import { readAmount, shownUnit, signOf, toCore } from "../../core/units/index.ts";
import type { EntryOf } from "../../core/walk/index.ts";
import type { NewEntry } from "../offline/syncQueue.ts";
import { say, spell } from "../ui/amounts.ts";
import { Button } from "../ui/Button.tsx";
import { PhotoRow, TakePhoto } from "../ui/Photos.tsx";
import { storeRegion } from "../ui/storeTime.ts";
import { formatClock } from "../ui/words.ts";

interface MeasureFieldProps {
  readonly measure: Measure;
  readonly taken: EntryOf<"measure"> | undefined;
  readonly photos: readonly EntryOf<"photo">[];
  readonly onAdd: (entry: NewEntry) => void;
}

const verdictLook: Record<Verdict, { sign: string; look: string }> = {
  fits: { sign: "✓", look: "text-ink" },
  tight: { sign: "◷", look: "text-amber" },
  over: { sign: "▲", look: "text-magenta" },
  unknown: { sign: "?", look: "text-soft" },
};

/** One reading: entered with its unit, held against the plate or the chemistry at once, with a photo if wanted. */
export function MeasureField({ measure, taken, photos, onAdd }: MeasureFieldProps) {
  const { id, unit, quantity, least, most, choices, chemistry, wanted } = measure;
  const label = spell(measure.label);
  const [text, setText] = useState("");
  const [isJustCharged, setJustCharged] = useState(false);
  const { units } = storeRegion();
  const typed = quantity === null ? null : readAmount(text, quantity, units);
  const value = quantity === null ? readNumber(text) : typed && toCore(typed, quantity);
  const isWrong = text.trim() !== "" && (value === null || value < least || value > most);
  const sayRead = (amount: number) => (quantity === null ? `${amount}` : say(amount, quantity));
  const shown = quantity === null ? unit : signOf(quantity, shownUnit(quantity, units));
  const keep = (read: number) => {
    onAdd({
      kind: "measure",
      item: id,
      value: read,
      ...(typed === null ? {} : { typed }),
      ...(chemistry !== null && isJustCharged ? { isJustCharged } : {}),
    });
    setText("");
  };
  const judged = taken === undefined ? null : judgeMeasure(measure, taken);
  return (
    <li className="border-b border-rule py-2">
      <form
        className="flex flex-wrap items-center gap-x-3 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (value !== null && !isWrong) keep(value);
        }}
      >
        <span className="min-w-40 flex-1">
          {choices === null ? <label htmlFor={`measure-${id}`}>{label}</label> : label}
          {wanted !== null && <span className="text-soft"> plate {sayRead(wanted)}</span>}
        </span>
        {choices === null ? (
          <>
            <input
              id={`measure-${id}`}
              inputMode="decimal"
              value={text}
              placeholder={taken === undefined ? "" : formatMeasure(measure, taken).replace(/ .*/, "")}
              aria-invalid={isWrong}
              onChange={(event) => setText(event.target.value)}
              className="num min-h-12 w-24 rounded-md border border-soft bg-panel px-3 text-right aria-invalid:border-magenta placeholder:text-soft"
            />
            <span className="w-8 text-soft">{shown}</span>
            <Button
              type="submit"
              className="min-h-12"
              disabled={value === null || isWrong}
              aria-label={`Save: ${label}`}
            >
              Save
            </Button>
          </>
        ) : (
          <span className="flex flex-wrap gap-2" role="group" aria-label={label}>
            {choices.map((choice, i) => (
              <button
                key={choice}
                type="button"
                aria-pressed={taken?.value === i}
                onClick={() => keep(i)}
                className={`min-h-12 rounded-md border border-ink px-3 font-text ${taken?.value === i ? "bg-ink text-sheet" : "bg-panel"}`}
              >
                {choice}
              </button>
            ))}
          </span>
        )}
        {taken !== undefined && (
          <TakePhoto says="Photo" onTaken={(photo) => onAdd({ kind: "photo", photo, topic: null, ref: taken.id })} />
        )}
      </form>
      {chemistry !== null && (
        <label className="flex min-h-11 items-center gap-2 text-soft">
          <input
            type="checkbox"
            className="size-5 accent-ink"
            checked={isJustCharged}
            onChange={(event) => setJustCharged(event.target.checked)}
          />
          just off charge, or run within the last hours: it reads high then
        </label>
      )}
      {isWrong && (
        <p role="alert" className="text-magenta">
          ▲ From {sayRead(least)} to {sayRead(most)}
          {quantity === null && ` ${unit}`}.
        </p>
      )}
      {taken !== undefined && judged !== null && (
        <p className={verdictLook[judged.verdict].look}>
          <span aria-hidden>{verdictLook[judged.verdict].sign}</span> {formatMeasure(measure, taken)}: {judged.says}{" "}
          <span className="text-soft">{formatClock(taken.at)}</span>
        </p>
      )}
      <PhotoRow photos={photos} says={label} />
    </li>
  );
}

/** A number with comma or point; null for what is none. */
function readNumber(text: string): number | null {
  const tidy = text.trim().replace(",", ".");
  const number = Number(tidy);
  return tidy === "" || !Number.isFinite(number) ? null : number;
}
