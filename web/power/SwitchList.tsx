import { atRest } from "../../core/power/index.ts";
import { hasBehind, type Rig } from "../../core/rig/index.ts";
import { Chip } from "../ui/Chip.tsx";
import { useTell } from "../ui/tell.ts";
import type { Power } from "./usePower.ts";

/** Battery switches and panel as a list, for a thumb: where a screen is too narrow for the wiring. */
export function SwitchList({ rig, power }: { rig: Rig; power: Power }) {
  const tell = useTell();
  return (
    <section aria-label={tell("Switches and breakers")} className="mt-3 border-t border-ink md:hidden">
      <ul>
        {power.switches
          .filter(({ id }) => !listBlind(rig).includes(id))
          .map(({ id, label, positions, springsBack }) => {
            const now = power.setting.positions[id] ?? (springsBack ? atRest : positions[0]);
            return (
              <li key={id} className="flex flex-wrap items-center gap-2 border-b border-rule py-1.5">
                <span className="min-w-24 flex-1">{label}</span>
                <span role="radiogroup" aria-label={label} className="flex flex-wrap gap-1.5">
                  {(springsBack ? [...positions, atRest] : positions).map((position) => (
                    <Chip
                      key={position}
                      isPicked={position === now}
                      onPick={() => power.turn(id, position === atRest ? undefined : position)}
                    >
                      {position}
                    </Chip>
                  ))}
                </span>
              </li>
            );
          })}
        {rig.breakers.map(({ id, label, ratingA }) => (
          <li key={id} className="flex items-center gap-2 border-b border-rule py-1.5">
            <span className="min-w-24 flex-1">
              {tell.label(label)}, {ratingA} A
            </span>
            <span role="radiogroup" aria-label={tell("Breaker {0}", tell.label(label))} className="flex gap-1.5">
              <Chip isPicked={!power.setting.tripped.includes(id)} onPick={() => setTripped(power, id, false)}>
                {tell("in")}
              </Chip>
              <Chip isPicked={power.setting.tripped.includes(id)} onPick={() => setTripped(power, id, true)}>
                {tell("tripped")}
              </Chip>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Panel places with nothing behind them. */
const listBlind = (rig: Rig): string[] => rig.panel.filter((item) => !hasBehind(item)).map(({ id }) => id);

const setTripped = (power: Power, id: string, wanted: boolean) => {
  if (power.setting.tripped.includes(id) !== wanted) power.trip(id);
};
