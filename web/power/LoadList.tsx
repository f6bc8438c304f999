import { tellJoined } from "../../core/language/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { useTell } from "../ui/tell.ts";
import { nameBattery } from "./powerWords.ts";
import type { Power } from "./usePower.ts";

/** Every load: live or dead, from which battery, through what, or what stands in the way. */
export function LoadList({ rig, power }: { rig: Rig; power: Power }) {
  const tell = useTell();
  const nameOf = (id: string) => tell.label(nameBattery(rig, id));
  const live = power.reasons.filter(({ isLive }) => isLive);
  return (
    <section aria-labelledby="loads">
      <h2 id="loads" className="text-lg font-bold">
        {tell("Why")}{" "}
        <span className="num font-normal text-soft">
          {tell("{0} of {1} have power", live.length, power.reasons.length)}
        </span>
      </h2>
      <ul className="border-t border-ink">
        {power.reasons.map(({ load, isLive, batteries, through, missing, staysLive }) => (
          <li key={load} className="border-b border-rule py-1.5">
            <span className={isLive ? "font-semibold" : "text-soft"}>
              {isLive ? "●" : "○"} {tell(rig.loads.find(({ id }) => id === load)!.label)}
            </span>
            {staysLive && <span className="text-amber"> {tell("stays live with everything off")}</span>}
            <span className="block pl-5 text-sm text-soft">
              {isLive
                ? through.length === 0
                  ? tell("from {0}", tellJoined(tell, batteries.map(nameOf)))
                  : tell("from {0}, through {1}", tellJoined(tell, batteries.map(nameOf)), through.join("; "))
                : missing.join("; ")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
