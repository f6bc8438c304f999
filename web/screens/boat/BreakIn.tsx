import { Link } from "react-router";
import type { Boat, EngineCare } from "../../../api/index.ts";
import { formatHours } from "../../ui/words.ts";

/** The break-in card: hours run of hours to run, and the limits that hold now, engine by engine. */
export function BreakIn({ boat }: { boat: Boat }) {
  const first = boat.care[0];
  if (first === undefined) return null;
  return (
    <section aria-labelledby="break-in" className="mt-5">
      <h2 id="break-in" className="text-lg font-bold">
        Break-in <span className="font-text text-sm font-normal text-soft">{first.breakInTitle}</span>
      </h2>
      <ul className="border-t border-ink">
        {boat.care.map((care) => (
          <EngineLine key={care.engine} care={care} />
        ))}
      </ul>
      <p className="mt-1 flex flex-wrap items-center gap-x-5 text-sm text-soft">
        {first.breakInBasis}
        <Link
          to={`/boats/${boat.id}/runs`}
          className="inline-flex min-h-11 items-center text-base font-semibold text-ink underline"
        >
          {boat.care.some(({ isByTanks }) => isByTanks) ? "Next run, runs and fuel" : "Next run and runs logged"}
        </Link>
      </p>
    </section>
  );
}

function EngineLine({ care: { label, breakIn, limits } }: { care: EngineCare }) {
  if (breakIn === null) return <li className="border-b border-rule py-2 text-soft">{label}: no hours reported yet</li>;
  const { hours, totalH, phase, done } = breakIn;
  const share = Math.min(1, hours / totalH);
  return (
    <li className="grid items-center gap-x-5 gap-y-1 border-b border-rule py-2.5 lg:grid-cols-[130px_190px_1fr]">
      <span className="head font-semibold">{label}</span>
      <div>
        <div
          role="progressbar"
          aria-label={`${label}, break-in hours`}
          aria-valuemin={0}
          aria-valuemax={totalH}
          aria-valuenow={Math.min(totalH, hours)}
          className="relative h-3 border border-ink bg-panel"
        >
          <div className="h-full bg-deep" style={{ width: `${share * 100}%` }} />
          {limits.slice(1).map(({ fromH }) => (
            <span
              key={fromH}
              className="absolute top-0 h-full w-px bg-ink"
              style={{ left: `${(fromH / totalH) * 100}%` }}
            />
          ))}
        </div>
        <p className="num mt-0.5 text-sm">
          <strong>{hours.toFixed(1)}</strong> <span className="text-soft">of {formatHours(totalH)} h reported</span>
        </p>
      </div>
      <p>
        {done || phase === null ? (
          "Break-in is over. The engine manual's limits hold."
        ) : (
          <>
            <strong className="num">At most {phase.maxRpm.toLocaleString("en-GB")} rpm</strong> until{" "}
            {formatHours(phase.toH)} h.{" "}
            {phase.wotMaxS === 0 ? "No full throttle" : `Full throttle ${formatFullThrottle(phase.wotMaxS)} at a time`},
            and never one speed longer than {phase.steadyMaxMin} min. <span className="text-soft">{phase.say}</span>
          </>
        )}
      </p>
    </li>
  );
}

const formatFullThrottle = (s: number) => (s < 60 ? `${s} s` : `${Math.round(s / 60)} min`);
