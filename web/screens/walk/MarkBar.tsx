import type { ReactNode } from "react";
import type { Mark } from "../../../core/walk/index.ts";
import { MarkSign } from "../../ui/MarkSign.tsx";
import { WhoFor } from "./People.tsx";
import type { Walk } from "./useWalk.ts";

interface MarkBarProps {
  readonly walk: Walk;
  readonly onLater: () => void;
  readonly onNotAboard: () => void;
  readonly onSnag: () => void;
}

/** The mark that a topic of each level aims at. */
export const wantedMark = { told: "told", shown: "shown", done: "did" } as const;

/** Who the next mark is for, and the four marks under the thumb; the one this topic wants is the filled one. */
export function MarkBar({ walk, onLater, onNotAboard, onSnag }: MarkBarProps) {
  const wanted = wantedMark[walk.step.topic.level];
  const key = (mark: Mark, says: string, number: string, act: () => void) => (
    <button
      type="button"
      onClick={act}
      className={`flex min-h-16 min-w-0 items-center justify-center gap-1.5 rounded-lg border px-1 text-base font-bold md:gap-2.5 md:px-2 md:text-xl lg:col-span-1 ${mark === "later" ? "col-span-3 max-lg:order-4" : "col-span-4"} ${
        wanted === mark ? "border-helm bg-helm text-onhelm" : "border-ink bg-panel text-ink"
      }`}
    >
      <MarkSign mark={mark} size={24} />
      <span className="whitespace-nowrap">{says}</span>
      <kbd aria-hidden className="num rounded border border-current px-1 text-xs font-normal opacity-80 max-xl:hidden">
        {number}
      </kbd>
    </button>
  );
  return (
    <div className="border-t border-ink bg-sheet p-2 md:px-5 md:py-3">
      <WhoFor walk={walk} />
      <div
        role="group"
        aria-label="Marks"
        className="grid grid-cols-12 gap-2 md:gap-2.5 lg:grid-cols-[0.75fr_1.35fr_1.1fr_1.55fr_1.05fr_1.2fr_0.9fr]"
      >
        <Side onClick={walk.undo} isOff={walk.undoable === null} className="max-lg:order-7">
          Undo
        </Side>
        {key("told", "Explained", "1", () => walk.mark("told"))}
        {key("shown", "Shown", "2", () => walk.mark("shown"))}
        {key("did", "They did it", "3", () => walk.mark("did"))}
        {key("later", "Later", "4", onLater)}
        <Side onClick={onNotAboard} className="max-lg:order-6">
          – Not aboard
        </Side>
        <Side onClick={onSnag} isPerson className="max-lg:order-5">
          ▲ Snag
        </Side>
      </div>
    </div>
  );
}

interface SideProps {
  readonly onClick: () => void;
  readonly children: ReactNode;
  readonly isOff?: boolean;
  readonly isPerson?: boolean;
  readonly className: string;
}

function Side({ onClick, children, isOff = false, isPerson = false, className }: SideProps) {
  return (
    <button
      type="button"
      onClick={onClick}
      disabled={isOff}
      className={`col-span-3 min-h-16 min-w-0 rounded-lg max-md:text-sm max-md:leading-tight max-md:whitespace-normal lg:col-span-1 border bg-panel px-2 text-base font-bold whitespace-nowrap disabled:opacity-60 ${
        isPerson ? "border-magenta text-magenta" : "border-rule text-soft"
      } ${className}`}
    >
      {children}
    </button>
  );
}
