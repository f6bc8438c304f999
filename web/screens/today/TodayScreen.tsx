import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { Link } from "react-router";
import type { Today } from "../../../api/index.ts";
import { joinWords } from "../../../core/text/index.ts";
import { todayQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { saveOffline } from "../../offline/saved.ts";
import { isPressing, owedSigns } from "../../owed/owedWords.ts";
import { HullSign } from "../../plan/HullSign.tsx";
import { spell } from "../../ui/amounts.ts";
import { linkLook } from "../../ui/Button.tsx";
import { DueDay } from "../../ui/DueDay.tsx";
import { EmptySheet } from "../../ui/EmptySheet.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { formatDay, formatDistance, formatLongDay, formatMinutes, formatTimeOf } from "../../ui/words.ts";
import { BoatRow, Coming } from "./Coming.tsx";
import { NowAndNext } from "./NowAndNext.tsx";

// Not everybody's: fetched by those whose home has them.
const OffCourse = lazy(async () => ({ default: (await import("./CourseAndSlots.tsx")).OffCourse }));
const Slots = lazy(async () => ({ default: (await import("./CourseAndSlots.tsx")).Slots }));

const Waiting = lazy(async () => ({ default: (await import("./Waiting.tsx")).Waiting }));

/** Today's handovers in time order, what is owed, what falls due. The first screen after sign-in. */
export function TodayScreen() {
  const today = useQuery(todayQuery);
  return (
    <Fetched query={today} what="today">
      {(data) => <TodayOf today={data} error={today.error} />}
    </Fetched>
  );
}

function TodayOf({ today, error }: { today: Today; error: Error | null }) {
  const { date, handovers } = today;
  const minutes = handovers.filter(({ state }) => state !== "signed").reduce((sum, { totalMin }) => sum + totalMin, 0);
  return (
    <main className="px-4 pt-5 pb-10 md:px-8">
      <h1 className="flex flex-wrap items-baseline gap-x-4 text-2xl font-bold">
        {formatLongDay(date)}
        <span className="font-text text-base font-normal text-soft">
          {formatCount(handovers.length)}
          {minutes > 0 && `, ${formatMinutes(minutes)} of walking`}
        </span>
      </h1>
      {error !== null && <ErrorNotice error={error} />}
      {today.waiting.length > 0 && (
        <Suspense fallback={null}>
          <Waiting waiting={today.waiting} />
        </Suspense>
      )}
      <Home today={today} />
    </main>
  );
}

/** What each role looks at first stands first; the rest is there for all. */
function Home({ today }: { today: Today }) {
  const { role } = useMe();
  const { handovers, misfits, coming, slots, course, date } = today;
  const handoversToday = (
    <>
      <Handovers handovers={handovers} />
      <Misfits misfits={misfits} />
    </>
  );
  const todaysSlots = (
    <Suspense fallback={null}>
      <Slots slots={slots} />
    </Suspense>
  );
  const isCounter = role === "service";
  const lists = (
    <div className="mt-7 grid gap-x-10 gap-y-8 lg:grid-cols-2">
      <div className={isCounter ? "lg:order-last" : ""}>
        <OwedTable today={today} />
      </div>
      <DueTable today={today} />
    </div>
  );
  switch (role) {
    case "delivery":
      return (
        <>
          <NowAndNext handovers={handovers} date={date} />
          {handoversToday}
          {lists}
          <Coming coming={coming} date={date} />
        </>
      );
    case "technician":
      return (
        <>
          <Coming coming={coming} date={date} />
          {slots.length > 0 && todaysSlots}
          {handoversToday}
          {lists}
        </>
      );
    case "service":
      return (
        <>
          {todaysSlots}
          {lists}
          {handoversToday}
        </>
      );
    case "sales":
      return (
        <>
          {handoversToday}
          <Coming coming={coming} date={date} />
          {lists}
        </>
      );
    case "owner":
      return (
        <>
          {course !== null && (
            <Suspense fallback={null}>
              <OffCourse course={course} />
            </Suspense>
          )}
          {handoversToday}
          {lists}
          <Coming coming={coming} date={date} />
        </>
      );
    default:
      throw new Error(`Home: expected a known role, got ${JSON.stringify(role satisfies never)}`);
  }
}

const numbers = ["no", "one", "two", "three", "four", "five", "six"];
const formatCount = (count: number) => `${numbers[count] ?? count} handover${count === 1 ? "" : "s"}`;

function Handovers({ handovers }: { handovers: Today["handovers"] }) {
  const saved = useSavedOffline(handovers.filter(({ state }) => state !== "signed").map(({ delivery }) => delivery));
  if (handovers.length === 0)
    return (
      <EmptySheet>
        No handover today. The next ones are listed under{" "}
        <Link className="underline" to="/boats">
          Boats
        </Link>
        , the soonest first.
      </EmptySheet>
    );
  // One primary action a screen: the first handover that can still be walked.
  const first = handovers.find(({ state }) => state !== "signed");
  return (
    <ul className="mt-3 border-t border-ink" aria-label="Handovers today">
      {handovers.map((handover) => (
        <HandoverLine
          key={handover.delivery}
          handover={handover}
          isFirst={handover === first}
          isSaved={saved.has(handover.delivery)}
        />
      ))}
    </ul>
  );
}

type Handover = Today["handovers"][number];

const none: ReadonlySet<string> = new Set();

/** Today's walks are saved for offline automatically; which of them are. */
function useSavedOffline(deliveries: readonly string[]): ReadonlySet<string> {
  const [saved, setSaved] = useState(none);
  const key = deliveries.join(" ");
  useEffect(() => {
    let isOver = false;
    void saveOffline(key === "" ? [] : key.split(" ")).then((found) => {
      if (!isOver) setSaved(found);
    });
    return () => {
      isOver = true;
    };
  }, [key]);
  return saved;
}

interface HandoverLineProps {
  readonly handover: Handover;
  readonly isFirst: boolean;
  readonly isSaved: boolean;
}

function HandoverLine({ handover, isFirst, isSaved }: HandoverLineProps) {
  const { delivery, boatName, serial, buyers, state } = handover;
  const time = formatTimeOf(handover.time);
  const [clock, half] = time.split("\u00a0");
  return (
    <li className="grid grid-cols-[84px_1fr_auto] items-center gap-x-4 gap-y-2 border-b border-rule py-3 md:grid-cols-[84px_150px_minmax(0,1.5fr)_minmax(0,1.2fr)_minmax(0,0.9fr)_72px_152px]">
      <p className="num text-2xl font-bold whitespace-nowrap">
        {clock} <span className="text-sm font-normal">{half}</span>
      </p>
      <div className="hidden md:block">
        <HullSign {...handover} />
      </div>
      <div className="min-w-0">
        <h2 className="text-lg font-bold">
          {boatName} <span className="font-medium text-soft">#{serial}</span>
        </h2>
        <p className="text-soft break-words">{buyers}</p>
        {/* Its line is kept free, so that nothing moves under a finger when it comes. */}
        <p className="min-h-5 text-sm text-soft">{isSaved && "saved on this tablet"}</p>
      </div>
      <div className="col-span-3 min-w-0 md:col-span-1">
        <Readiness handover={handover} />
      </div>
      <div className="col-span-2 min-w-0 md:col-span-1">
        <p>{handover.style}</p>
        <p className="text-soft">
          {handover.stops} stops, {handover.moves} moves
        </p>
      </div>
      <p className="num text-right font-bold whitespace-nowrap">
        {Math.round(handover.totalMin)}
        <span className="font-normal text-soft"> min</span>
      </p>
      <div className="col-span-3 text-right md:col-span-1">
        {state === "signed" ? (
          <Link
            className="head inline-flex min-h-11 items-center font-semibold underline"
            to={`/deliveries/${delivery}/record`}
          >
            Record
          </Link>
        ) : (
          <Link
            className={isFirst ? linkLook("primary") : "head inline-flex min-h-11 items-center font-semibold underline"}
            to={`/deliveries/${delivery}`}
            aria-label={`${state === "walking" ? "Go on with" : "Open"} ${boatName} at ${time}`}
          >
            {state === "walking" ? "Go on" : isFirst ? "Open the plan" : "Open"}
          </Link>
        )}
      </div>
    </li>
  );
}

function Readiness({ handover }: { handover: Handover }) {
  const { state, stopping, readyDone, readyOf, readyOpen, mustsOf, mustsOpen } = handover;
  if (state === "signed") return <p>Signed and sealed</p>;
  if (stopping[0] !== undefined)
    return (
      <>
        <p className="text-magenta">▲ {stopping[0]}</p>
        <p className="text-soft">stops the handover</p>
      </>
    );
  if (readyOpen[0] !== undefined)
    return (
      <>
        <p className="text-amber">◷ Open: {readyOpen[0]}</p>
        <p className="text-soft">
          {readyDone} of {readyOf} make-ready
        </p>
      </>
    );
  return (
    <>
      <p>Made ready</p>
      <p className="text-soft">
        {state === "walking" ? `${mustsOf - mustsOpen} of ${mustsOf} must-do topics done` : `${mustsOf} must-do topics`}
      </p>
    </>
  );
}

/** Buyers who would come with a car that cannot take the boat: said while there is time to get the right ball. */
function Misfits({ misfits }: Pick<Today, "misfits">) {
  if (misfits.length === 0) return null;
  return (
    <section aria-labelledby="misfits" className="mt-7">
      <h2 id="misfits" className="text-lg font-bold">
        Cannot be towed home yet
      </h2>
      <ul className="border-t border-ink">
        {misfits.map(({ delivery, date, car, says, ...line }) => (
          <BoatRow key={delivery} when={formatDay(date)} line={line} to="/tow">
            <span className="text-magenta">
              ▲ {car}: {joinWords(says.map((each) => spell(each).toLowerCase()))}
            </span>
          </BoatRow>
        ))}
      </ul>
    </section>
  );
}

function OwedTable({ today: { owed, owedInAll, date } }: { today: Today }) {
  return (
    <section aria-labelledby="owed">
      <h2 id="owed" className="text-lg font-bold">
        Owed to buyers{" "}
        {owedInAll > owed.length && (
          <span className="font-text text-sm text-soft">
            the first {owed.length} of {owedInAll}
          </span>
        )}
      </h2>
      {owed.length === 0 ? (
        <p className="border-t border-ink py-3 text-soft">Nothing is owed. What is put off in a walk appears here.</p>
      ) : (
        <div className="relative overflow-x-auto">
          <table className="w-full">
            <thead>
              <tr className="border-b border-ink">
                <th className="py-1">What</th>
                <th>Boat</th>
                <th className="text-right">Promised</th>
              </tr>
            </thead>
            <tbody>
              {owed.map(({ ref, what, text, boatName, serial, boat, since, severity, due }) => (
                <tr key={ref} className="border-b border-rule align-top">
                  <td className="py-2.5 pr-3">
                    <span aria-hidden className={isPressing(what, severity) ? "text-magenta" : ""}>
                      {owedSigns[what]}
                    </span>{" "}
                    {text}
                  </td>
                  <td className="py-2.5 pr-3 md:whitespace-nowrap">
                    <Link className="underline" to={`/boats/${boat}`}>
                      {boatName} <span className="text-soft">#{serial}</span>
                    </Link>
                  </td>
                  <td className="num py-2.5 text-right font-semibold md:whitespace-nowrap">
                    {due === null ? (
                      <span className="font-normal text-soft">since {formatDistance(since, date)}</span>
                    ) : due < date ? (
                      <span className="text-magenta">▲ {formatDistance(due, date)}</span>
                    ) : (
                      formatDay(due)
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <Link to="/aftercare/owed" className="head inline-flex min-h-11 items-center font-semibold underline">
        Everything owed to buyers
      </Link>
    </section>
  );
}

function DueTable({ today: { due, dueInAll, date } }: { today: Today }) {
  return (
    <section aria-labelledby="due">
      <h2 id="due" className="text-lg font-bold">
        Falls due{" "}
        <span className="font-text text-sm font-normal text-soft">
          next 30 days{dueInAll > due.length && `, the first ${due.length} of ${dueInAll} boats`}
        </span>
      </h2>
      {due.length === 0 ? (
        <p className="border-t border-ink py-3 text-soft">
          Nothing falls due. Boats appear here when a service date is near; hours reported on the boat's page move it.
        </p>
      ) : (
        <div className="relative overflow-x-auto">
          <table className="w-full">
            <thead>
              <tr className="border-b border-ink">
                <th className="py-1">Boat</th>
                <th>What</th>
                <th className="text-right">Hours, likely</th>
                <th className="text-right">Due</th>
              </tr>
            </thead>
            <tbody>
              {due.map((line) => (
                <tr key={`${line.boat}-${line.engine}`} className="border-b border-rule align-top">
                  <td className="py-2.5 pr-3 md:whitespace-nowrap">
                    <Link className="underline" to={`/boats/${line.boat}`}>
                      {line.boatName} <span className="text-soft">#{line.serial}</span>
                    </Link>
                  </td>
                  <td className="py-2.5 pr-3">
                    {line.title} <span className="text-soft">{line.engine.toLowerCase()}</span>
                  </td>
                  <td className="num py-2.5 pr-3 text-right font-semibold md:whitespace-nowrap">
                    {line.likelyNowH.toFixed(1)}
                    {line.due.targetH !== null && (
                      <span className="font-normal text-soft"> of {line.due.targetH} h</span>
                    )}
                  </td>
                  <td className="num py-2.5 text-right font-semibold md:whitespace-nowrap">
                    <DueDay
                      day={{ ...line.due, date: line.due.dueDate }}
                      isOverdue={line.due.state === "overdue"}
                      today={date}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
