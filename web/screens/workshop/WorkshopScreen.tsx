import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { WorkshopSheet } from "../../../api/index.ts";
import { isOneOf, mechanics } from "../../../api/roles.ts";
import { addDays, type LocalDate } from "../../../core/dates/index.ts";
import { formatFirstNames } from "../../../core/walk/index.ts";
import { capacityOfDay, startOfWeek } from "../../../core/workshop/index.ts";
import { ask } from "../../app/client.ts";
import { careQuery, queryClient, workshopQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { BookForm } from "../../booking/BookForm.tsx";
import { Button, linkLook } from "../../ui/Button.tsx";
import { formatDue, formatRange } from "../../ui/DueDay.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fillFalls, fillTemplate } from "../../ui/fillTemplate.ts";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { storeRegion } from "../../ui/storeTime.ts";
import { useIds } from "../../ui/useIds.ts";
import { afterComma, formatDay, formatDayAndYear, formatTime } from "../../ui/words.ts";
import { DonePad } from "./DonePad.tsx";
import { HoursOfWork } from "./HoursOfWork.tsx";
import { LoadChart } from "./LoadChart.tsx";
import { refreshWorkshop } from "./refreshWorkshop.ts";
import { WeekMakers } from "./WeekMakers.tsx";

/** The workshop's year at a glance, whom to offer an earlier slot, and the slots of a week. */
export function WorkshopScreen() {
  const sheet = useQuery(workshopQuery);
  return (
    <Fetched query={sheet} what="the workshop">
      {(data) => <Workshop sheet={data} />}
    </Fetched>
  );
}

/** What the year looks like, in one sentence. */
export function formatLoad({ weeks }: Pick<WorkshopSheet, "weeks">): string {
  const over = weeks.filter(({ expectedH, capacityH }) => expectedH > capacityH);
  const peak = weeks.reduce((most, week) => (week.expectedH > most.expectedH ? week : most), weeks[0]!);
  const most = `The most is expected in the week of ${formatDay(peak.begins)}: ${Math.round(peak.expectedH)} h of ${Math.round(peak.capacityH)} h.`;
  if (over.length === 0) return `Every week has room. ${most}`;
  return `${over.length === 1 ? "One week has" : `${over.length} weeks have`} more than the workshop can do. ${most}`;
}

function Workshop({ sheet }: { sheet: WorkshopSheet }) {
  const { weeks, offers, date } = sheet;
  const [begins, setBegins] = useState(startOfWeek(date, storeRegion().weekStart));
  const byWeek = [...new Set(offers.map(({ fromWeek }) => fromWeek))];
  return (
    <main className="px-4 pt-5 pb-10 md:px-8">
      <h1 className="flex flex-wrap items-baseline gap-x-4 text-2xl font-bold">
        Workshop
        <span className="font-text text-base font-normal text-soft">
          expected hours of work a week, from {sheet.engines} engines and what is booked
        </span>
      </h1>
      <p className="mt-1 text-lg" data-testid="load-says">
        {formatLoad(sheet)}
      </p>
      <LoadChart weeks={weeks} picked={begins} onPick={setBegins} />
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-7 lg:grid-cols-2">
        <Week sheet={sheet} begins={begins} onWeek={setBegins} />
        <section aria-labelledby="offers">
          <h2 id="offers" className="text-lg font-bold">
            Offer an earlier slot{" "}
            <span className="font-text text-sm font-normal text-soft">
              {offers.length === 0 ? "" : `${offers.length} boats would flatten the peaks`}
            </span>
          </h2>
          <div className="border-t border-ink">
            {offers.length === 0 && (
              <p className="py-2 text-soft">
                No week is too full. When one is, those who can come earlier within their service's time stand here.
              </p>
            )}
            {byWeek.map((from) => (
              <div key={from}>
                <h3 className="pt-2 font-semibold">From the week of {formatDayAndYear(from)}</h3>
                <ul>
                  {offers
                    .filter(({ fromWeek }) => fromWeek === from)
                    .map((offer) => (
                      <OfferRow key={`${offer.boat}${offer.fromWeek}`} offer={offer} />
                    ))}
                </ul>
              </div>
            ))}
          </div>
        </section>
      </div>
      <HoursOfWork sheet={sheet} />
      <Feeds />
    </main>
  );
}

function OfferRow({ offer }: { offer: WorkshopSheet["offers"][number] }) {
  const [isBooking, setBooking] = useState(false);
  const [text, setText] = useState<string | null>(null);
  const [isOffered, setOffered] = useState(false);
  const { boat, boatName, serial, buyers, items, labourH, dueDate, range, isAnyDay, toWeek } = offer;
  const due = { date: dueDate, range, isAnyDay };
  const title = [...new Set(items.map((item) => item.title))].join(", ");
  const care = useQuery({ ...careQuery, enabled: false });
  const idOf = useIds();
  const me = useMe();
  const draft = useMutation({
    mutationFn: async () => {
      const { templates, store, phone } = care.data ?? (await queryClient.fetchQuery(careQuery));
      const names: Record<string, string> = {
        buyers: formatFirstNames(buyers),
        store,
        phone,
        boat: `your ${boatName}`,
        item: title.toLowerCase(),
        ...fillFalls(due, false),
        week: formatDay(toWeek),
      };
      return fillTemplate(templates.find(({ id }) => id === "earlier")!.text, names);
    },
    onSuccess: setText,
  });
  const write = useMutation({
    mutationFn: (said: string) =>
      ask("sendMessage", { params: { boat }, body: { id: idOf(), kind: "earlier", text: said, withLink: false } }),
    onSuccess: () => {
      setOffered(true);
      setText(null);
    },
  });
  return (
    <li className="border-b border-rule py-1.5">
      <div className="flex flex-wrap items-center gap-x-4">
        <span className="min-w-0 flex-1 break-words">
          <strong>{title}</strong> <span className="num text-soft">{labourH.toFixed(1)} h</span>
          {afterComma(buyers)},{" "}
          <Link to={`/boats/${boat}`} className="underline">
            {boatName} {serial}
          </Link>
          <span className="block text-sm text-soft">
            due {formatDue(due)}
            {range !== null && ` (${formatRange(range)})`}; room in the week of {formatDay(toWeek)}
          </span>
        </span>
        <Button
          disabled={draft.isPending || isOffered}
          aria-label={isOffered ? undefined : `Offer ${boatName} ${serial} a slot`}
          aria-expanded={text !== null}
          onClick={() => (text === null ? draft.mutate() : setText(null))}
        >
          {isOffered ? "Offered" : "Offer it"}
        </Button>
        <Button aria-label={`Book ${boatName} ${serial}`} onClick={() => setBooking(!isBooking)}>
          Book
        </Button>
      </div>
      {draft.error !== null && <ErrorNotice error={draft.error} />}
      {text !== null && (
        <div className="mt-2 border-l-4 border-helm bg-panel px-4 py-3">
          <label className="block text-soft">
            {buyers || "They"} will read
            <textarea
              value={text}
              rows={3}
              maxLength={600}
              onChange={(event) => setText(readPlain(event))}
              className="mt-0.5 w-full rounded-md border border-soft bg-panel px-3 py-2 text-ink"
            />
          </label>
          <p className="mt-2 flex gap-2">
            <Button
              look="primary"
              disabled={write.isPending || text.trim() === ""}
              onClick={() => write.mutate(text.trim())}
            >
              {me.isCarried ? "Send it" : "Make it ready"}
            </Button>
            <Button look="quiet" onClick={() => setText(null)}>
              Cancel
            </Button>
          </p>
        </div>
      )}
      {write.error !== null && <ErrorNotice error={write.error} />}
      {isBooking && (
        <BookForm
          boat={boat}
          date={addDays(toWeek, 1)}
          wanted={items}
          onDone={async () => {
            setBooking(false);
            await refreshWorkshop();
          }}
        />
      )}
    </li>
  );
}

type Slot = WorkshopSheet["bookings"][number];

interface WeekProps {
  readonly sheet: WorkshopSheet;
  readonly begins: LocalDate;
  readonly onWeek: (begins: LocalDate) => void;
}

/** A week day by day: what is booked, against the shop capacity. */
function Week({ sheet, begins, onWeek }: WeekProps) {
  const change = useMutation({
    mutationFn: ({ booking, state }: { booking: Slot; state: Slot["state"] }) => {
      const { id, by: _, boatName: __, serial: ___, buyers: ____, ...rest } = booking;
      return ask("setBooking", { params: { booking: id }, body: { ...rest, state } });
    },
    onSuccess: refreshWorkshop,
  });
  const days = Array.from({ length: 7 }, (_, i) => addDays(begins, i));
  return (
    <section aria-labelledby="week">
      <h2 id="week" className="flex flex-wrap items-center gap-x-4 text-lg font-bold">
        Week of {formatDayAndYear(begins)}
        <span className="font-text text-base font-normal">
          <button type="button" className="min-h-11 px-2 underline" onClick={() => onWeek(addDays(begins, -7))}>
            week before
          </button>
          <button type="button" className="min-h-11 px-2 underline" onClick={() => onWeek(addDays(begins, 7))}>
            week after
          </button>
        </span>
      </h2>
      <ul className="border-t border-ink">
        {days.map((day) => {
          const mine = sheet.bookings.filter((booking) => booking.date === day && booking.state !== "cancelled");
          const capacityH = capacityOfDay(sheet.workshop, day);
          const usedH = mine.reduce((sum, { labourH }) => sum + labourH, 0);
          return (
            <li key={day} className="grid grid-cols-[7rem_minmax(0,1fr)] border-b border-rule py-1.5">
              <span>
                <strong>{formatDay(day)}</strong>
                <span className={`num block text-sm ${usedH > capacityH ? "text-magenta" : "text-soft"}`}>
                  {capacityH === 0 ? "closed" : `${usedH > capacityH ? "▲ " : ""}${usedH.toFixed(1)} of ${capacityH} h`}
                </span>
              </span>
              <ul>
                {mine.map((booking) => (
                  <SlotRow
                    key={booking.id}
                    booking={booking}
                    today={sheet.date}
                    onState={(state) => change.mutate({ booking, state })}
                  />
                ))}
              </ul>
            </li>
          );
        })}
      </ul>
      <WeekMakers begins={begins} week={sheet.weeks.find((each) => each.begins === begins)} />
      {change.data !== undefined && change.variables?.state === "cancelled" && (
        <p role="status" className="py-2">
          Cancelled.{" "}
          <button
            type="button"
            className="min-h-11 underline"
            onClick={() => change.mutate({ booking: change.variables.booking, state: "booked" })}
          >
            Take it back
          </button>
        </p>
      )}
      {change.error !== null && <ErrorNotice error={change.error} />}
    </section>
  );
}

const tables = ["readings", "fills", "services", "runs", "bookings", "messages"] as const;

/** The store's calendar, and everything as tables. */
function Feeds() {
  const make = useMutation({ mutationFn: () => ask("makeFeed") });
  return (
    <section aria-labelledby="out" className="mt-7">
      <h2 id="out" className="text-lg font-bold">
        Export
      </h2>
      <div className="flex flex-wrap items-center gap-2 border-t border-ink pt-2">
        <Button disabled={make.isPending} onClick={() => make.mutate()}>
          Make the store's calendar address
        </Button>
        {tables.map((what) => (
          <a key={what} className={linkLook("plain")} href={`/api/care/${what}.csv`} download={`${what}.csv`}>
            {what} (CSV)
          </a>
        ))}
        <a className={linkLook("plain")} href="/api/care/all.json" download="aftercare.json">
          all of these (JSON)
        </a>
      </div>
      {make.data !== undefined && (
        <p className="mt-2 border-l-4 border-helm pl-3 break-all">
          <span className="text-soft">Copy it now: it cannot be shown again. The earlier one has ended:</span>{" "}
          {window.location.origin}/api/feeds/
          {make.data.token}
        </p>
      )}
      {make.error !== null && <ErrorNotice error={make.error} />}
    </section>
  );
}

interface SlotRowProps {
  readonly booking: Slot;
  readonly today: LocalDate;
  readonly onState: (state: Slot["state"]) => void;
}

function SlotRow({ booking, today, onState }: SlotRowProps) {
  const [isMoving, setMoving] = useState(false);
  const [isDone, setDone] = useState(false);
  const me = useMe();
  return (
    <li className="py-0.5">
      <span className="num">{formatTime(booking.startMin)}</span>{" "}
      <Link to={`/boats/${booking.boat}`} className="font-semibold underline">
        {booking.boatName} {booking.serial}
      </Link>
      {afterComma(booking.buyers)}
      <span className="block text-sm text-soft">
        {booking.items.map(({ title }) => title).join(", ")} <span className="num">{booking.labourH.toFixed(1)} h</span>
        {booking.note !== "" && `. ${booking.note}`}
        {booking.state === "done" && ". Done."}
      </span>
      {booking.state === "booked" && !isDone && (
        <span className="flex flex-wrap gap-x-4 text-sm">
          <button type="button" className="min-h-11 underline" onClick={() => setMoving(true)}>
            Move
          </button>
          <button type="button" className="min-h-11 underline" onClick={() => onState("cancelled")}>
            Cancel the slot
          </button>
          {isOneOf(mechanics, me.role) && (
            <button type="button" className="min-h-11 underline" onClick={() => setDone(true)}>
              Done
            </button>
          )}
        </span>
      )}
      {isDone && <DonePad booking={booking} today={today} onDone={() => setDone(false)} />}
      {isMoving && (
        <BookForm
          boat={booking.boat}
          booking={booking}
          onDone={async () => {
            setMoving(false);
            await refreshWorkshop();
          }}
        />
      )}
    </li>
  );
}
