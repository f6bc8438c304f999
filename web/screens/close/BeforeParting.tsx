import { useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { joinWords } from "../../../core/text/index.ts";
import {
  countTopics,
  listAttending,
  listBeforeParting,
  type OpenTopic,
  type WalkState,
} from "../../../core/walk/index.ts";
import { QuickMarks } from "../../handover/QuickMarks.tsx";
import { syncQueue } from "../../offline/useSync.ts";
import { Button } from "../../ui/Button.tsx";
import { DateInput } from "../../ui/DateInput.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { formatDayAndYear } from "../../ui/words.ts";

const whyWords = {
  untouched: "not reached",
  later: "put off",
  short: "explained only: should be done by the buyer",
  "not-aboard": "not aboard",
  "not-each": "not done by each of them",
} as const;
const reasons = ["Buyer declined", "Buyer knows it, says so", "Cannot be done today"];
const withDate = "Out of time, date agreed";

/** Did I leave anything out? What is still open: musts, then what this store most often forgets, then the rest. */
export function BeforeParting({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const { musts, forgotten, others } = listBeforeParting(
    delivery.topics,
    state,
    delivery.forgotten,
    delivery.eachDoes === true ? listAttending(delivery.buyers, state) : [],
  );
  const { planned, done, putOff, extra } = countTopics(delivery, state);
  return (
    <>
      <p className="num text-soft">
        {done} of {planned} planned topics done
        {putOff > 0 && `, ${putOff} put off`}
        {extra > 0 && `, ${extra} more explained that were not planned`}.
        {musts.length === 0 && " Every must-do topic was taken as far as it should be."}
      </p>
      {musts.length > 0 && (
        <ul className="border-t border-rule" aria-label="Must-do, still open">
          {musts.map((each) => (
            <MustLine key={each.topic.id} delivery={delivery} open={each} />
          ))}
        </ul>
      )}
      {forgotten.length > 0 && (
        <>
          <h3 className="head pt-4 font-semibold text-soft">Most often forgotten here</h3>
          <ul className="border-t border-rule" aria-label="Most often forgotten here">
            {forgotten.map(({ topic, why }) => (
              <li key={topic.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1 pl-4">
                <span className="min-w-48 flex-1">
                  {topic.title} <span className="text-soft">{whyWords[why]}</span>
                </span>
                <QuickMarks delivery={delivery.id} topic={topic.id} title={topic.title} />
              </li>
            ))}
          </ul>
        </>
      )}
      {others.length > 0 && (
        <details className="border-b border-rule">
          <summary className="head flex min-h-11 items-center font-semibold">
            {others.length} others, not must-do: they may stay open
          </summary>
          <ul className="pb-2">
            {others.map(({ topic, why }) => (
              <li key={topic.id} className="flex flex-wrap items-center gap-x-4 py-0.5 pl-4">
                <span className="min-w-48 flex-1">
                  {topic.title} <span className="text-soft">{whyWords[why]}</span>
                </span>
                <QuickMarks delivery={delivery.id} topic={topic.id} title={topic.title} />
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

function MustLine({ delivery, open: { topic, why, reason, missing = [] } }: { delivery: Delivery; open: OpenTopic }) {
  const names = delivery.buyers.flatMap(({ id, name }) => (missing.includes(id) ? [name] : []));
  const says = names.length > 0 ? `not done by ${joinWords(names)}` : whyWords[why];
  const [text, setText] = useState("");
  const [isOpen, setOpen] = useState(false);
  const [isDating, setDating] = useState(false);
  const [agreed, setAgreed] = useState<LocalDate | null>(null);
  const keep = async (said: string, due: LocalDate | null = null) => {
    if (said.trim() === "") return;
    setOpen(false);
    setDating(false);
    const { id } = await syncQueue.add(delivery.id, { kind: "reason", topic: topic.id, reason: said.trim() });
    // What was agreed for a day is owed by that day.
    if (due !== null) await syncQueue.add(delivery.id, { kind: "assign", ref: id, owner: null, due });
  };
  return (
    <li className="border-b border-rule py-1.5">
      <div className="flex flex-wrap items-center gap-x-4 border-l-4 border-ink pl-3">
        <div className="min-w-48 flex-1">
          <h3 className="font-bold">{topic.title}</h3>
          <p className={`break-words ${reason === null ? "text-magenta" : "text-soft"}`}>
            {reason === null ? `▲ ${says}` : `${says}: ${reason}`}
          </p>
        </div>
        <QuickMarks delivery={delivery.id} topic={topic.id} title={topic.title} />
        {!isOpen && (
          <Button
            aria-label={`${reason === null ? "Say why" : "Change the reason"}: ${topic.title}`}
            onClick={() => setOpen(true)}
          >
            {reason === null ? "Say why" : "Change the reason"}
          </Button>
        )}
      </div>
      {isOpen && (
        <form
          className="mt-2 flex flex-wrap gap-2 pl-4"
          onSubmit={(event) => {
            event.preventDefault();
            void keep(text);
          }}
        >
          {reasons.map((said) => (
            <Button key={said} className="text-sm" onClick={() => void keep(said)}>
              {said}
            </Button>
          ))}
          <Button className="text-sm" aria-expanded={isDating} onClick={() => setDating(!isDating)}>
            {withDate}
          </Button>
          {isDating && (
            <span className="flex basis-full flex-wrap items-center gap-2 border-l-4 border-helm pl-3">
              <label className="flex min-h-11 items-center gap-2">
                <span className="text-soft">For which day?</span>
                <DateInput
                  value={agreed}
                  onDate={setAgreed}
                  className="num min-h-11 rounded-md border border-soft bg-panel px-2"
                />
              </label>
              <Button
                look="primary"
                disabled={agreed === null}
                onClick={() => agreed !== null && void keep(`${withDate}: ${formatDayAndYear(agreed)}`, agreed)}
              >
                Agreed
              </Button>
            </span>
          )}
          <input
            aria-label={`Another reason why "${topic.title}" is not done`}
            value={text}
            maxLength={500}
            onChange={(event) => setText(readPlain(event))}
            placeholder="Another reason"
            className="min-h-11 min-w-40 flex-1 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
          />
          <Button type="submit">Save</Button>
        </form>
      )}
    </li>
  );
}
