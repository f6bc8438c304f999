import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link } from "react-router";
import type { CallList, CareLine } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { careQuery } from "../../app/queries.ts";
import { formatDue, formatRange } from "../../ui/DueDay.tsx";
import { EmptySheet } from "../../ui/EmptySheet.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { afterComma, count, formatDay, formatDayAndYear, formatDistance } from "../../ui/words.ts";
import { AftercareTabs } from "./AftercareTabs.tsx";
import { CallSheet } from "./CallSheet.tsx";
import { OurWords } from "./OurWords.tsx";

/** The call list of this week: what matters most at the top, with one touch to write, ring or book. */
export function CareScreen() {
  const query = useQuery(careQuery);
  return (
    <Fetched query={query} what="the call list">
      {(data) => <CallListOf list={data} />}
    </Fetched>
  );
}

function CallListOf({ list }: { list: CallList }) {
  const { lines, linesInAll, boats, date, jobs } = list;
  const { line, isGone, pick } = usePicked(lines);
  const sheet = useRef<HTMLDivElement>(null);
  // On a phone the sheet stands below the list: it comes into sight.
  const show = (each: CareLine) => {
    pick(each);
    requestAnimationFrame(() => sheet.current?.scrollIntoView({ block: "nearest" }));
  };
  return (
    <main className="px-4 pt-3 pb-10 md:px-8">
      <AftercareTabs />
      <h1 className="flex flex-wrap items-baseline gap-x-4 text-2xl font-bold">
        Call list
        <span className="font-text text-base font-normal text-soft">
          {lines.length === 0
            ? `nobody, of ${count(boats, "boat", "boats")}`
            : `${linesInAll} of ${count(boats, "boat", "boats")}, what matters most first${linesInAll > lines.length ? `; the first ${lines.length} are listed` : ""}`}
        </span>
      </h1>
      <FailedJobs jobs={jobs} />
      {line === undefined ? (
        <EmptySheet>
          Nobody needs you this week. Boats with a service or break-in coming up, an open promise, or no hours reported
          for a long time appear here.
        </EmptySheet>
      ) : (
        <div className="mt-3 grid gap-x-8 gap-y-6 lg:grid-cols-[1fr_minmax(380px,40%)]">
          <div role="group" aria-label="Boats on the call list" className="space-y-6">
            {groupLines(lines, date).map(({ title, says, lines: theirs }) => (
              <section key={title} aria-label={title}>
                <h2 className="text-lg font-bold">
                  {title} <span className="num font-normal text-soft">{theirs.length}</span>
                </h2>
                <p className="text-sm text-soft">{says}</p>
                <ul aria-label={`Boats: ${title}`} className="mt-1 border-t border-ink">
                  {theirs.map((each) => (
                    <CareRow
                      key={each.boat}
                      line={each}
                      today={date}
                      isPicked={each.boat === line.boat}
                      onPick={() => show(each)}
                    />
                  ))}
                </ul>
              </section>
            ))}
          </div>
          <div ref={sheet} className="scroll-mt-4 lg:sticky lg:top-4 lg:self-start">
            {isGone && (
              <p className="border-l-4 border-helm pl-3" role="status">
                Nothing is open with {line.buyers} any more. They stay here until you choose the next.
              </p>
            )}
            <CallSheet key={line.boat} line={line} list={list} />
            <Jobs jobs={jobs} />
            <OurWords templates={list.templates} />
          </div>
        </div>
      )}
    </main>
  );
}

/** Whose sheet is open: only a touch changes it, whatever news the list brings. */
function usePicked(lines: readonly CareLine[]) {
  const [picked, setPicked] = useState<CareLine | null>(lines[0] ?? null);
  if (picked === null && lines[0] !== undefined) setPicked(lines[0]);
  const now = lines.find(({ boat }) => boat === picked?.boat);
  if (now !== undefined && now !== picked) setPicked(now);
  return { line: now ?? picked ?? undefined, isGone: picked !== null && now === undefined, pick: setPicked };
}

/** What is due this week, apart from where only hours are missing and from those who asked to be called later. */
function groupLines(lines: readonly CareLine[], today: LocalDate) {
  const groupOf = ({ reasons }: CareLine) => {
    if (reasons.every(({ reason, date }) => reason === "call-back" && date > today)) return "later";
    return reasons.every(({ reason }) => reason === "no-hours") ? "hours" : "week";
  };
  return groups
    .map((group) => ({ ...group, lines: lines.filter((line) => groupOf(line) === group.id) }))
    .filter((group) => group.lines.length > 0);
}

const groups = [
  { id: "week", title: "This week", says: "What they ask, what falls due, what was promised; the weightiest first." },
  { id: "hours", title: "Only hours are missing", says: "Nothing is due. Ask what the meter shows when it suits." },
  { id: "later", title: "Call back later", says: "They named a day. Until then they are not on the list." },
] as const;

