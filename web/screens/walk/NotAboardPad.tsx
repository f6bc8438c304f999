import { useEffect, useRef, useState } from "react";
import { Button } from "../../ui/Button.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import type { Walk } from "./useWalk.ts";

const reasons = ["Sold without it", "On order, comes later", "Taken off", "The boat sheet is wrong"];

/** In the place of the marks: a must is not left out in one tap. Why it is not aboard stays in the closing list and the record. */
export function NotAboardPad({ walk, onDone }: { walk: Walk; onDone: () => void }) {
  const [note, setNote] = useState("");
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const keep = (said: string) => {
    if (said.trim() === "") return;
    walk.mark("not-aboard", { note: said.trim() });
    onDone();
  };
  return (
    <form
      aria-labelledby="not-aboard"
      className="border-t border-ink bg-sheet px-3 py-3 md:px-5"
      onSubmit={(event) => {
        event.preventDefault();
        keep(note);
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      <p id="not-aboard" className="mb-2 text-base">
        <strong>{walk.step.topic.title}</strong> is a must. Why is it not aboard?
      </p>
      <div className="flex flex-wrap items-center gap-2 text-base">
        {reasons.map((says) => (
          <Button key={says} className="min-h-12" onClick={() => keep(says)}>
            {says}
          </Button>
        ))}
        <input
          ref={input}
          aria-label="Another reason"
          value={note}
          maxLength={1000}
          onChange={(event) => setNote(readPlain(event))}
          placeholder="Another reason"
          className="min-h-12 min-w-0 flex-1 basis-40 rounded-lg border border-soft bg-panel px-4 placeholder:text-soft"
        />
        <Button type="submit" look="primary" className="min-h-12 px-6">
          Mark not aboard
        </Button>
        <Button look="quiet" className="min-h-12" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
