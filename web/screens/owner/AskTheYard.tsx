import { useState } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { useReader } from "../../ui/tell.ts";
import { formatDay } from "../../ui/words.ts";
import { useOwner } from "./useOwner.ts";

interface AskProps {
  readonly token: string;
  readonly page: OwnerPage;
  readonly state: WalkState;
  readonly topic: string | null;
}

/** A question to the yard, with those asked before and what was answered. */
export function AskTheYard({ token, page, state, topic }: AskProps) {
  const reader = useReader();
  const { tell } = reader;
  const [note, setNote] = useState("");
  const { add } = useOwner(token, page);
  const asked = state.questions.filter((question) => question.topic === topic);
  return (
    <section aria-label={tell("Ask the yard")} className="mt-7">
      <h2 className="text-lg font-bold">{tell("Ask the yard")}</h2>
      <ul className="border-t border-ink">
        {asked.map(({ id, note: said, at }) => {
          const answer = state.settled.get(id);
          return (
            <li key={id} className="border-b border-rule py-2">
              {said} <span className="text-sm text-soft">{formatDay(storeDay(at), reader)}</span>
              <p className={answer === undefined ? "text-soft" : "font-semibold"}>
                {answer === undefined ? tell("They will answer.") : answer.note}
              </p>
            </li>
          );
        })}
      </ul>
      <form
        className="mt-2 flex flex-wrap gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (note.trim() === "") return;
          add.mutate([{ kind: "ask", topic, note: note.trim() }], { onSuccess: () => setNote("") });
        }}
      >
        <textarea
          aria-label={tell("Your question")}
          rows={2}
          value={note}
          maxLength={1000}
          placeholder={tell("What do you want to know?")}
          onChange={(event) => setNote(readPlain(event))}
          className="min-w-0 flex-1 basis-60 rounded-md border border-soft bg-panel px-3 py-2 placeholder:text-soft"
        />
        <Button type="submit" className="min-h-14" disabled={add.isPending}>
          {add.isPending ? tell("Sending …") : tell("Ask")}
        </Button>
      </form>
      {add.error !== null && <ErrorNotice error={add.error} />}
    </section>
  );
}
