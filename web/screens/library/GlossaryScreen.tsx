import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { GlossaryEntry } from "../../../core/topic/index.ts";
import { glossaryQuery } from "../../app/queries.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { LibraryFrame } from "./LibraryFrame.tsx";

/** The trade's words, each explained once. */
export function GlossaryScreen() {
  const glossary = useQuery(glossaryQuery);
  return (
    <LibraryFrame>
      <Fetched query={glossary} what="the glossary">
        {({ entries }) => <Glossary entries={entries} />}
      </Fetched>
    </LibraryFrame>
  );
}

function Glossary({ entries }: { entries: readonly GlossaryEntry[] }) {
  const [words, setWords] = useState("");
  const wanted = words.trim().toLowerCase();
  const found = entries.filter(({ term, also, means }) =>
    [term, ...also, means].some((text) => text.toLowerCase().includes(wanted)),
  );
  return (
    <>
      <p className="mt-3 max-w-3xl">
        Words a first-time owner may not know. They are underlined wherever a topic uses them.
      </p>
      <input
        type="search"
        aria-label="Find a word"
        placeholder="Find a word"
        value={words}
        onChange={(event) => setWords(event.target.value)}
        className={`${fieldLook} mt-2 max-w-sm`}
      />
      <dl className="mt-3 gap-x-10 border-t border-ink md:columns-2 xl:columns-3">
        {found.map(({ term, also, means }) => (
          <div key={term} className="break-inside-avoid border-b border-rule py-2">
            <dt className="head font-bold">
              {term}
              {also.length > 0 && <span className="font-normal text-soft">, {also.join(", ")}</span>}
            </dt>
            <dd>{means}</dd>
          </div>
        ))}
      </dl>
      {found.length === 0 && <p className="py-3">No such word yet. Try its beginning.</p>}
    </>
  );
}
