import { useEffect, useRef } from "react";
import { Button } from "../ui/Button.tsx";
import { type Following, findLeg, signalChange, useNow, useScreenOn } from "./useFollow.ts";

const two = (n: number) => String(n).padStart(2, "0");
const sayLeft = (s: number) => `${Math.floor(Math.ceil(s) / 60)}:${two(Math.ceil(s) % 60)}`;
const rpmWords = (rpm: number) => rpm.toLocaleString("en-GB");

interface FollowProps {
  readonly following: Following;
  readonly onChange: (following: Following) => void;
  /** Ended, by itself or by hand: how many seconds of it were run. */
  readonly onEnd: (ranS: number) => void;
}

/** The run as one follows it from the helm seat: the speed now, how long still, what comes next. Works without signal. */
export function FollowRun({ following, onChange, onEnd }: FollowProps) {
  const now = useNow();
  const { legs, startedAtMs, pausedAtMs } = following;
  const atS = Math.max(0, ((pausedAtMs ?? now) - startedAtMs) / 1000);
  const here = findLeg(legs, atS);
  const lastIndex = useRef<number | null>(null);
  useScreenOn(pausedAtMs === null && here !== null);
  useEffect(() => {
    const index = here?.index ?? legs.length;
    if (lastIndex.current !== null && lastIndex.current !== index) signalChange();
    lastIndex.current = index;
  }, [here?.index, legs.length]);
  const leg = here === null ? null : legs[here.index]!;
  const next = here === null ? undefined : legs[here.index + 1];
  return (
    <section
      role="dialog"
      aria-modal="true"
      aria-label="The run now"
      className="fixed inset-0 z-40 flex flex-col overflow-y-auto bg-sheet px-5 py-4"
    >
      <p className="border-l-4 border-oncaution bg-caution px-3 py-2 text-lg text-oncaution">
        One steers and keeps the lookout, another reads this. Speed limits, wakes and swimmers come before the plan.
      </p>
      {leg === null ? (
        <p className="my-auto text-center text-4xl font-extrabold">The run is done. Switch off when it has idled.</p>
      ) : (
        <div className="my-auto text-center" aria-live="assertive">
          <p className="head num text-[clamp(72px,22vw,190px)] leading-none font-extrabold">{rpmWords(leg.rpm)}</p>
          <p className="text-2xl text-soft">rpm, about</p>
          <p className="num mt-4 text-[clamp(44px,11vw,90px)] leading-none font-bold">{sayLeft(here!.leftS)}</p>
          <p className="mt-4 text-2xl">
            {next === undefined
              ? "Then it is done."
              : `Then ${rpmWords(next.rpm)} rpm for ${sayMinutesShort(next.minutes)}.`}
          </p>
          <p className="mt-1 text-lg text-soft">
            Leg {here!.index + 1} of {legs.length}
          </p>
        </div>
      )}
      <div className="mt-auto grid grid-cols-3 gap-3 pt-4">
        {leg !== null && (
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
              {pausedAtMs === null ? "Wait" : "Go on"}
            </Button>
            <Button
              className="min-h-16 text-lg"
              disabled={next === undefined}
              onClick={() => onChange({ ...following, startedAtMs: startedAtMs - here!.leftS * 1000 })}
            >
              Next speed
            </Button>
          </>
        )}
        <Button look="primary" className="min-h-16 text-lg last:col-start-3" onClick={() => onEnd(atS)}>
          {leg === null ? "Keep the run" : "End here"}
        </Button>
      </div>
    </section>
  );
}

export const sayMinutesShort = (minutes: number) => {
  const s = Math.round(minutes * 60);
  if (s < 60) return `${s} s`;
  return s % 60 === 0 ? `${s / 60} min` : `${Math.floor(s / 60)} min ${s % 60} s`;
};
