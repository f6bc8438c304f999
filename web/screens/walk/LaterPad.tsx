import { useEffect, useRef, useState } from "react";
import type { LocalDate } from "../../../core/dates/index.ts";
import { type LaterHow, laterHows, laterWords } from "../../../core/walk/index.ts";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { DateInput } from "../../ui/DateInput.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import type { Walk } from "./useWalk.ts";

/** Why it is put off, and how that is usually made up for. */
const reasons: readonly (readonly [says: string, how: LaterHow])[] = [
  ["out of time", "next-visit"],
  ["buyer not here", "by-link"],
  ["on the water", "on-the-water"],
  ["manual together", "manual-together"],
  ["part on order", "next-visit"],
];

/** In the place of the marks: why later, how and when. One touch on a reason keeps it. Escape leaves it. */
export function LaterPad({ walk, onDone }: { walk: Walk; onDone: () => void }) {
  const [note, setNote] = useState("");
  const [how, setHow] = useState<LaterHow | null>(null);
  const [when, setWhen] = useState<LocalDate | null>(null);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const keep = (said: string, usual?: LaterHow) => {
    const text = said.trim();
    const wanted = how ?? usual;
    walk.mark("later", {
      ...(text === "" ? {} : { note: text }),
      ...(wanted === undefined ? {} : { how: wanted }),
      ...(when === null ? {} : { when }),
    });
    onDone();
  };
  return (
    <form
      className="border-t border-ink bg-sheet px-3 py-3 md:px-5"
      onSubmit={(event) => {
        event.preventDefault();
        keep(note);
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      <div className="flex flex-wrap items-center gap-2 text-base" role="group" aria-label="How it will be covered">
        <span className="head w-20 font-semibold text-soft">How</span>
        {laterHows.map((each) => (
          <Chip key={each} kind="on-off" isPicked={how === each} onPick={() => setHow(how === each ? null : each)}>
            {laterWords[each]}
          </Chip>
        ))}
        <label className="flex min-h-12 items-center gap-2">
          <span className="text-soft">by</span>
          <DateInput
            value={when}
            onDate={setWhen}
            className="num min-h-12 rounded-md border border-soft bg-panel px-2"
          />
        </label>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-2 text-base">
        <span className="head w-20 font-semibold text-soft">Because</span>
        {reasons.map(([says, usual]) => (
          <Button key={says} className="min-h-12" onClick={() => keep(says, usual)}>
            {says}
          </Button>
        ))}
        <input
          ref={input}
          aria-label="Why later, in other words"
          value={note}
          maxLength={1000}
          onChange={(event) => setNote(readPlain(event))}
          placeholder="or in other words"
          className="min-h-12 min-w-0 flex-1 basis-40 rounded-lg border border-soft bg-panel px-4 placeholder:text-soft"
        />
        <Button type="submit" look="primary" className="min-h-12 px-6">
          Mark later
        </Button>
        <Button look="quiet" className="min-h-12" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
