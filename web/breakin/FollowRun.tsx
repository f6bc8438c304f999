import { useEffect, useRef } from "react";
import { formatWhole } from "../../core/language/index.ts";
import { Button } from "../ui/Button.tsx";
import { useReader, useTell } from "../ui/tell.ts";
import { type Following, findLeg, type LaneLegs, signalChange, useNow, useScreenOn } from "./useFollow.ts";

const two = (n: number) => String(n).padStart(2, "0");
const formatLeft = (s: number) => `${Math.floor(Math.ceil(s) / 60)}:${two(Math.ceil(s) % 60)}`;

interface FollowProps {
  readonly following: Following;
  readonly onChange: (following: Following) => void;
  /** Ended, by itself or by hand: how far into its legs. */
  readonly onEnd: (ranS: number) => void;
}

/** The run as one follows it from the helm seat: the speed now, how long still, what comes next. Works without signal. */
export function FollowRun({ following, onChange, onEnd }: FollowProps) {
  const tell = useTell();
  const now = useNow();
  const { lanes, startedAtMs, pausedAtMs } = following;
  const atS = Math.max(0, ((pausedAtMs ?? now) - startedAtMs) / 1000);
  const here = lanes.map(({ legs }) => findLeg(legs, atS));
  const isDone = here.every((leg) => leg === null);
  /** Which leg each engine is at: whenever it is another, the speed changes. */
  const place = here.map((leg) => leg?.index ?? "end").join(" ");
  const lastPlace = useRef<string | null>(null);
  useScreenOn(pausedAtMs === null && !isDone);
  useEffect(() => {
    if (lastPlace.current !== null && lastPlace.current !== place) signalChange();
    lastPlace.current = place;
  }, [place]);
  // Until the next change of any engine; none when only the last legs are left.
  const changes = here.flatMap((leg, i) => (leg !== null && leg.index + 1 < lanes[i]!.legs.length ? [leg.leftS] : []));
  const nextS = changes.length === 0 ? null : Math.min(...changes);
  return (
    <section
      role="dialog"
      aria-modal="true"
      aria-label={tell("The run now")}
      className="fixed inset-0 z-40 flex flex-col overflow-y-auto bg-sheet px-5 py-4"
    >
      <p className="border-l-4 border-oncaution bg-caution px-3 py-2 text-lg text-oncaution">
        {tell(
          "One steers and keeps the lookout, another reads this. Speed limits, wakes and swimmers come before the plan.",
        )}
      </p>
      {isDone ? (
        <p className="my-auto text-center text-4xl font-extrabold">
          {tell("The run is done. Switch off when it has idled.")}
        </p>
      ) : (
        <div
          className="my-auto grid items-end gap-x-4"
          style={{ gridTemplateColumns: `repeat(${lanes.length}, minmax(0, 1fr))` }}
        >
          {lanes.map((lane, i) => (
            <LaneNow key={lane.label} lane={lane} here={here[i]!} isOneOf={lanes.length > 1} />
          ))}
        </div>
      )}
      <div className="mt-auto grid grid-cols-3 gap-3 pt-4">
        {!isDone && (
          <>
            <Button
              className="min-h-16 text-lg"
              onClick={() =>
                onChange(
                  pausedAtMs === null
                    ? { ...following, pausedAtMs: now }
                    : { ...following, pausedAtMs: null, startedAtMs: startedAtMs + (now - pausedAtMs) },
                )
              }
            >
              {tell(pausedAtMs === null ? "Wait" : "Go on")}
            </Button>
            <Button
              className="min-h-16 text-lg"
              disabled={nextS === null}
              onClick={() => {
                const skip = nextS ?? 0;
                onChange({
                  ...following,
                  startedAtMs: startedAtMs - skip * 1000,
                  skipped: [...following.skipped, [atS, atS + skip]],
                });
              }}
            >
              {tell("Next speed")}
            </Button>
          </>
        )}
        <Button
          look={isDone ? "primary" : "plain"}
          className="min-h-16 text-lg last:col-start-3"
          onClick={() => onEnd(atS)}
        >
          {tell(isDone ? "Save" : "End here")}
        </Button>
      </div>
    </section>
  );
}

interface LaneProps {
  readonly lane: LaneLegs;
  readonly here: { readonly index: number; readonly leftS: number } | null;
  readonly isOneOf: boolean;
}

/** One engine, or a pair: its speed now, large. */
function LaneNow({ lane: { label, legs }, here, isOneOf }: LaneProps) {
  const { tell, language } = useReader();
  if (here === null) return <p className="text-center text-2xl font-bold">{tell("{0}: done.", tell.label(label))}</p>;
  const next = legs[here.index + 1];
  return (
    <div className="text-center" aria-live="assertive">
      {isOneOf && <p className="text-xl font-bold sm:text-2xl">{tell.label(label)}</p>}
      <p
        className={`head num leading-none font-extrabold ${isOneOf ? "text-[clamp(54px,11vw,150px)]" : "text-[clamp(72px,22vw,190px)]"}`}
      >
        {formatWhole(legs[here.index]!.rpm, language)}
      </p>
      <p className="text-2xl text-soft">{tell("rpm, about")}</p>
      <p
        className={`num mt-4 leading-none font-bold ${isOneOf ? "text-[clamp(36px,7vw,80px)]" : "text-[clamp(44px,11vw,90px)]"}`}
      >
        {formatLeft(here.leftS)}
      </p>
      <p className="mt-4 text-2xl">
        {next === undefined
          ? tell("Then it is done.")
          : tell("Then {0} rpm for {1}.", formatWhole(next.rpm, language), formatMinutesShort(next.minutes))}
      </p>
      <p className="mt-1 text-lg text-soft">{tell("Leg {0} of {1}", here.index + 1, legs.length)}</p>
    </div>
  );
}

export const formatMinutesShort = (minutes: number) => {
  const s = Math.round(minutes * 60);
  if (s < 60) return `${s} s`;
  return s % 60 === 0 ? `${s / 60} min` : `${Math.floor(s / 60)} min ${s % 60} s`;
};
