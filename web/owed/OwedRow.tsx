import { type ReactNode, useState } from "react";
import type { MessageLine } from "../../api/index.ts";
import type { Owed } from "../../core/walk/index.ts";
import { stateNames } from "../care/messageWords.ts";
import { QuickMarks } from "../handover/QuickMarks.tsx";
import { syncQueue } from "../offline/useSync.ts";
import { Button } from "../ui/Button.tsx";
import { TakePhoto } from "../ui/Photos.tsx";
import { readPlain } from "../ui/readPlain.ts";
import { storeDay } from "../ui/storeTime.ts";
import { formatDay } from "../ui/words.ts";
import { isPressing, owedSigns, owedWords, severityWords } from "./owedWords.ts";

interface OwedRowProps {
  readonly delivery: string;
  readonly owed: Pick<Owed, "ref" | "what" | "text" | "severity" | "owner" | "due" | "topic"> & {
    /** Where it stands is known where messages are kept, not on a device without signal. */
    readonly message: (NonNullable<Owed["message"]> & { readonly state?: MessageLine["state"] }) | null;
  };
  /** Puts it right; left out where that cannot be. */
  readonly onChange?: () => void;
  /** What stands below it: photos, its boat. */
  readonly children?: ReactNode;
}

const sayMessage = ({ at, state }: NonNullable<OwedRowProps["owed"]["message"]>) =>
  `message of ${formatDay(storeDay(at))}${state === undefined ? "" : `: ${stateNames[state]}`}`;

/** One thing owed: what, how bad, whose, by when; settled with a line on how, and a photo as evidence. */
export function OwedRow({ delivery, owed, onChange, children }: OwedRowProps) {
  const { ref, what, text, severity, owner, due, message, topic } = owed;
  const [isOpen, setOpen] = useState(false);
  const [note, setNote] = useState("");
  const [photos, setPhotos] = useState<readonly string[]>([]);
  const [verb, asks] =
    what === "question" ? ["Answer", "Your answer (they see it)"] : ["Settle", "What was done (the buyer sees this)"];
  const settle = async () => {
    if (note.trim() === "") return;
    setOpen(false);
    const { id } = await syncQueue.add(delivery, { kind: "settle", ref, note: note.trim() });
    for (const photo of photos) await syncQueue.add(delivery, { kind: "photo", photo, topic: null, ref: id });
  };
  const facts = [
    severity === null ? owedWords[what] : severityWords[severity],
    owner ?? (what === "snag" || what === "promise" || what === "extra" ? "nobody yet" : null),
    due === null ? null : `by ${formatDay(due)}`,
    message === null ? null : sayMessage(message),
  ].filter((fact) => fact !== null);
  return (
    <li className="border-b border-rule py-2">
      <div className="flex flex-wrap items-start gap-x-2">
        <span aria-hidden className={`w-4 shrink-0 ${isPressing(what, severity) ? "text-magenta" : ""}`}>
          {owedSigns[what]}
        </span>
        <div className="min-w-0 flex-1 basis-56">
          <p className="break-words">{text}</p>
          <p className="text-sm text-soft">{facts.join(" · ")}</p>
          {children}
        </div>
        {topic !== null && <QuickMarks delivery={delivery} topic={topic} title={text} />}
        {onChange !== undefined && (
          <button
            type="button"
            className="min-h-11 shrink-0 font-semibold underline"
            aria-label={`Change: ${text}`}
            onClick={onChange}
          >
            Change
          </button>
        )}
        {!isOpen && (
          <button
            type="button"
            className="min-h-11 shrink-0 font-semibold underline"
            aria-label={`${verb}: ${text}`}
            onClick={() => setOpen(true)}
          >
            {verb}
          </button>
        )}
      </div>
      {isOpen && (
        <form
          className="mt-1 flex flex-wrap gap-2 pl-6"
          onSubmit={(event) => {
            event.preventDefault();
            void settle();
          }}
        >
          <input
            // biome-ignore lint/a11y/noAutofocus: it was just asked for
            autoFocus
            aria-label={asks}
            placeholder={asks}
            value={note}
            maxLength={1000}
            onChange={(event) => setNote(readPlain(event))}
            className="min-h-11 min-w-0 flex-1 basis-40 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
          />
          <TakePhoto
            says={photos.length === 0 ? "Photo" : `${photos.length} taken`}
            onTaken={(photo) => setPhotos([...photos, photo])}
          />
          <Button type="submit">Save</Button>
        </form>
      )}
    </li>
  );
}