interface RowProps {
  readonly line: CareLine;
  readonly today: LocalDate;
  readonly isPicked: boolean;
  readonly onPick: () => void;
}

/** Of these the day is what matters. */
const isDated = (reason: CareLine["reasons"][number]["reason"]) =>
  reason === "service" || reason === "break-in-ends" || reason === "call-back";

const stateWords = {
  waiting: "waits for morning",
  ready: "ready to be sent",
  sent: "sent",
  delivered: "delivered",
  failed: "▲ failed",
  answered: "answered",
  stopped: "not sent: they want no messages",
};

function CareRow({ line, today, isPicked, onPick }: RowProps) {
  const [first, ...more] = line.reasons;
  const { lastMessage } = line;
  return (
    <li className={`border-b border-rule ${isPicked ? "bg-shoal" : ""}`}>
      <button
        type="button"
        aria-pressed={isPicked}
        onClick={onPick}
        className="grid w-full gap-x-4 px-2 py-2 text-left md:grid-cols-[minmax(0,1fr)_150px]"
      >
        <span className="min-w-0">
          <span className={`block font-semibold ${first!.isOverdue ? "text-magenta" : ""}`}>
            {first!.isOverdue ? "▲ " : ""}
            {first!.says}{" "}
            <span className="num font-normal text-soft">
              {isDated(first!.reason)
                ? first!.isAnyDay
                  ? formatDue(first!)
                  : `${formatDayAndYear(first!.date)}, ${formatDistance(first!.date, today)}`
                : ""}
              {first!.range !== null && <span className="text-sm"> ({formatRange(first!.range)})</span>}
            </span>
          </span>
          {more.map(({ reason, says }) => (
            <span key={reason + says} className="block text-sm text-soft">
              {says}
            </span>
          ))}
          <span className="block break-words">
            {line.boatName} <span className="text-soft">{line.serial}</span>
            {afterComma(line.buyers)}
          </span>
        </span>
        <span className="text-sm text-soft md:text-right">
          {line.reportedH !== null && (
            <span className="num block">
              <strong className="text-ink">{line.reportedH.toFixed(1)} h</strong> reported
              {line.likelyNowH !== null && line.likelyNowH > line.reportedH + 0.5
                ? `, ${line.likelyNowH.toFixed(0)} likely`
                : ""}
            </span>
          )}
          {lastMessage !== null && (
            <span className="block">
              {lastMessage.kind === "call" ? "rung" : stateWords[lastMessage.state]}{" "}
              {formatDay(storeDay(lastMessage.at))}
            </span>
          )}
          {line.booking !== null && <span className="block text-ink">booked {formatDay(line.booking.date)}</span>}
        </span>
      </button>
    </li>
  );
}

/** What the server was to do by itself and could not: said where whoever can do it by hand looks. */
function FailedJobs({ jobs }: { jobs: CallList["jobs"] }) {
  const failed = jobs.filter(({ state }) => state === "failed");
  if (failed.length === 0) return null;
  return (
    <ul aria-label="Automatic, and failed" className="mt-3 border-l-4 border-magenta pl-3">
      {failed.map(({ id, kind, boat, boatName, tries, note }) => (
        <li key={id} className="text-magenta">
          ▲{" "}
          <Link to={`/boats/${boat}`} className="underline">
            {boatName}
          </Link>
          : the server {jobWords[kind] ?? kind}, and could not in {tries} tries: {note}. Do it by hand.
        </li>
      ))}
    </ul>
  );
}

const jobWords: Record<string, string> = {
  hello: "asks how it goes",
  "break-in-end": "asks for hours at the end of break-in",
};

/** What the server does by itself: planned and done. */
function Jobs({ jobs }: { jobs: CallList["jobs"] }) {
  const waiting = jobs.filter(({ state }) => state !== "done");
  if (jobs.length === 0) return null;
  return (
    <details className="mt-6">
      <summary className="min-h-11 cursor-pointer font-semibold">
        Automatic messages: {waiting.length} planned, {jobs.length - waiting.length} done
      </summary>
      <ul className="border-t border-ink">
        {jobs.map(({ id, kind, boat, boatName, dueAt, state, tries, note }) => (
          <li key={id} className="border-b border-rule py-1.5">
            <Link to={`/boats/${boat}`} className="underline">
              {boatName}
            </Link>
            : {jobWords[kind] ?? kind}, <span className="num">{formatDayAndYear(storeDay(dueAt))}</span>{" "}
            <span className={state === "failed" ? "text-magenta" : "text-soft"}>
              {state === "failed" ? `▲ failed after ${tries} tries: ${note}` : state === "done" ? note : "planned"}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
