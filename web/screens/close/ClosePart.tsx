import { type ReactNode, useState } from "react";
import type { PartState } from "./closeParts.ts";

const signs = { left: "▲", look: "◷", done: "●" } as const;
const inks = { left: "text-magenta", look: "text-amber", done: "text-soft" } as const;

/** One part of closing with how it stands. What is done when the page opens is folded; nothing folds under the hand. */
export function ClosePart({ part, children }: { part: PartState; children: ReactNode }) {
  const { id, title, stands, says } = part;
  const [wasDone] = useState(stands === "done");
  return (
    <details id={id} open={!wasDone} className="scroll-mt-16 border-t border-ink">
      <summary className="flex min-h-14 cursor-pointer flex-wrap items-center gap-x-3">
        <h2 className="text-lg font-bold">{title}</h2>
        <span className={`num ${inks[stands]}`}>
          <span aria-hidden>{signs[stands]}</span> {says}
        </span>
      </summary>
      <div className="pb-4">{children}</div>
    </details>
  );
}

/** All parts in one line that stays in sight: what is left, and the way there. */
export function PartStrip({ parts }: { parts: readonly PartState[] }) {
  return (
    <nav
      aria-label="Parts of closing"
      className="sticky top-0 z-10 -mx-1 mt-4 flex gap-x-1 overflow-x-auto bg-sheet py-1"
    >
      {parts.map(({ id, title, stands, says }) => (
        <a
          key={id}
          href={`#${id}`}
          aria-label={`${title}: ${says}`}
          onClick={(event) => {
            event.preventDefault();
            const part = document.getElementById(id) as HTMLDetailsElement | null;
            if (part === null) return;
            part.open = true;
            part.scrollIntoView({ block: "start" });
            part.querySelector("summary")?.focus({ preventScroll: true });
          }}
          className={`flex min-h-12 shrink-0 items-center gap-1.5 rounded-md border px-3 no-underline ${stands === "left" ? "border-magenta" : "border-rule"}`}
        >
          <span aria-hidden className={inks[stands]}>
            {signs[stands]}
          </span>
          {shortTitles[id]}
        </a>
      ))}
    </nav>
  );
}

const shortTitles: Record<PartState["id"], string> = {
  topics: "Open",
  readings: "Readings",
  gear: "Gear",
  hours: "Hours",
  owed: "Owed",
  sign: "Sign",
};
