import { useId, useRef } from "react";
import { engineKinds, namePart, partKinds } from "../../../core/rig/index.ts";
import { fieldLook } from "../../ui/fields.tsx";
import { readPlain } from "../../ui/readPlain.ts";

interface WordsFieldProps {
  readonly label: string;
  readonly value: string;
  readonly most: number;
  readonly isOptional?: boolean;
  readonly why?: string;
  readonly onChange: (text: string) => void;
}

/** What can be put into a sentence so that each boat fills it with its own: a place, all of a kind, a figure, a choice. */
const inserts: readonly {
  readonly group: string;
  readonly items: readonly (readonly [text: string, says: string])[];
}[] = [
  {
    group: "Where this boat has it",
    items: partKinds.map((kind) => [`{at:${kind}}`, `where the ${namePart(kind)} is`]),
  },
  {
    group: "All of them, with their places",
    items: (["battery", "through-hull", "pump", "hatch"] as const).map((kind) => [
      `{each:${kind}}`,
      `each ${namePart(kind)}`,
    ]),
  },
  {
    group: "A figure of its boat sheet",
    items: [
      ["{rig:trailer.ballMm}", "ball size of its trailer"],
      ["{rig:trailer.tyreKpa}", "tire pressure of its trailer"],
      ["{rig:trailer.pins}", "pins of its trailer plug"],
      ["{amount:100 L}", "an amount, in the units of the store"],
    ],
  },
  {
    group: "Words only where it has the thing",
    items: [
      ["{if:trailer?words if it has one|words if not}", "if it is on a trailer"],
      ...engineKinds.map((kind): [string, string] => [
        `{if:${kind}?words if it has one|words if not}`,
        `if it has an engine of this kind: ${kind}`,
      ]),
      ...partKinds.map((kind): [string, string] => [
        `{if:${kind}?words if it has one|words if not}`,
        `if it has: ${namePart(kind)}`,
      ]),
    ],
  },
];

/** Drawn once: hundreds of them stand under a page that is drawn anew for every letter. */
const insertOptions = inserts.map(({ group, items }) => (
  <optgroup key={group} label={group}>
    {items.map(([text, says]) => (
      <option key={text} value={text}>
        {says}
      </option>
    ))}
  </optgroup>
));

/** A paragraph in which places of the boat can be put by choosing; how each boat fills them shows in the preview. */
export function WordsField({ label, value, most, isOptional = false, why, onChange }: WordsFieldProps) {
  const id = useId();
  const area = useRef<HTMLTextAreaElement>(null);
  const insert = (text: string) => {
    const { selectionStart = value.length, selectionEnd = value.length } = area.current ?? {};
    onChange(`${value.slice(0, selectionStart)}${text}${value.slice(selectionEnd)}`.slice(0, most));
    area.current?.focus();
  };
  const isMissing = !isOptional && value.trim() === "";
  return (
    <div className="min-w-0">
      <div className="flex flex-wrap items-end justify-between gap-x-3">
        <label htmlFor={id} className="text-soft">
          {label}
        </label>
        <select
          aria-label={`Put a place into: ${label}`}
          value=""
          className="min-h-11 max-w-52 bg-transparent text-sm underline"
          onChange={(event) => insert(event.target.value)}
        >
          <option value="">Insert a place or figure</option>
          {insertOptions}
        </select>
      </div>
      <textarea
        ref={area}
        id={id}
        rows={3}
        value={value}
        maxLength={most}
        aria-describedby={`${id}-why`}
        className={`${fieldLook} py-2`}
        onChange={(event) => onChange(readPlain(event))}
      />
      <p id={`${id}-why`} className="flex justify-between gap-3 text-sm text-soft">
        <span>{isMissing ? "Still to be written." : why}</span>
        {value.length > most * 0.8 && (
          <span className="num">
            {value.length} of {most}
          </span>
        )}
      </p>
    </div>
  );
}
