import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Boat, Booking, WorkshopSheet } from "../../api/index.ts";
import { fromClock, type LocalDate, toClock } from "../../core/dates/index.ts";
import { capacityOfDay, findOpenDay } from "../../core/workshop/index.ts";
import { ask } from "../app/client.ts";
import { boatQuery, workshopQuery } from "../app/queries.ts";
import { Button } from "../ui/Button.tsx";
import { DateInput } from "../ui/DateInput.tsx";
import { formatDue } from "../ui/DueDay.tsx";
import { Fetched } from "../ui/Fetched.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { readPlain } from "../ui/readPlain.ts";
import { useIds } from "../ui/useIds.ts";
import { formatDay, formatTime } from "../ui/words.ts";

const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-3 text-ink";

interface BookProps {
  readonly boat: string;
  /** The slot that is moved; a new one without. */
  readonly booking?: Booking;
  /** The day to begin with. */
  readonly date?: LocalDate;
  /** What it is to be done for; what comes up next without. */
  readonly wanted?: readonly { readonly scope: string; readonly item: string }[];
  readonly onDone: () => void | Promise<void>;
}

/** A slot in the workshop: day, time, and which of the things that come up are done then. */
export function BookForm(props: BookProps) {
  const boat = useQuery(boatQuery(props.boat));
  // What else stands on that day is said where it is known; without signal a slot can be asked for all the same.
  const workshop = useQuery(workshopQuery).data;
  return (
    <Fetched query={boat} what="the boat">
      {(data) => <FormOf {...props} data={data} workshop={workshop} />}
    </Fetched>
  );
}

const keyOf = ({ scope, item }: { scope: string; item: string }) => `${scope} ${item}`;

/** What comes up on the next two visits, and what is wanted whenever it comes up; each once. */
function listNext(data: Boat, wanted: BookProps["wanted"] = []) {
  const all = data.visits.flatMap(({ items }) => items);
  const asked = all.filter((item) => wanted.some((each) => keyOf(each) === keyOf(item)));
  const near = data.visits.slice(0, 2).flatMap(({ items }) => items);
  return [...new Map([...near, ...asked].toReversed().map((item) => [keyOf(item), item])).values()].toReversed();
}

/** How full a day is without this slot, and with it. */
function readDay({ workshop, bookings }: WorkshopSheet, day: LocalDate, own: string | undefined) {
  const slots = bookings
    .filter(({ id, date, state }) => date === day && state === "booked" && id !== own)
    .sort((a, b) => a.startMin - b.startMin);
  const capacityH = capacityOfDay(workshop, day);
  return { slots, capacityH, usedH: slots.reduce((sum, { labourH }) => sum + labourH, 0) };
}

interface FormProps extends BookProps {
  readonly data: Boat;
  readonly workshop: WorkshopSheet | undefined;
}

