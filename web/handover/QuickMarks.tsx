import type { Mark } from "../../core/walk/index.ts";
import { syncQueue } from "../offline/useSync.ts";
import { MarkSign, markWords } from "../ui/MarkSign.tsx";

const quickMarks = ["told", "shown", "did"] as const satisfies readonly Mark[];
const shortWords = { told: "Explained", shown: "Shown", did: "They did it" } as const;

interface QuickMarksProps {
  readonly delivery: string;
  readonly topic: string;
  readonly title: string;
}

/** Told after all: marked where one reads of it, without going back into the walk. */
export function QuickMarks({ delivery, topic, title }: QuickMarksProps) {
  return (
    <span className="flex flex-wrap gap-1">
      {quickMarks.map((mark) => (
        <button
          key={mark}
          type="button"
          aria-label={`${markWords[mark]}: ${title}`}
          onClick={() => void syncQueue.add(delivery, { kind: "mark", topic, mark, person: null, spentS: 0 })}
          className="flex min-h-11 items-center gap-1.5 rounded-md border border-soft px-2.5"
        >
          <MarkSign mark={mark} size={16} /> {shortWords[mark]}
        </button>
      ))}
    </span>
  );
}
