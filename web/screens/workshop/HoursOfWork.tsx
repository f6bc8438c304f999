import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { WorkshopSheet } from "../../../api/index.ts";
import { isOneOf, keepers } from "../../../api/roles.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { ask } from "../../app/client.ts";
import { useMe } from "../../app/useMe.ts";
import { Button } from "../../ui/Button.tsx";
import { DateInput } from "../../ui/DateInput.tsx";
import { Removed, useGone } from "../../ui/Removed.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { storeRegion } from "../../ui/storeTime.ts";
import { formatDayAndYear } from "../../ui/words.ts";
import { refreshWorkshop } from "./refreshWorkshop.ts";

const days = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
/** The days of a week as the store counts them. (6) → Sunday, Monday, … */
const listDays = (weekStart: number) => days.map((_, i) => (weekStart + i) % days.length);
const field = "num min-h-11 rounded-md border border-soft bg-panel px-2";

interface Days {
  readonly from: LocalDate | null;
  readonly to: LocalDate | null;
  readonly why: string;
}
const noDays: Days = { from: null, to: null, why: "" };

/** What the workshop can do: hours of each weekday, and the days it is closed. */
export function HoursOfWork({ sheet }: { sheet: WorkshopSheet }) {
  const me = useMe();
  const [hours, setHours] = useState(sheet.workshop.hoursPerDay.map(String));
  const { closed } = sheet.workshop;
  const { gone, setGone } = useGone<ClosedSpan>();
  const [fault, setFault] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: (list: Closed) =>
      ask("setWorkshop", { body: { hoursPerDay: hours.map((text) => Number(text.replace(",", "."))), closed: list } }),
    onSuccess: refreshWorkshop,
  });
  if (!isOneOf(keepers, me.role)) return null;
  const keep = (list: Closed, then?: () => void) => {
    const bad = hours.findIndex((text) => !(Number(text.replace(",", ".")) >= 0 && text.trim() !== ""));
    if (bad >= 0) return setFault(`${days[bad]}: type hours such as 14, or 0 for a free day.`);
    setFault(null);
    save.mutate(list, { onSuccess: then });
  };
  return (
    <details className="mt-7">
      <summary className="min-h-11 cursor-pointer text-lg font-bold">Shop capacity and closed days</summary>
      <div className="border-t border-ink pt-3">
        <div className="flex flex-wrap items-end gap-3">
          {listDays(storeRegion().weekStart).map((i) => (
            <label key={days[i]} className="text-soft">
              {days[i]}
              <input
                inputMode="decimal"
                className={`${field} mt-0.5 block w-16 text-right text-ink`}
                value={hours[i]}
                onChange={(event) => setHours(hours.map((text, n) => (n === i ? event.target.value : text)))}
              />
            </label>
          ))}
          <span className="min-h-11 content-center text-soft">hours of work a day, all hands together</span>
          <Button look="primary" disabled={save.isPending} onClick={() => keep(closed)}>
            Save
          </Button>
        </div>
        {fault !== null && (
          <p role="alert" className="mt-1 text-magenta">
            ▲ {fault}
          </p>
        )}
        {save.isSuccess && !save.isPending && fault === null && <p role="status">Saved.</p>}
        <ClosedDays
          closed={closed}
          isBusy={save.isPending}
          onClosed={keep}
          onOpened={(span) =>
            keep(
              closed.filter((each) => each !== span),
              () => setGone({ what: span, name: `Closed from ${formatDayAndYear(span.from)}` }),
            )
          }
          onFault={setFault}
        />
        <Removed
          gone={gone}
          isBusy={save.isPending}
          error={save.error}
          onUndo={(span) => keep(inOrder([...closed, span]), () => setGone(null))}
        />
      </div>
    </details>
  );
}

type Closed = WorkshopSheet["workshop"]["closed"];
type ClosedSpan = Closed[number];

const inOrder = (closed: Closed) => [...closed].sort((a, b) => (a.from < b.from ? -1 : 1));

interface ClosedProps {
  readonly closed: Closed;
  readonly isBusy: boolean;
  readonly onClosed: (closed: Closed) => void;
  readonly onOpened: (span: ClosedSpan) => void;
  readonly onFault: (fault: string) => void;
}

function ClosedDays({ closed, isBusy, onClosed, onOpened, onFault }: ClosedProps) {
  const [next, setNext] = useState(noDays);
  const close = () => {
    const { from } = next;
    if (from === null) return;
    const to = next.to ?? from;
    if (to < from) return onFault("The last closed day is before the first.");
    onClosed(inOrder([...closed, { from, to, why: next.why.trim() }]));
    setNext(noDays);
  };
  return (
    <>
      <ul className="mt-3">
        {closed.map((span) => (
          <li key={span.from} className="flex items-center gap-4 border-b border-rule">
            <span className="num">
              {formatDayAndYear(span.from)}
              {span.to !== span.from && ` to ${formatDayAndYear(span.to)}`}
            </span>
            <span className="flex-1">{span.why}</span>
            <button type="button" className="min-h-11 underline" disabled={isBusy} onClick={() => onOpened(span)}>
              Open again
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <label className="text-soft">
          Closed from
          <DateInput
            className={`${field} mt-0.5 block text-ink`}
            value={next.from}
            onDate={(from) => setNext({ ...next, from })}
          />
        </label>
        <label className="text-soft">
          to
          <DateInput
            className={`${field} mt-0.5 block text-ink`}
            min={next.from ?? undefined}
            value={next.to}
            onDate={(to) => setNext({ ...next, to })}
          />
        </label>
        <label className="text-soft">
          because
          <input
            maxLength={80}
            className={`${field} mt-0.5 block text-ink`}
            value={next.why}
            onChange={(event) => setNext({ ...next, why: readPlain(event) })}
          />
        </label>
        <Button disabled={next.from === null || isBusy} onClick={close}>
          Close these days
        </Button>
      </div>
    </>
  );
}
