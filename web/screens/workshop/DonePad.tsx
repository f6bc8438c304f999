import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Boat, WorkshopSheet } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { ask } from "../../app/client.ts";
import { boatQuery, queryClient, todayQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { Button } from "../../ui/Button.tsx";
import { DateInput } from "../../ui/DateInput.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { MeterHours } from "../../ui/MeterHours.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { TakePhoto } from "../../ui/Photos.tsx";
import { parseHours } from "../../ui/parseHours.ts";
import { readPlain } from "../../ui/readPlain.ts";
import { useIds } from "../../ui/useIds.ts";
import { formatDay } from "../../ui/words.ts";
import { refreshWorkshop } from "./refreshWorkshop.ts";
import { shareLabour } from "./shareLabour.ts";

type Slot = WorkshopSheet["bookings"][number];
const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-3 text-ink";
const keyOf = ({ scope, item }: { scope: string; item: string }) => `${scope} ${item}`;

interface DonePadProps {
  readonly booking: Slot;
  readonly today: LocalDate;
  readonly onDone: () => void;
}

/** A slot is done: what was done becomes services of the boat, and its dates move. */
export function DonePad(props: DonePadProps) {
  const boat = useQuery(boatQuery(props.booking.boat));
  return (
    <Fetched query={boat} what="the boat">
      {(data) => <FormOf {...props} boat={data} />}
    </Fetched>
  );
}

/** What a slot was for, with the hours and parts of its pack. */
function listBooked({ items }: Slot, boat: Boat) {
  const planned = boat.visits.flatMap((visit) => visit.items);
  return items.map((item) => {
    const found = planned.find((each) => keyOf(each) === keyOf(item));
    const label = boat.care.find(({ engine }) => engine === item.scope)?.label ?? "The boat";
    return { ...item, key: keyOf(item), label, parts: found?.parts ?? [], labourH: found?.labourH ?? 1 };
  });
}

function FormOf({ booking, today, boat, onDone }: DonePadProps & { boat: Boat }) {
  const me = useMe();
  const booked = listBooked(booking, boat);
  const [date, setDate] = useState<LocalDate | null>(booking.date > today ? today : booking.date);
  const [done, setDone] = useState<ReadonlySet<string>>(new Set(booked.map(({ key }) => key)));
  const [hours, setHours] = useState<Readonly<Record<string, string>>>({});
  const [leftOut, setLeftOut] = useState<ReadonlySet<string>>(new Set());
  const [more, setMore] = useState("");
  const [labour, setLabour] = useState(booking.labourH.toFixed(1));
  const [mechanic, setMechanic] = useState(me.name);
  const [note, setNote] = useState("");
  const [photo, setPhoto] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const idOf = useIds();
  const chosen = booked.filter(({ key }) => done.has(key));
  const engines = boat.care.filter(({ engine }) => chosen.some(({ scope }) => scope === engine));
  const hoursOf = (engine: string) => hours[engine] ?? "";
  const parts = [...new Set(chosen.flatMap((item) => item.parts))];
  const keep = useMutation({
    mutationFn: async (on: LocalDate) => {
      const labours = shareLabour(
        chosen.map((item) => item.labourH),
        parseHours(labour)!,
      );
      for (const [i, item] of chosen.entries()) {
        const went = [...item.parts.filter((part) => !leftOut.has(part)), ...(i === 0 ? splitWords(more) : [])];
        await ask("addService", {
          params: { boat: boat.id },
          body: {
            id: idOf(item.key),
            engine: item.scope,
            item: item.item,
            date: on,
            hours: item.scope === "boat" ? 0 : parseHours(hoursOf(item.scope))!,
            outcome: "done",
            note: note.trim(),
            labourH: labours[i]!,
            ...(went.length === 0 ? {} : { parts: went.join(", ") }),
            ...(mechanic.trim() === "" ? {} : { mechanic: mechanic.trim() }),
            ...(photo === null ? {} : { photo }),
          },
        });
      }
      const { by: _, boatName: __, serial: ___, buyers: ____, id, ...rest } = booking;
      await ask("setBooking", { params: { booking: id }, body: { ...rest, date: on, state: "done" } });
    },
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: boatQuery(boat.id).queryKey });
      await queryClient.invalidateQueries({ queryKey: todayQuery.queryKey });
      await refreshWorkshop();
      onDone();
    },
  });
  const toggle = (set: ReadonlySet<string>, key: string) => {
    const next = new Set(set);
    if (!next.delete(key)) next.add(key);
    return next;
  };
  const save = () => {
    const unread = engines.find(({ engine }) => parseHours(hoursOf(engine)) === null);
    const workFault = parseHours(labour) === null ? "Hours of work: type a number, such as 1.5." : null;
    const wrong = unread === undefined ? workFault : `${unread.label}: type what the meter shows, such as 20.5.`;
    setFault(wrong);
    if (wrong === null && date !== null) keep.mutate(date);
  };
  return (
    <form
      aria-label={`What was done on ${booking.boatName} ${booking.serial}`}
      className="mt-2 border-l-4 border-helm bg-panel px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      {booking.date > today && (
        <p className="text-amber">
          ◷ This slot is on {formatDay(booking.date)}. If it was done before that, say on which day.
        </p>
      )}
      <ul>
        {booked.map(({ key, title, label }) => (
          <li key={key}>
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6 shrink-0 accent-helm"
                checked={done.has(key)}
                onChange={() => setDone(toggle(done, key))}
              />
              {title}, {label}
            </label>
          </li>
        ))}
        {booked.length === 0 && <li className="text-soft">Nothing was named for this slot: it is only closed.</li>}
      </ul>
      <div className="mt-2 flex flex-wrap items-start gap-3">
        <label className="text-soft">
          On
          <DateInput required max={today} value={date} onDate={setDate} className={field} />
        </label>
        {engines.map(({ engine, label, likelyNowH }) => (
          <MeterHours
            key={engine}
            label={`Hours, ${label}`}
            value={hoursOf(engine)}
            onChange={(typed) => setHours({ ...hours, [engine]: typed })}
            likelyH={likelyNowH}
          />
        ))}
        <label className="text-soft">
          Hours of work
          <input
            inputMode="decimal"
            value={labour}
            onChange={(event) => setLabour(event.target.value)}
            className={`${field} num w-28 text-right`}
          />
        </label>
        <label className="text-soft">
          Done by
          <input
            value={mechanic}
            maxLength={80}
            onChange={(event) => setMechanic(readPlain(event))}
            className={`${field} w-48`}
          />
        </label>
      </div>
      {parts.length > 0 && (
        <fieldset className="mt-3">
          <legend className="text-soft">Parts that went in, from the pack</legend>
          <div className="flex flex-wrap gap-x-5">
            {parts.map((part) => (
              <label key={part} className="flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-6 accent-helm"
                  checked={!leftOut.has(part)}
                  onChange={() => setLeftOut(toggle(leftOut, part))}
                />
                {part}
              </label>
            ))}
          </div>
        </fieldset>
      )}
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <label className="min-w-52 flex-1 text-soft">
          Other parts
          <input
            value={more}
            maxLength={160}
            onChange={(event) => setMore(readPlain(event))}
            className={`${field} w-full`}
          />
        </label>
        <label className="min-w-52 flex-1 text-soft">
          Note
          <input
            value={note}
            maxLength={400}
            onChange={(event) => setNote(readPlain(event))}
            className={`${field} w-full`}
          />
        </label>
        <TakePhoto says={photo === null ? "Photo" : "Photo taken"} onTaken={setPhoto} />
      </div>
      {fault !== null && (
        <p role="alert" className="mt-1 text-magenta">
          ▲ {fault}
        </p>
      )}
      {keep.error !== null && <ErrorNotice error={keep.error} />}
      <p className="mt-3 flex gap-2">
        <Button type="submit" look="primary" disabled={keep.isPending}>
          Save what was done
        </Button>
        <Button look="quiet" onClick={onDone}>
          Cancel
        </Button>
      </p>
    </form>
  );
}

const splitWords = (text: string) =>
  text
    .split(",")
    .map((part) => part.trim())
    .filter((part) => part !== "");
