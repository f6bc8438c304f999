import { useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import type { OpenTopic } from "../../../core/walk/index.ts";
import { journal } from "../../offline/useJournal.ts";
import { Button } from "../../ui/Button.tsx";

const whyWords = { untouched: "not reached", later: "put off", short: "not taken far enough" } as const;
const reasons = ["Buyer declined", "Buyer knows it, says so", "Out of time, date agreed", "Cannot be done today"];

/** What is still open, musts first; each must gets a reason when it stays open. */
export function OpenTopics({ delivery, open }: { delivery: Delivery; open: readonly OpenTopic[] }) {
  const musts = open.filter(({ topic }) => topic.must);
  const others = open.filter(({ topic }) => !topic.must);
  return (
    <section aria-labelledby="open">
      <h2 id="open" className="text-lg font-bold">
        Still open{" "}
        <span className="num font-normal text-soft">
          {musts.length} must-do, {others.length} others
        </span>
      </h2>
      <ul className="border-t border-ink">
        {open.length === 0 && <li className="py-2">Everything was taken as far as it should be.</li>}
        {musts.map((each) => (
          <MustLine key={each.topic.id} delivery={delivery} open={each} />
        ))}
      </ul>
      {others.length > 0 && (
        <details className="border-b border-rule">
          <summary className="head flex min-h-11 items-center font-semibold">
            {others.length} others, not must-do: they may stay open
          </summary>
          <ul className="pb-2">
            {others.map(({ topic, why }) => (
              <li key={topic.id} className="flex justify-between gap-4 py-1 pl-4">
                {topic.title}
                <span className="text-soft">{whyWords[why]}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function MustLine({ delivery, open: { topic, why, reason } }: { delivery: Delivery; open: OpenTopic }) {
  const [text, setText] = useState("");
  const [isOpen, setOpen] = useState(false);
  const keep = (said: string) => {
    if (said.trim() === "") return;
    void journal.add(delivery.id, { kind: "reason", topic: topic.id, reason: said.trim() });
    setOpen(false);
  };
  return (
    <li className="border-b border-rule py-1.5">
      <div className="flex flex-wrap items-center gap-x-4 border-l-4 border-ink pl-3">
        <h3 className="font-bold">{topic.title}</h3>
        <span className="ml-auto flex flex-wrap items-center gap-x-4">
          <span className={reason === null ? "text-magenta" : "text-soft"}>
            {reason === null ? `▲ ${whyWords[why]}` : `${whyWords[why]}: ${reason}`}
          </span>
          {!isOpen && (
            <Button
              aria-label={`${reason === null ? "Say why" : "Say otherwise"}: ${topic.title}`}
              onClick={() => setOpen(true)}
            >
              {reason === null ? "Say why" : "Say otherwise"}
            </Button>
          )}
        </span>
      </div>
      {isOpen && (
        <form
          className="mt-2 flex flex-wrap gap-2 pl-4"
          onSubmit={(event) => {
            event.preventDefault();
            keep(text);
          }}
        >
          {reasons.map((said) => (
            <Button key={said} className="text-sm" onClick={() => keep(said)}>
              {said}
            </Button>
          ))}
          <input
            aria-label={`Another reason why "${topic.title}" is not done`}
            value={text}
            maxLength={500}
            onChange={(event) => setText(event.target.value.replace(/[<>]/g, ""))}
            placeholder="Another reason"
            className="min-h-11 min-w-40 flex-1 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
          />
          <Button type="submit">Keep the reason</Button>
        </form>
      )}
    </li>
  );
}
