import type { EngineCare } from "../../api/index.ts";
import { formatWhole, sayTold } from "../../core/language/index.ts";
import { useReader } from "../ui/tell.ts";

/** How long each band of an engine was turned: a bar a band, its goal the full width, the bands not yet open hatched. */
export function CoverageBars({ care }: { care: EngineCare }) {
  const { tell, language } = useReader();
  const { coverage, progress, label } = care;
  if (coverage.length === 0) return null;
  const top = coverage.toReversed();
  const least = coverage.filter(({ s, goalS, isOpen }) => isOpen && s < goalS / 2).map(({ fromRpm }) => fromRpm);
  return (
    <figure aria-label={tell("Speeds turned so far, {0}", label)}>
      <figcaption className="mb-1 text-sm text-soft">
        {tell("Minutes at each speed.")}{" "}
        {least.length === 0
          ? tell("Every speed that is open has had its turn.")
          : sayTold({ phrase: "Least so far: from {0} rpm.", values: [least.slice(0, 3)] }, tell, language)}
      </figcaption>
      <ul className="num text-sm">
        {top.map(({ fromRpm, s, goalS, isOpen }) => (
          <li key={fromRpm} className="grid grid-cols-[3.6rem_1fr_4.2rem] items-center gap-2 py-px">
            <span className="text-right">{formatWhole(fromRpm, language)}</span>
            <span className={`relative h-3.5 border ${isOpen ? "border-ink bg-panel" : "border-dashed border-soft"}`}>
              <span
                className="absolute inset-y-0 left-0 bg-deep"
                style={{ width: `${Math.min(1, s / goalS) * 100}%` }}
              />
            </span>
            <span className={isOpen ? "" : "text-soft"}>
              {isOpen || s > 0 ? tell("{0} of {1}", Math.round(s / 60), Math.round(goalS / 60)) : tell("not yet")}
            </span>
          </li>
        ))}
      </ul>
      <p className="num mt-1 text-sm text-soft">
        {tell(
          "Hours {0} %, speeds {1} %.",
          Math.round(progress.hoursShare * 100),
          Math.round(progress.bandShare * 100),
        )}
      </p>
    </figure>
  );
}
