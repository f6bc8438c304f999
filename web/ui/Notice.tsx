import { TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import { describeError } from "./errorWords.ts";
import { useReader, useTell } from "./tell.ts";

/** An error that stays where it happened until it is over. */
export function ErrorNotice({ error, children }: { error: unknown; children?: ReactNode }) {
  const reader = useReader();
  return (
    <div role="alert" className="flex items-start gap-3 border-l-4 border-magenta bg-panel px-4 py-3">
      <span aria-hidden className="text-magenta">
        ▲
      </span>
      <div>
        <p>{describeError(error, reader)}</p>
        {children}
      </div>
    </div>
  );
}

/** A caution, placed before the step it is about. */
export function Caution({ texts }: { texts: readonly string[] }) {
  const tell = useTell();
  if (texts.length === 0) return null;
  return (
    <div
      className="flex items-start gap-3 rounded-sm bg-caution px-4 py-3 text-oncaution"
      role="note"
      aria-label={tell("Caution")}
    >
      <TriangleAlert aria-hidden className="mt-0.5 shrink-0" size={24} />
      <div className="space-y-1">
        {texts.map((text) => (
          <p key={text}>{text}</p>
        ))}
      </div>
    </div>
  );
}

export function Waiting({ what }: { what: string }) {
  const tell = useTell();
  return (
    <p role="status" className="p-8 text-soft">
      {tell("Fetching {0} …", what)}
    </p>
  );
}
