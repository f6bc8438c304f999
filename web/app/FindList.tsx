import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useFoundBoats } from "./useFoundBoats.ts";

const mostShown = 8;

/** Finds a boat by name, hull number or buyer. */
export function FindList({ look }: { look: string }) {
  const [text, setText] = useState("");
  const navigate = useNavigate();
  const { list } = useFoundBoats(text, { isWanted: text !== "" });
  const found = text.trim() === "" ? [] : (list?.boats ?? []).slice(0, mostShown);
  return (
    <Combobox
      value={null}
      onChange={(id: string | null) => {
        if (id === null) return;
        setText("");
        void navigate(`/boats/${id}`);
      }}
    >
      <div className="relative">
        <ComboboxInput
          autoFocus
          aria-label="Find a boat or a buyer"
          placeholder="Find a boat, a buyer"
          className={look}
          displayValue={() => text}
          onChange={(event) => setText(event.target.value)}
        />
        {text.trim() !== "" && list !== undefined && found.length === 0 && (
          <p
            role="status"
            className="absolute top-full left-0 z-10 mt-1 w-80 rounded-md border border-ink bg-panel px-3 py-2 text-base break-words shadow-lg"
          >
            No boat and no buyer has “{text.trim()}” in it.
          </p>
        )}
      </div>
      <ComboboxOptions
        anchor="bottom start"
        className="z-10 mt-1 w-80 rounded-md border border-ink bg-panel shadow-lg empty:invisible"
      >
        {found.map(({ id, name, hull, buyers }) => (
          <ComboboxOption key={id} value={id} className="min-h-11 px-3 py-2 data-focus:bg-shoal">
            <span className="head font-semibold">{name}</span> <span className="text-soft">{hull}</span>
            <br />
            {buyers}
          </ComboboxOption>
        ))}
      </ComboboxOptions>
    </Combobox>
  );
}
