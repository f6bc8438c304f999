import { useState } from "react";
import { journal } from "../offline/useJournal.ts";
import { Button } from "./Button.tsx";

interface OwedListProps {
  /** The delivery they belong to; each may also name its own. */
  readonly delivery: string;
  readonly owed: readonly { ref: string; what: "later" | "snag" | "gear" | "must"; text: string; delivery?: string }[];
}

const signs = { later: "▷", snag: "▲", gear: "–", must: "▲" } as const;

/** What is owed, each to be settled with a line on how. Settling adds to the record. */
export function OwedList({ delivery, owed }: OwedListProps) {
  const [open, setOpen] = useState<string | null>(null);
  const [note, setNote] = useState("");
  return (
    <ul className="border-t border-ink">
      {owed.length === 0 && <li className="py-2 text-soft">Nothing is owed.</li>}
      {owed.map(({ ref, what, text, delivery: own }) => (
        <li key={ref} className="border-b border-rule py-2">
          <div className="flex items-center gap-2">
            <span aria-hidden className={what === "snag" || what === "must" ? "text-magenta" : ""}>
              {signs[what]}
            </span>
            <span className="min-w-0 flex-1">{text}</span>
            {open !== ref && (
              <button
                type="button"
                className="min-h-11 font-semibold underline"
                aria-label={`Settle: ${text}`}
                onClick={() => {
                  setOpen(ref);
                  setNote("");
                }}
              >
                Settle
              </button>
            )}
          </div>
          {open === ref && (
            <form
              className="mt-1 flex gap-2"
              onSubmit={(event) => {
                event.preventDefault();
                if (note.trim() === "") return;
                void journal.add(own ?? delivery, { kind: "settle", ref, note: note.trim() });
                setOpen(null);
              }}
            >
              <input
                // biome-ignore lint/a11y/noAutofocus: it was just asked for
                autoFocus
                aria-label="How it was settled"
                placeholder="How it was settled"
                value={note}
                maxLength={1000}
                onChange={(event) => setNote(event.target.value.replace(/[<>]/g, ""))}
                className="min-h-11 min-w-0 flex-1 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
              />
              <Button type="submit">Keep</Button>
            </form>
          )}
        </li>
      ))}
    </ul>
  );
}
