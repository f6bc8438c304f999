import type { RunLine } from "../../api/index.ts";
import { formatSeconds, minuteAt } from "../../core/breakin/index.ts";
import { sayTold } from "../../core/language/index.ts";
import { say } from "../ui/amounts.ts";
import { type Reader, useReader } from "../ui/tell.ts";
import { formatTime } from "../ui/words.ts";

interface VerdictProps {
  readonly run: RunLine;
  /** Coolant in °C against seconds, where it was recorded. */
  readonly temperatures?: readonly (readonly [number, number])[];
}

/** What a run was like, in words: what its break-in asks about, what was covered, what to do next. It blames nobody. */
export function RunVerdict({ run, temperatures = [] }: VerdictProps) {
  const reader = useReader();
  const { tell, language } = reader;
  const { breaches, runS, hoursAfter, gaps, wotS, longestSteadyS, advice } = run.verdict;
  return (
    <section aria-label={tell("What this run was like")}>
      {breaches.length === 0 ? (
        <p className="text-lg font-bold">{tell("Just as the break-in asks.")}</p>
      ) : (
        <>
          <p className="text-lg font-bold">
            {breaches.length === 1
              ? tell("Run for {0}; one stretch to change next time:", formatSeconds(runS))
              : tell("Run for {0}; {1} stretches to change next time:", formatSeconds(runS), breaches.length)}
          </p>
          <ul className="mt-1">
            {breaches.map(({ rule, startS, says }) => (
              <li key={`${rule}${startS}`} className="flex gap-2 border-b border-rule py-1.5">
                <span aria-hidden className="text-amber">
                  ◷
                </span>
                <span>{sayTold(says, tell, language, (minute) => formatTime(minute, reader))}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <dl className="mt-2 flex flex-wrap gap-x-8 gap-y-1">
        <Fact name={tell("Engine ran")} value={formatSeconds(runS)} />
        <Fact name={tell("Hours after it")} value={`${hoursAfter.toFixed(1)} h`} />
        <Fact name={tell("Longest at one speed")} value={formatSeconds(longestSteadyS)} />
        <Fact name={tell("At full throttle")} value={formatSeconds(wotS)} />
        {temperatures.length > 0 && (
          <Fact name={tell("Coolant at its warmest")} value={formatWarmest(temperatures, run.startMin, reader)} />
        )}
        {gaps > 0 && <Fact name={tell("Gaps in the recording")} value={tell("{0}, not counted", gaps)} />}
      </dl>
      {advice.length > 0 && (
        <p className="mt-2 border-l-4 border-helm pl-3">
          <strong>{tell("Next run.")}</strong> {advice.map((each) => sayTold(each, tell, language)).join(" ")}
        </p>
      )}
    </section>
  );
}

function formatWarmest(temperatures: readonly (readonly [number, number])[], startMin: number, reader: Reader): string {
  const [s, celsius] = temperatures.reduce((most, each) => (each[1] > most[1] ? each : most));
  return reader.tell("{0}, first at {1}", say(celsius, "temperature"), formatTime(minuteAt(startMin, s), reader));
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-sm text-soft">{name}</dt>
      <dd className="num font-semibold">{value}</dd>
    </div>
  );
}
