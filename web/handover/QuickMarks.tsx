import type { Mark } from "../../core/walk/index.ts";
import { syncQueue } from "../offline/useSync.ts";
import { MarkSign, markWords } from "../ui/MarkSign.tsx";

const quickMarks: readonly Mark[] = ["told", "shown", "did"];

interface QuickMarksProps {
  readonly delivery: string;
  readonly topic: string;
  readonly title: string;
}

/** Told after all: marked where one reads of it, without going back into the walk. */
export function QuickMarks({ delivery, topic, title }: QuickMarksProps) {
  return (
    <span className="flex gap-1">
      {quickMarks.map((mark) => (
        <button
          key={mark}
          type="button"
          aria-label={`${markWords[mark]}: ${title}`}
          title={markWords[mark]}
          onClick={() => void syncQueue.add(delivery, { kind: "mark", topic, mark, person: null, spentS: 0 })}
          className="grid size-11 place-items-center rounded-md border border-soft"
        >
          <MarkSign mark={mark} size={18} />
        </button>
      ))}
    </span>
  );
}
