import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Today } from "../../../api/index.ts";
import { fromClock } from "../../../core/dates/index.ts";
import { storeDay, storeMinutes } from "../../ui/storeTime.ts";
import { formatMinutes, formatTime, formatTimeOf } from "../../ui/words.ts";

type Handover = Today["handovers"][number];

/** Before the buyer: to look over the boat and clear the way to it. Our choice. */
const aheadMin = 15;

/** What is under way and what comes next, with when to be there; what is late says by how much. */
export function NowAndNext({ handovers, date }: Pick<Today, "handovers" | "date">) {
  const nowMin = useMinute();
  // Yesterday's list, kept where there is no signal, has no now.
  if (date !== storeDay(Date.now())) return null;
  const walking = handovers.filter(({ state }) => state === "walking");
  const next = handovers.find(({ state }) => state === "planned");
  if (walking.length === 0 && next === undefined) return null;
  return (
    <section aria-label="Now and next" className="mt-3 border-l-[7px] border-ink pl-4">
      {walking.map((handover) => (
        <p key={handover.delivery} className="text-lg">
          <strong>Now:</strong> <To handover={handover} />
          {sayOver(handover, nowMin)}
        </p>
      ))}
      {next !== undefined && (
        <p className="text-lg">
          <strong>Next:</strong> <To handover={next} />
          {sayNext(next, nowMin)}
        </p>
      )}
    </section>
  );
}

function To({ handover: { delivery, boatName, serial, time } }: { handover: Handover }) {
  return (
    <Link to={`/deliveries/${delivery}`} className="underline">
      {boatName} #{serial}, {formatTimeOf(time)}
    </Link>
  );
}

function sayOver({ time, totalMin }: Handover, nowMin: number) {
  const endMin = fromClock(time) + Math.round(totalMin);
  const over = nowMin - endMin;
  return over > 0 ? (
    <span className="text-magenta"> ▲ {formatMinutes(over)} over its time</span>
  ) : (
    <span className="num"> until about {formatTime(endMin)}</span>
  );
}

function sayNext({ time }: Handover, nowMin: number) {
  const late = nowMin - fromClock(time);
  if (late > 0) return <span className="text-magenta"> ▲ {formatMinutes(late)} late, not begun</span>;
  const leaveMin = fromClock(time) - aheadMin;
  return nowMin >= leaveMin ? (
    <strong>: go now</strong>
  ) : (
    <span className="num">
      : be at the boat by {formatTime(leaveMin)}, in {formatMinutes(leaveMin - nowMin)}
    </span>
  );
}

/** The minute of the day at the store, kept going. */
function useMinute(): number {
  const [nowMin, setNowMin] = useState(() => storeMinutes(Date.now()));
  useEffect(() => {
    const timer = setInterval(() => setNowMin(storeMinutes(Date.now())), 20_000);
    return () => clearInterval(timer);
  }, []);
  return nowMin;
}
