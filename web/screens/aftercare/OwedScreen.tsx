import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { OwedLine, OwedSheet } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { owedQuery, queryClient } from "../../app/queries.ts";
import { ReadyMessage } from "../../care/ReadyMessage.tsx";
import { syncQueue } from "../../offline/useSync.ts";
import { OwedRow } from "../../owed/OwedRow.tsx";
import { Button } from "../../ui/Button.tsx";
import { DateInput } from "../../ui/DateInput.tsx";
import { EmptySheet } from "../../ui/EmptySheet.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { formatDay, formatDistance } from "../../ui/words.ts";
import { AftercareTabs } from "./AftercareTabs.tsx";

/** Everything owed to buyers, over all boats: overdue first, each with its age, owner and day. */
export function OwedScreen() {
  const owed = useQuery(owedQuery);
  useEffect(() => syncQueue.onSent(() => void queryClient.invalidateQueries({ queryKey: owedQuery.queryKey })), []);
  return (
    <Fetched query={owed} what="what is owed">
      {(data) => <OwedOf sheet={data} />}
    </Fetched>
  );
}

const everybody = "";
const nobody = "nobody yet";

function OwedOf({ sheet }: { sheet: OwedSheet }) {
  const [owner, setOwner] = useState(everybody);
  const { lines, date, staff } = sheet;
  const isLate = ({ due }: OwedLine) => due !== null && due < date;
  const mine = lines.filter((line) => owner === everybody || (line.owner ?? nobody) === owner);
  const late = mine.filter(isLate);
  const rest = mine.filter((line) => !isLate(line));
  const owners = [...new Set(lines.map((line) => line.owner ?? nobody))].sort();
  return (
    <main className="px-4 pt-3 pb-10 md:px-8">
      <AftercareTabs />
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="flex flex-wrap items-baseline gap-x-4 text-2xl font-bold">
          Owed to buyers
          <span className="font-text text-base font-normal text-soft">
            {lines.length} things, {lines.filter(isLate).length} overdue,{" "}
            {lines.filter((line) => line.owner === null).length} assigned to nobody
          </span>
        </h1>
        <label className="flex items-center gap-2 text-soft">
          Who fixes it
          <select
            value={owner}
            onChange={(event) => setOwner(event.target.value)}
            className="min-h-11 rounded-md border border-soft bg-panel px-2 text-ink"
          >
            <option value={everybody}>everybody's</option>
            {owners.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
      </div>
      {lines.length === 0 && (
        <EmptySheet>
          Nothing is owed. Snags, promises, gear that was short and what was put off in a walk appear here.
        </EmptySheet>
      )}
      {late.length > 0 && <Group name="Overdue" lines={late} date={date} staff={staff} isLate />}
      {rest.length > 0 && <Group name="The rest, most pressing first" lines={rest} date={date} staff={staff} />}
    </main>
  );
}

interface GroupProps {
  readonly name: string;
  readonly lines: readonly OwedLine[];
  readonly date: LocalDate;
  readonly staff: OwedSheet["staff"];
  readonly isLate?: boolean;
}

function Group({ name, lines, date, staff, isLate = false }: GroupProps) {
  return (
    <section aria-label={name} className="mt-6">
      <h2 className={`border-b border-ink text-lg font-bold ${isLate ? "text-magenta" : ""}`}>
        {isLate ? `▲ ${name}` : name}
      </h2>
      <ul>
        {lines.map((line) => (
          <Line key={line.ref} line={line} date={date} staff={staff} />
        ))}
      </ul>
    </section>
  );
}

function Line({ line, date, staff }: { line: OwedLine; date: LocalDate; staff: OwedSheet["staff"] }) {
  const [isOpen, setOpen] = useState(false);
  const { ref, delivery, boat, boatName, serial, buyers, since, owner, due } = line;
  const assign = (change: { owner?: string | null; due?: LocalDate | null }) =>
    void syncQueue.add(delivery, { kind: "assign", ref, owner, due, ...change });
  return (
    <OwedRow delivery={delivery} owed={line}>
      <p className="flex flex-wrap items-center gap-x-4 text-sm">
        <Link className="inline-flex min-h-11 items-center underline" to={`/boats/${boat}`}>
          {boatName} <span className="ml-1 text-soft">#{serial}</span>
        </Link>
        <span className="text-soft">{buyers}</span>
        <span className="num text-soft" title={formatDay(since)}>
          since {formatDistance(since, date)}
        </span>
        <button
          type="button"
          aria-expanded={isOpen}
          aria-label={`Who fixes it, by when, message to the buyer: ${line.text}`}
          className="min-h-11 font-text underline"
          onClick={() => setOpen(!isOpen)}
        >
          Who fixes it, by when, message
        </button>
      </p>
      {line.message?.state === "ready" && (
        <ReadyMessage
          boat={boat}
          message={line.message}
          onSent={() => queryClient.invalidateQueries({ queryKey: owedQuery.queryKey })}
        />
      )}
      {isOpen && (
        <div className="mb-2 flex flex-wrap items-center gap-x-5 gap-y-2 border-l-4 border-helm pl-4">
          <label className="flex items-center gap-2">
            <span className="text-soft">Who fixes it</span>
            <select
              value={owner ?? ""}
              onChange={(event) => assign({ owner: event.target.value === "" ? null : event.target.value })}
              className="min-h-11 rounded-md border border-soft bg-panel px-2"
            >
              <option value="">nobody yet</option>
              {owner !== null && !staff.some(({ name }) => name === owner) && <option>{owner}</option>}
              {staff.map(({ id, name }) => (
                <option key={id}>{name}</option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2">
            <span className="text-soft">promised for</span>
            <DateInput
              value={due}
              onDate={(chosen) => assign({ due: chosen })}
              className="num min-h-11 rounded-md border border-soft bg-panel px-2"
            />
          </label>
          <Tell line={line} date={date} onDone={() => setOpen(false)} />
        </div>
      )}
    </OwedRow>
  );
}

/** A message to the buyer about it, in words that stand ready and can be changed. */
function Tell({ line, date, onDone }: { line: OwedLine; date: LocalDate; onDone: () => void }) {
  const due =
    line.due === null
      ? "We will tell you the day as soon as we know it."
      : line.due < date
        ? `It was promised for ${formatDay(line.due)} and is late. We will tell you the new day.`
        : `It is to be done by ${formatDay(line.due)}.`;
  const [text, setText] = useState(`About your ${line.boatName}: ${line.text}. ${due}`.slice(0, 1000));
  return (
    <form
      className="flex basis-full flex-wrap gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() === "") return;
        void syncQueue.add(line.delivery, { kind: "tell", ref: line.ref, text: text.trim() });
        onDone();
      }}
    >
      <textarea
        aria-label={`Message to ${line.buyers}`}
        rows={2}
        value={text}
        maxLength={1000}
        onChange={(event) => setText(readPlain(event))}
        className="min-w-0 flex-1 basis-80 rounded-md border border-soft bg-panel px-3 py-2"
      />
      <Button type="submit">Send to the buyer</Button>
    </form>
  );
}
