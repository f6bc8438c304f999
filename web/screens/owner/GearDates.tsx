import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import { type GearDate, listGearDates } from "../../../core/care/gearDates.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { ask } from "../../app/client.ts";
import { ownerPageQuery, queryClient } from "../../app/queries.ts";
import { DateInput } from "../../ui/DateInput.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { type Reader, useReader } from "../../ui/tell.ts";
import { formatDayAndYear, formatDistance } from "../../ui/words.ts";

/** What runs out on this boat, with what the owner entered of it. */
export function readGearDates({ delivery, gearDates, today }: OwnerPage, state: WalkState): GearDate[] {
  return listGearDates(delivery.rig.gear, state.gear, gearDates, today);
}

/** Flares, extinguisher, jackets, registration: until when each is good, entered by whoever has it in their hand. */
export function GearDates({ token, page, state }: { token: string; page: OwnerPage; state: WalkState }) {
  const dates = readGearDates(page, state);
  const { tell } = useReader();
  return (
    <section aria-labelledby="gear-dates" className="mt-7">
      <h2 id="gear-dates" className="text-xl font-bold">
        {tell("What runs out")}
      </h2>
      <p className="text-soft">
        {tell("Read the day on each and enter it here. What runs out is said two months before.")}
      </p>
      <ul className="mt-2 border-t border-ink">
        {dates.map((date) => (
          <DateRow key={date.id} token={token} date={date} today={page.today} />
        ))}
      </ul>
    </section>
  );
}

function DateRow({
  token,
  date: { id, label, until, state },
  today,
}: {
  token: string;
  date: GearDate;
  today: LocalDate;
}) {
  const [typed, setTyped] = useState<LocalDate | null>(until);
  const save = useMutation({
    mutationFn: (next: LocalDate | null) => ask("setOwnerDate", { params: { token }, body: { item: id, until: next } }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ownerPageQuery(token).queryKey }),
  });
  const reader = useReader();
  const { tell } = reader;
  const isSaved = save.isSuccess && save.variables === typed;
  return (
    <li className="border-b border-rule py-2">
      <label className="flex flex-wrap items-center gap-x-3">
        <span className="min-w-32 flex-1 font-semibold">{tell.label(label)}</span>
        <DateInput
          aria-label={tell("Good until: {0}", tell.label(label))}
          value={typed}
          onDate={(next) => {
            setTyped(next);
            if (next !== null && next !== until) save.mutate(next);
          }}
          className="num min-h-12 rounded-md border border-soft bg-panel px-2"
        />
      </label>
      <p className={state === "past" ? "text-magenta" : state === "soon" ? "text-amber" : "text-soft"}>
        {sayDate({ until, state }, today, reader)}
        {isSaved && <span role="status"> {tell("Saved.")}</span>}
      </p>
      {save.error !== null && <ErrorNotice error={save.error} />}
    </li>
  );
}

/** ▲ ran out 1 May 2026, 6 weeks ago; ◷ good until 12 Aug 2026, in 2 months. */
export function sayDate({ until, state }: Pick<GearDate, "until" | "state">, today: LocalDate, reader: Reader): string {
  const { tell } = reader;
  if (until === null) return tell("not entered yet");
  const day = `${formatDayAndYear(until, reader)}, ${formatDistance(until, today, reader)}`;
  if (state === "past") return `▲ ${tell("ran out {0}", day)}`;
  return `${state === "soon" ? "◷ " : ""}${tell("good until {0}", day)}`;
}
