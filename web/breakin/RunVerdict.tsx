import type { RunLine } from "../../api/index.ts";
import { formatClockAt, formatSeconds } from "../../core/breakin/index.ts";
import { say } from "../ui/amounts.ts";

interface VerdictProps {
  readonly run: RunLine;
  /** Coolant in °C against seconds, where it was recorded. */
  readonly temperatures?: readonly (readonly [number, number])[];
}

/** What a run was like, in words: what its break-in asks about, what was covered, what to do next. It blames nobody. */
export function RunVerdict({ run, temperatures = [] }: VerdictProps) {
  const { breaches, runS, hoursAfter, gaps, wotS, longestSteadyS, advice } = run.verdict;
  return (
    <section aria-label="What this run was like">
      {breaches.length === 0 ? (
        <p className="text-lg font-bold">Just as the break-in asks.</p>
      ) : (
        <>
          <p className="text-lg font-bold">
            Run for {formatSeconds(runS)}; {breaches.length === 1 ? "one stretch" : `${breaches.length} stretches`} to
            change next time:
          </p>
          <ul className="mt-1">
            {breaches.map(({ rule, startS, says }) => (
              <li key={`${rule}${startS}`} className="flex gap-2 border-b border-rule py-1.5">
                <span aria-hidden className="text-amber">
                  ◷
                </span>
                <span>{says}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <dl className="mt-2 flex flex-wrap gap-x-8 gap-y-1">
        <Fact name="Engine ran" value={formatSeconds(runS)} />
        <Fact name="Hours after it" value={`${hoursAfter.toFixed(1)} h`} />
        <Fact name="Longest at one speed" value={formatSeconds(longestSteadyS)} />
        <Fact name="At full throttle" value={formatSeconds(wotS)} />
        {temperatures.length > 0 && (
          <Fact name="Coolant at its warmest" value={formatWarmest(temperatures, run.startMin)} />
        )}
        {gaps > 0 && <Fact name="Gaps in the recording" value={`${gaps}, not counted`} />}
      </dl>
      {advice.length > 0 && (
        <p className="mt-2 border-l-4 border-helm pl-3">
          <strong>Next run.</strong> {advice.join(" ")}
        </p>
      )}
    </section>
  );
}

function formatWarmest(temperatures: readonly (readonly [number, number])[], startMin: number): string {
  const [s, celsius] = temperatures.reduce((most, each) => (each[1] > most[1] ? each : most));
  return `${say(celsius, "temperature")}, first at ${formatClockAt(startMin, s)}`;
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-sm text-soft">{name}</dt>
      <dd className="num font-semibold">{value}</dd>
    </div>
  );
}
