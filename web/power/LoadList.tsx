import type { Rig } from "../../core/rig/index.ts";
import { joinWords } from "../../core/text/index.ts";
import { nameBattery } from "./powerWords.ts";
import type { Power } from "./usePower.ts";

/** Every load: live or dead, from which battery, through what, or what stands in the way. */
export function LoadList({ rig, power }: { rig: Rig; power: Power }) {
  const nameOf = (id: string) => nameBattery(rig, id);
  const live = power.reasons.filter(({ isLive }) => isLive);
  return (
    <section aria-labelledby="loads">
      <h2 id="loads" className="text-lg font-bold">
        Why{" "}
        <span className="num font-normal text-soft">
          {live.length} of {power.reasons.length} have power
        </span>
      </h2>
      <ul className="border-t border-ink">
        {power.reasons.map(({ load, isLive, batteries, through, missing, staysLive }) => (
          <li key={load} className="border-b border-rule py-1.5">
            <span className={isLive ? "font-semibold" : "text-soft"}>
              {isLive ? "●" : "○"} {rig.loads.find(({ id }) => id === load)!.label}
            </span>
            {staysLive && <span className="text-amber"> stays live with everything off</span>}
            <span className="block pl-5 text-sm text-soft">
              {isLive
                ? `from ${joinWords(batteries.map(nameOf))}${through.length === 0 ? "" : `, through ${through.join("; ")}`}`
                : missing.join("; ")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
