import { useEffect, useState } from "react";
import { draftKeys } from "../offline/saved.ts";
import { Button } from "../ui/Button.tsx";
import { useTell } from "../ui/tell.ts";

/** Kept for as long as the page is open in this tab, so that looking something up does not lose it. */
const keyOf = (id: string) => `${draftKeys[1]}${id}`;
const readStart = (id: string): number | null => {
  try {
    const kept = Number(sessionStorage.getItem(keyOf(id)));
    return kept > 0 ? kept : null;
  } catch {
    return null;
  }
};

/** Minutes that a step takes, counted down by the clock: a sleeping screen loses nothing. */
export function StepTimer({ id, minutes }: { id: string; minutes: number }) {
  const tell = useTell();
  const [startMs, setStartMs] = useState(() => readStart(id));
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (startMs === null) return;
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => clearInterval(timer);
  }, [startMs]);
  const leftS = startMs === null ? minutes * 60 : Math.max(0, Math.ceil((startMs + minutes * 60_000 - nowMs) / 1000));
  const start = () => {
    const at = Date.now();
    setStartMs(at);
    setNowMs(at);
    try {
      sessionStorage.setItem(keyOf(id), String(at));
    } catch {
      // A private window may refuse it; it runs on as long as the page is open.
    }
  };
  return (
    <p className="mt-3 flex flex-wrap items-center gap-4">
      <span role="timer" className="num head text-4xl font-bold">
        {Math.floor(leftS / 60)}:{String(leftS % 60).padStart(2, "0")}
      </span>
      {startMs === null ? (
        <Button className="min-h-14" onClick={start}>
          {tell("Start {0} minutes", minutes)}
        </Button>
      ) : (
        <span role="status">{leftS === 0 ? tell("{0} minutes are over.", minutes) : tell("to go")}</span>
      )}
    </p>
  );
}