function FormOf({ data, workshop, booking, date: wished, wanted, onDone }: FormProps) {
  const next = listNext(data, wanted ?? booking?.items);
  const first = wished ?? data.visits[0]?.date ?? data.today;
  // Until another is chosen it is the day of the visit, or the next on which somebody works.
  const [chosenDay, setDate] = useState<LocalDate | null | undefined>(booking?.date);
  const date =
    chosenDay === undefined ? (workshop === undefined ? first : findOpenDay(workshop.workshop, first)) : chosenDay;
  const [start, setStart] = useState(toClock(booking?.startMin ?? 9 * 60));
  const [picked, setPicked] = useState<ReadonlySet<string>>(
    new Set((booking?.items ?? wanted ?? data.visits[0]?.items ?? []).map(keyOf)),
  );
  const [note, setNote] = useState(booking?.note ?? "");
  const chosen = next.filter((item) => picked.has(keyOf(item)));
  const labourH = chosen.length === 0 ? (booking?.labourH ?? 1) : chosen.reduce((sum, item) => sum + item.labourH, 0);
  const day = workshop === undefined || date === null ? null : readDay(workshop, date, booking?.id);
  const isOver = day !== null && day.capacityH > 0 && day.usedH + labourH > day.capacityH;
  const idOf = useIds();
  const book = useMutation({
    mutationFn: () =>
      ask("setBooking", {
        params: { booking: booking?.id ?? idOf() },
        body: {
          boat: data.id,
          date: date!,
          startMin: fromClock(start),
          labourH,
          items:
            chosen.length === 0 && booking !== undefined
              ? booking.items
              : chosen.map(({ scope, item, title }) => ({ scope, item, title })),
          note: note.trim(),
          state: "booked",
        },
      }),
    onSuccess: onDone,
  });
  return (
    <form
      aria-label={booking === undefined ? "Book a slot" : "Move the slot"}
      className="mt-3 border-l-4 border-helm bg-panel px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (date !== null) book.mutate();
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <label className="text-soft">
          Day
          <DateInput required min={data.today} value={date} onDate={setDate} className={field} />
        </label>
        <label className="text-soft">
          From
          <input type="time" value={start} onChange={(event) => setStart(event.target.value)} className={field} />
        </label>
        <p className="num min-h-11 content-center">
          <strong>{labourH.toFixed(1)} h</strong> <span className="text-soft">of work</span>
        </p>
      </div>
      {day !== null && date !== null && <DayRoom day={day} date={date} withH={day.usedH + labourH} isOver={isOver} />}
      <ul className="mt-2">
        {next.map((item) => (
          <li key={`${keyOf(item)} ${item.dueDate}`}>
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6 shrink-0 accent-helm"
                checked={picked.has(keyOf(item))}
                onChange={(event) => {
                  const changed = new Set(picked);
                  if (event.target.checked) changed.add(keyOf(item));
                  else changed.delete(keyOf(item));
                  setPicked(changed);
                }}
              />
              <span>
                {item.title}, {item.label}{" "}
                <span className="text-soft">due {formatDue({ ...item, date: item.dueDate })}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      <label className="mt-1 block text-soft">
        Note
        <input
          value={note}
          maxLength={200}
          onChange={(event) => setNote(readPlain(event))}
          className={`${field} w-full`}
        />
      </label>
      {book.error !== null && <ErrorNotice error={book.error} />}
      <p className="mt-3 flex gap-2">
        <Button type="submit" look="primary" disabled={book.isPending}>
          {booking === undefined ? "Book it" : "Move it"}
          {isOver && " anyway"}
        </Button>
        <Button look="quiet" onClick={() => void onDone()}>
          Cancel
        </Button>
      </p>
    </form>
  );
}

interface DayRoomProps {
  readonly day: ReturnType<typeof readDay>;
  readonly date: LocalDate;
  /** Hours of that day with this slot. */
  readonly withH: number;
  readonly isOver: boolean;
}

/** What room the day has, what stands there already, and what it would come to. */
function DayRoom({ day: { slots, capacityH, usedH }, date, withH, isOver }: DayRoomProps) {
  if (capacityH === 0) return <p className="mt-1 text-amber">◷ {formatDay(date)}: the workshop is closed.</p>;
  return (
    <div className="mt-1 text-sm">
      <p className={`num ${isOver ? "text-magenta" : "text-soft"}`}>
        {isOver
          ? `▲ ${formatDay(date)} would hold ${withH.toFixed(1)} of ${capacityH} h. Book it there?`
          : `${formatDay(date)}: ${usedH.toFixed(1)} of ${capacityH} h booked, ${(capacityH - usedH).toFixed(1)} h free.`}
      </p>
      {slots.length > 0 && (
        <ul aria-label="Booked that day" className="num text-soft">
          {slots.map(({ id, startMin, labourH, boatName, serial }) => (
            <li key={id}>
              {formatTime(startMin)} to {formatTime(Math.min(1439, startMin + Math.round(labourH * 60)))}, {boatName}{" "}
              {serial}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
