import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Boat, Booking } from "../../api/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import { ask } from "../app/client.ts";
import { boatQuery } from "../app/queries.ts";
import { Button } from "../ui/Button.tsx";
import { DateInput } from "../ui/DateInput.tsx";
import { formatDue } from "../ui/DueDay.tsx";
import { Fetched } from "../ui/Fetched.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { readPlain } from "../ui/readPlain.ts";
import { useIds } from "../ui/useIds.ts";
import { formatMinuteOfDay, minutesOf } from "../ui/words.ts";

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
  return (
    <Fetched query={boat} what="the boat">
      {(data) => <FormOf {...props} data={data} />}
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

function FormOf({ data, booking, date: wished, wanted, onDone }: BookProps & { data: Boat }) {
  const next = listNext(data, wanted ?? booking?.items);
  const [date, setDate] = useState<LocalDate | null>(booking?.date ?? wished ?? data.visits[0]?.date ?? data.today);
  const [start, setStart] = useState(formatMinuteOfDay(booking?.startMin ?? 9 * 60));
  const [picked, setPicked] = useState<ReadonlySet<string>>(
    new Set((booking?.items ?? wanted ?? data.visits[0]?.items ?? []).map(keyOf)),
  );
  const [note, setNote] = useState(booking?.note ?? "");
  const chosen = next.filter((item) => picked.has(keyOf(item)));
  const labourH = chosen.length === 0 ? (booking?.labourH ?? 1) : chosen.reduce((sum, item) => sum + item.labourH, 0);
  const idOf = useIds();
  const book = useMutation({
    mutationFn: () =>
      ask("setBooking", {
        params: { booking: booking?.id ?? idOf() },
        body: {
          boat: data.id,
          date: date!,
          startMin: minutesOf(start),
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
        </Button>
        <Button look="quiet" onClick={() => void onDone()}>
          Cancel
        </Button>
      </p>
    </form>
  );
}
