import { findOffSwitch } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { joinWords } from "../../core/text/index.ts";
import { Button } from "../ui/Button.tsx";
import { nameBattery, sayWhen } from "./powerWords.ts";
import type { Power } from "./usePower.ts";

interface LeavingProps {
  readonly rig: Rig;
  readonly power: Power;
  readonly nowMin: number;
}

/** Leaving the boat as it stands: what draws, what to turn off, and which battery is down by when. */
export function LeavingCheck({ rig, power, nowMin }: LeavingProps) {
  const { drawing, lasts } = power;
  const total = drawing.reduce((sum, { amps }) => sum + amps, 0);
  return (
    <section aria-labelledby="leaving">
      <h2 id="leaving" className="text-lg font-bold">
        Leaving her like this{" "}
        <span className="num font-normal text-soft">{total === 0 ? "nothing draws" : `${sayAmps(total)} in all`}</span>
      </h2>
      <ol className="border-t border-ink">
        {drawing.map(({ load, amps }) => {
          const { label, always, measured } = rig.loads.find(({ id }) => id === load)!;
          const off = findOffSwitch(rig, load);
          return (
            <li key={load} className="flex flex-wrap items-center gap-x-3 border-b border-rule py-1.5">
              <strong>{label}</strong>
              <span className="num text-soft">
                {sayAmps(amps)}, {measured === true ? "measured" : "typical"}
              </span>
              <span className="ml-auto">
                {always ? (
                  <span className="text-soft">stays live: leave it</span>
                ) : off === null ? (
                  <Button
                    onClick={() => power.setDrain({ buttons: { ...power.drain.buttons, [load]: false } })}
                    aria-label={`${label}: off by its own button`}
                  >
                    Off by its button
                  </Button>
                ) : (
                  <Button onClick={() => power.turn(off.id, off.position)}>
                    {off.label} to {off.position ?? "rest"}
                  </Button>
                )}
              </span>
            </li>
          );
        })}
      </ol>
      <ul aria-label="How long each battery lasts" className="mt-2">
        {lasts.groups.map(({ batteries, hoursToFloor }) => (
          <li key={batteries.join()} className="num">
            {joinWords(batteries.map((id) => nameBattery(rig, id)))}:{" "}
            {hoursToFloor === null
              ? "keeps what it has"
              : hoursToFloor === 0
                ? "too low already"
                : hoursToFloor > 240
                  ? `${sayHours(hoursToFloor)} until too low`
                  : `${sayHours(hoursToFloor)} until too low, ${sayWhen(hoursToFloor, nowMin)}`}
          </li>
        ))}
      </ul>
    </section>
  );
}

const sayAmps = (amps: number) => `${amps < 1 ? amps.toFixed(2) : amps.toFixed(1)} A`;
const sayHours = (hours: number) => (hours < 100 ? `${hours.toFixed(1)} h` : `${Math.round(hours / 24)} days`);
