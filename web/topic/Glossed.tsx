import { useQuery } from "@tanstack/react-query";
import { useId, useMemo } from "react";
import type { GlossarySheet } from "../../api/index.ts";
import { createGlossaryMarker, type GlossaryEntry } from "../../core/topic/index.ts";
import { glossaryQuery } from "../app/queries.ts";

const noMarker = (text: string) => [{ text, entry: null }];
const known = new WeakMap<GlossarySheet, ReturnType<typeof createGlossaryMarker>>();

/** A text with the trade's words underlined; a touch says what one means. */
export function Glossed({ text }: { text: string }) {
  const { data } = useQuery(glossaryQuery);
  const pieces = useMemo(() => (data === undefined ? noMarker(text) : markerOf(data)(text)), [data, text]);
  return pieces.map(({ text: piece, entry }, i) =>
    // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its place in the text
    entry === null ? piece : <Term key={i} word={piece} entry={entry} />,
  );
}

/** Made once for a glossary, however many texts are marked with it. */
function markerOf(sheet: GlossarySheet) {
  const marker = known.get(sheet) ?? createGlossaryMarker([...sheet.entries, ...sheet.told]);
  known.set(sheet, marker);
  return marker;
}

function Term({ word, entry }: { word: string; entry: GlossaryEntry }) {
  const id = useId();
  return (
    <>
      <button
        type="button"
        popoverTarget={id}
        className="inline font-text font-[inherit] underline decoration-soft decoration-dotted underline-offset-4"
      >
        {word}
      </button>
      <span
        id={id}
        popover="auto"
        className="m-auto max-w-md rounded-md border border-ink bg-panel p-5 text-left font-text text-lg font-normal text-ink shadow-lg"
      >
        <strong className="head block">{entry.term}</strong>
        {entry.means}
      </span>
    </>
  );
}
