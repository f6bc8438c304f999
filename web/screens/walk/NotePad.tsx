import { useEffect, useRef, useState } from "react";
import { Button } from "../../ui/Button.tsx";
import type { Walk } from "./useWalk.ts";

const laterReasons = ["out of time", "buyer not here", "on the water", "manual together", "part on order"];

interface NotePadProps {
  readonly kind: "later" | "snag";
  readonly walk: Walk;
  readonly onDone: () => void;
}

/** In the place of the marks: why later, or what is wrong. Enter keeps it, Escape leaves it. */
export function NotePad({ kind, walk, onDone }: NotePadProps) {
  const [note, setNote] = useState("");
  const [stops, setStops] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const keep = (text: string) => {
    const said = text.trim();
    if (kind === "snag") {
      if (said === "") {
        input.current?.focus();
        return;
      }
      walk.snag(said, stops);
    } else {
      walk.mark("later", said === "" ? undefined : said);
    }
    onDone();
  };
  return (
    <form
      className="border-t border-ink bg-sheet px-3 py-3.5 md:px-5"
      onSubmit={(event) => {
        event.preventDefault();
        keep(note);
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      {kind === "later" && (
        <div className="mb-2 flex flex-wrap gap-2">
          {laterReasons.map((reason) => (
            <Button key={reason} className="min-h-12" onClick={() => keep(reason)}>
              {reason}
            </Button>
          ))}
        </div>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <label className="min-w-0 flex-1 basis-60">
          <span className="sr-only">{kind === "later" ? "Why later, in other words" : "What is wrong"}</span>
          <input
            ref={input}
            value={note}
            maxLength={1000}
            onChange={(event) => setNote(event.target.value.replace(/[<>]/g, ""))}
            placeholder={kind === "later" ? "Another reason, or leave it empty" : "What is wrong, in one line"}
            className="min-h-16 w-full rounded-lg border border-soft bg-panel px-4 placeholder:text-soft"
          />
        </label>
        {kind === "snag" && (
          <label className="flex min-h-16 items-center gap-2 text-base">
            <input
              type="checkbox"
              className="size-6 accent-magenta"
              checked={stops}
              onChange={(event) => setStops(event.target.checked)}
            />
            stops the handover
          </label>
        )}
        <Button type="submit" look="primary" className="min-h-16 px-6 text-xl">
          {kind === "later" ? "Mark later" : "Keep the snag"}
        </Button>
        <Button look="quiet" className="min-h-16" onClick={onDone}>
          Leave
        </Button>
      </div>
    </form>
  );
}
