import type { WalkTimes } from "../../../core/route/index.ts";
import { formatMinutes } from "../../ui/words.ts";

/** How long such walks take, in words and as a small bar: from what half of them take to what four in five take. */
export function WalkTimeLine({ times, budgetMin }: { times: WalkTimes; budgetMin: number | null }) {
  const endMin = Math.max(times.p80Min, budgetMin ?? 0) * 1.08;
  const at = (minutes: number) => `${(minutes / endMin) * 100}%`;
  return (
    <span className="flex flex-wrap items-center gap-x-3 text-soft">
      <span>
        Half of such walks are done in <span className="num">{formatMinutes(times.p50Min)}</span>, four in five in{" "}
        <span className="num">{formatMinutes(times.p80Min)}</span>.
      </span>
      <span aria-hidden className="relative h-3 w-44 border-x border-rule bg-sheet">
        <span className="absolute inset-y-1 left-0 bg-deep" style={{ width: at(times.p80Min) }} />
        <span className="absolute inset-y-0.5 left-0 bg-helm" style={{ width: at(times.p50Min) }} />
        {budgetMin !== null && (
          <span className="absolute -inset-y-1 w-0.5 bg-magenta" style={{ left: at(budgetMin) }} />
        )}
      </span>
      {budgetMin !== null && times.p80Min > budgetMin && (
        <span className="text-amber">Longer than {formatMinutes(budgetMin)} more often than one time in five.</span>
      )}
    </span>
  );
}
