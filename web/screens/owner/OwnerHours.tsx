import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import type { ReadingAnswer } from "../../../core/hours/index.ts";
import { findQuestion, HoursQuestion } from "../../handover/HoursQuestion.tsx";
import { MeterNote } from "../../handover/MeterNote.tsx";
import { WaitingPosts } from "../../handover/WaitingPosts.tsx";
import { syncQueue } from "../../offline/useSync.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { parseHours } from "../../ui/parseHours.ts";
import { useReader, useTell } from "../../ui/tell.ts";
import { useFormId } from "../../ui/useIds.ts";
import { formatDay } from "../../ui/words.ts";

/** The hours of each engine, reported in two taps: into the field, and kept. */
export function OwnerHours({ token, page }: { token: string; page: OwnerPage }) {
  const tell = useTell();
  return (
    <section aria-labelledby="your-hours" className="mb-6 border-l-4 border-helm bg-panel px-4 py-3">
      <h2 id="your-hours" className="text-lg font-bold">
        {tell("What does the hour meter show?")}
      </h2>
      {page.care.map((care) => (
        <EngineHours key={care.engine} token={token} page={page} care={care} />
      ))}
      <WaitingPosts about={token} engines={page.delivery.rig.engines} />
    </section>
  );
}

function EngineHours({ token, page, care }: { token: string; page: OwnerPage; care: OwnerPage["care"][number] }) {
  const meter = page.delivery.rig.engines.find(({ id }) => id === care.engine)?.meter;
  const reader = useReader();
  const { tell } = reader;
  const [typed, setTyped] = useState("");
  const [fault, setFault] = useState(false);
  const [id, renewId] = useFormId();
  const add = useMutation({
    mutationFn: (answer: ReadingAnswer | undefined) => {
      const reading = { id, engine: care.engine, date: page.today, hours: parseHours(typed)! };
      return syncQueue.post({
        id,
        name: "addOwnerReading",
        params: { token },
        body: { ...reading, ...(answer === undefined ? {} : { answer }) },
        about: token,
        says: `${typed} h, ${care.label}, ${formatDay(page.today)}`,
      });
    },
    onSuccess: () => {
      setTyped("");
      renewId();
    },
  });
  const question = findQuestion(add.error);
  const keep = (answer?: ReadingAnswer) => {
    setFault(parseHours(typed) === null);
    if (parseHours(typed) !== null) add.mutate(answer);
  };
  return (
    <form
      className="border-t border-rule py-2 first-of-type:border-0"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-3">
          {page.care.length > 1 && <span>{tell(care.label)}</span>}
          <input
            inputMode="decimal"
            aria-label={tell("Hours, {0}", tell(care.label))}
            aria-invalid={fault}
            placeholder={care.meterH?.toFixed(1)}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            className="num min-h-14 w-28 rounded-md border border-soft bg-sheet px-3 text-right text-2xl placeholder:text-soft"
          />
          <span className="text-soft">h</span>
        </label>
        <Button type="submit" look="primary" className="min-h-14 px-6 text-lg" disabled={add.isPending}>
          {tell("Report the hours")}
        </Button>
      </div>
      <p className="num text-sm text-soft">
        {care.meterH === null
          ? tell("None reported yet.")
          : tell("Last reported {0} h on {1}.", care.meterH.toFixed(1), formatDay(care.reportedOn!, reader))}
        {add.isSuccess && add.data !== null && ` ${tell("Saved, thank you.")}`}
      </p>
      <MeterNote meter={meter} />
      {fault && (
        <p role="alert" className="text-magenta">
          ▲ {tell("Type hours such as 12.4, as the meter shows them.")}
        </p>
      )}
      {question !== null ? (
        <HoursQuestion
          question={question}
          meter={meter}
          isBusy={add.isPending}
          onAnswer={keep}
          onLeave={() => add.reset()}
        />
      ) : (
        add.error !== null && <ErrorNotice error={add.error} />
      )}
    </form>
  );
}
