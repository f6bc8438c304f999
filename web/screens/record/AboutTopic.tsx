import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { createTopicSearch, type Topic } from "../../../core/topic/index.ts";
import { glossaryQuery } from "../../app/queries.ts";
import { fieldLook } from "../../ui/fields.tsx";
import { readPlain } from "../../ui/readPlain.ts";

interface AboutTopicProps {
  readonly topics: readonly Topic[];
  /** Its id; null while it is about none of them. */
  readonly picked: string | null;
  readonly onPick: (id: string | null) => void;
}

const mostShown = 8;

/** Which topic they rang about, found in their own words as everywhere. */
export function AboutTopic({ topics, picked, onPick }: AboutTopicProps) {
  const [typed, setTyped] = useState("");
  const synonyms = useQuery(glossaryQuery).data?.synonyms;
  const find = useMemo(() => createTopicSearch(topics, synonyms ?? []), [topics, synonyms]);
  const shown = typed.trim() === "" ? [] : find({ words: typed, system: null, only: null }).slice(0, mostShown);
  return (
    <div className="w-full">
      <Combobox value={picked} onChange={onPick} onClose={() => setTyped("")}>
        <ComboboxInput
          aria-label="What they called about"
          placeholder="What it was about: type a few words"
          className={fieldLook}
          displayValue={(id: string | null) => topics.find((topic) => topic.id === id)?.title ?? ""}
          onChange={(event) => {
            setTyped(readPlain(event));
            if (event.target.value === "") onPick(null);
          }}
        />
        <ComboboxOptions
          modal={false}
          anchor="bottom start"
          className="z-20 mt-1 max-h-72 w-(--input-width) overflow-auto rounded-md border border-ink bg-panel shadow-lg empty:invisible"
        >
          {shown.map(({ id, title }) => (
            <ComboboxOption key={id} value={id} className="min-h-11 px-3 py-2 data-focus:bg-shoal">
              {title}
            </ComboboxOption>
          ))}
        </ComboboxOptions>
      </Combobox>
    </div>
  );
}
