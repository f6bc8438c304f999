import type { EngineCare } from "../../api/index.ts";

/** How long each band of an engine was turned: a bar a band, its goal the full width, the bands not yet open hatched. */
export function CoverageBars({ care }: { care: EngineCare }) {
  const { coverage, progress, label } = care;
  if (coverage.length === 0) return null;
  const top = coverage.toReversed();
  const least = coverage.filter(({ s, goalS, isOpen }) => isOpen && s < goalS / 2).map(({ fromRpm }) => fromRpm);
  return (
    <figure aria-label={`Speeds turned so far, ${label}`}>
      <figcaption className="mb-1 text-sm text-soft">
        Minutes at each speed.{" "}
        {least.length === 0
          ? "Every speed that is open has had its turn."
          : `Least so far: from ${least
              .slice(0, 3)
              .map((rpm) => rpm.toLocaleString("en-GB"))
              .join(", ")} rpm.`}
      </figcaption>
      <ul className="num text-sm">
        {top.map(({ fromRpm, s, goalS, isOpen }) => (
          <li key={fromRpm} className="grid grid-cols-[3.6rem_1fr_4.2rem] items-center gap-2 py-px">
            <span className="text-right">{fromRpm.toLocaleString("en-GB")}</span>
            <span className={`relative h-3.5 border ${isOpen ? "border-ink bg-panel" : "border-dashed border-soft"}`}>
              <span
                className="absolute inset-y-0 left-0 bg-deep"
                style={{ width: `${Math.min(1, s / goalS) * 100}%` }}
              />
            </span>
            <span className={isOpen ? "" : "text-soft"}>
              {isOpen || s > 0 ? `${Math.round(s / 60)} of ${Math.round(goalS / 60)}` : "not yet"}
            </span>
          </li>
        ))}
      </ul>
      <p className="num mt-1 text-sm text-soft">
        Hours {Math.round(progress.hoursShare * 100)} %, speeds {Math.round(progress.bandShare * 100)} %.
      </p>
    </figure>
  );
}
