import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { BodyOf, endpoints, GlossarySheet } from "../../../api/index.ts";
import type { GlossaryEntry } from "../../../core/topic/index.ts";
import { ask } from "../../app/client.ts";
import { glossaryQuery, queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook, TextField } from "../../ui/fields.tsx";
import { Removed, useGone } from "../../ui/Removed.tsx";
import { LibraryFrame } from "./LibraryFrame.tsx";
import { useCanWrite } from "./useLibrary.ts";

/** The trade's words, each explained once, and in this store's own words where it prefers them. */
export function GlossaryScreen() {
  const glossary = useQuery(glossaryQuery);
  return (
    <LibraryFrame>
      <Fetched query={glossary} what="the glossary">
        {(sheet) => <Glossary sheet={sheet} />}
      </Fetched>
    </LibraryFrame>
  );
}

type Word = BodyOf<(typeof endpoints)["setWord"]>;

function Glossary({ sheet }: { sheet: GlossarySheet }) {
  const { entries, ours, leftOut } = sheet;
  const [words, setWords] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  const canWrite = useCanWrite();
  const change = useMutation({
    mutationFn: (body: Word) => ask("setWord", { body }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: glossaryQuery.queryKey }),
  });
  const wanted = words.trim().toLowerCase();
  const found = entries.filter(({ term, also, means }) =>
    [term, ...also, means].some((text) => text.toLowerCase().includes(wanted)),
  );
  const keyOf = new Map(ours.map(({ term, key }) => [term, key]));
  const originalOf = new Map(ours.map(({ term, original }) => [term, original]));
  const { gone, setGone } = useGone<Word>();
  const write = (body: Word) =>
    change.mutate(body, {
      onSuccess() {
        setOpen(null);
        setGone(null);
      },
    });
  /** Taken away, or put back to what ships: as it was comes back at a touch. */
  const takeAway = (key: string, entry: GlossaryEntry, body: Word) =>
    change.mutate(body, { onSuccess: () => setGone({ what: { key, entry }, name: `“${entry.term}” in our words` }) });
  return (
    <>
      <p className="mt-3 max-w-3xl">
        Words a first-time owner may not know. They are underlined wherever a topic uses them.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <input
          type="search"
          aria-label="Find a word"
          placeholder="Find a word"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className={`${fieldLook} max-w-sm`}
        />
        {canWrite && open !== newWord && <Button onClick={() => setOpen(newWord)}>New word</Button>}
      </div>
      <Removed gone={gone} isBusy={change.isPending} error={change.error} onUndo={write} />
      {open === newWord && (
        <WordForm
          entry={{ term: words.trim(), also: [], means: "" }}
          isBusy={change.isPending}
          onSave={(entry) => write({ key: entry.term, entry })}
          onLeave={() => setOpen(null)}
        />
      )}
      <dl className="mt-3 gap-x-10 border-t border-ink md:columns-2 xl:columns-3">
        {found.map((entry) => {
          const { term, also, means } = entry;
          const key = keyOf.get(term) ?? term;
          const original = originalOf.get(term);
          return (
            <div key={key} className="break-inside-avoid border-b border-rule py-2">
              <dt className="head font-bold">
                {term}
                {also.length > 0 && <span className="font-normal text-soft">, {also.join(", ")}</span>}
              </dt>
              <dd>
                {open === key ? (
                  <WordForm
                    entry={entry}
                    isBusy={change.isPending}
                    onSave={(next) => write({ key, entry: next })}
                    onLeave={() => setOpen(null)}
                  />
                ) : (
                  <>
                    {means}
                    {original !== undefined && (
                      <span className="block text-sm text-soft">
                        {original === null ? "Our own word." : `Our words. Original: ${original.means}`}
                      </span>
                    )}
                    {canWrite && (
                      <span className="flex flex-wrap gap-x-4 text-sm">
                        <WordAct says="Edit" term={term} onAct={() => setOpen(key)} />
                        {original != null && (
                          <WordAct
                            says="Back to the original"
                            term={term}
                            onAct={() => takeAway(key, entry, { key })}
                          />
                        )}
                        <WordAct
                          says={original === null ? "Remove" : "Leave it out"}
                          term={term}
                          onAct={() =>
                            original === undefined
                              ? write({ key, entry: null })
                              : takeAway(key, entry, { key, entry: null })
                          }
                        />
                      </span>
                    )}
                  </>
                )}
              </dd>
            </div>
          );
        })}
      </dl>
      {found.length === 0 && <p className="py-3">No such word yet. Try its beginning.</p>}
      {leftOut.length > 0 && (
        <section aria-labelledby="left-out" className="mt-6">
          <h2 id="left-out" className="text-lg font-bold">
            Left out by this store
          </h2>
          <ul className="border-t border-ink">
            {leftOut.map(({ term, means }) => (
              <li key={term} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
                <span>
                  <strong>{term}</strong>: {means}
                </span>
                {canWrite && <WordAct says="Put it back" term={term} onAct={() => write({ key: term })} />}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

const newWord = "";

function WordAct({ says, term, onAct }: { says: string; term: string; onAct: () => void }) {
  return (
    <button type="button" className="min-h-11 underline" aria-label={`${says}: ${term}`} onClick={onAct}>
      {says}
    </button>
  );
}

interface WordFormProps {
  readonly entry: GlossaryEntry;
  readonly isBusy: boolean;
  readonly onSave: (entry: GlossaryEntry) => void;
  readonly onLeave: () => void;
}

function WordForm({ entry, isBusy, onSave, onLeave }: WordFormProps) {
  const [draft, setDraft] = useState(entry);
  const isWhole = draft.term.trim() !== "" && draft.means.trim() !== "";
  return (
    <form
      aria-label={entry.term === "" ? "A new word" : `The word ${entry.term}`}
      className="mt-2 max-w-md space-y-2 border-l-4 border-ink pl-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (isWhole) onSave(draft);
      }}
    >
      <TextField label="Word" most={40} value={draft.term} onChange={(term) => setDraft({ ...draft, term })} />
      <TextField
        label="Other forms"
        most={200}
        isOptional
        value={draft.also.join(", ")}
        onChange={(text) => setDraft({ ...draft, also: splitForms(text) })}
        becomes={(text) => splitForms(text).join(", ")}
        why="Parted by commas."
      />
      <TextField
        label="What it means"
        most={300}
        isLong
        value={draft.means}
        onChange={(means) => setDraft({ ...draft, means })}
      />
      <span className="flex gap-2">
        <Button type="submit" look="primary" disabled={!isWhole || isBusy}>
          Save
        </Button>
        <Button onClick={onLeave}>Cancel</Button>
      </span>
    </form>
  );
}

const splitForms = (text: string): string[] =>
  text
    .split(",")
    .map((form) => form.trim().slice(0, 40))
    .filter((form) => form !== "")
    .slice(0, 8);
