import type { EngineCare } from "../../api/index.ts";
import { fromClock } from "../../core/dates/index.ts";
import { formatWhole } from "../../core/language/index.ts";
import { type JudgedTrip, sayClock, type TripPlan } from "../../core/trip/index.ts";
import { planOf } from "../breakin/planOf.ts";
import { useIdiom, useReader } from "../ui/tell.ts";

interface BreakInProps {
  readonly care: readonly EngineCare[];
  readonly plan: TripPlan;
  readonly judged: JudgedTrip;
}

/** An engine that is being run in: which speed when, on the way out and back. It may take longer than at cruise. */
export function BreakInOnTheWay({ care, plan, judged }: BreakInProps) {
  const { tell, language } = useReader();
  const idiom = useIdiom();
  const engines = care.filter(({ breakIn, limits }) => breakIn !== null && !breakIn.done && limits.length > 0);
  const oneWayMin = judged.answer.oneWayH * 60;
  const legs = engines.length === 0 ? null : planOf(engines, Math.floor(oneWayMin * 2));
  if (legs === null) return null;
  const departMin = fromClock(plan.departAt);
  let ran = 0;
  const rows = legs.map(({ rpm, minutes }) => {
    const from = ran;
    ran += minutes;
    const clock = departMin + from + (from >= oneWayMin ? plan.stayH * 60 : 0);
    return { rpm, minutes, clock, isBack: from >= oneWayMin };
  });
  return (
    <section aria-labelledby="break-in-way" className="mt-6">
      <h2 id="break-in-way" className="text-lg font-bold">
        {tell("Break-in on the way")}
      </h2>
      <p className="border-t border-ink pt-1 text-soft">
        {tell(
          "The next run of the break-in, laid along this trip. It goes before the cruise speed entered: leave more time and fuel.",
        )}
      </p>
      <table className="w-full max-w-xl">
        <thead>
          <tr className="border-b border-ink">
            <th className="py-1">{tell("From")}</th>
            <th className="text-right">{tell("rpm, about")}</th>
            <th className="text-right">{tell("For")}</th>
            <th className="pl-5">{tell("Where")}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ rpm, minutes, clock, isBack }) => (
            <tr key={clock} className="border-b border-rule">
              <td className="num py-1">{sayClock(clock, idiom)}</td>
              <td className="num text-right font-bold">{formatWhole(rpm, language)}</td>
              <td className="num text-right">
                {minutes < 1 ? `${Math.round(minutes * 60)} s` : `${Math.round(minutes * 10) / 10} min`}
              </td>
              <td className="pl-5 text-soft">{tell(isBack ? "on the way back" : "on the way out")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
