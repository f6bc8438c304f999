import { type Tell, tellJoined } from "../../core/language/index.ts";
import { findOffSwitch } from "../../core/power/index.ts";
import { isStandIn, type Rig } from "../../core/rig/index.ts";
import { Button } from "../ui/Button.tsx";
import { type Reader, useReader } from "../ui/tell.ts";
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
  const reader = useReader();
  const { tell } = reader;
  const total = drawing.reduce((sum, { amps }) => sum + amps, 0);
  return (
    <section aria-labelledby="leaving">
      <h2 id="leaving" className="text-lg font-bold">
        {tell("Leaving the boat like this")}{" "}
        <span className="num font-normal text-soft">
          {total === 0 ? tell("nothing draws") : tell("{0} in all", sayAmps(total))}
        </span>
      </h2>
      <ol className="border-t border-ink">
        {drawing.map(({ load, amps }) => {
          const { label, always, measured } = rig.loads.find(({ id }) => id === load)!;
          const off = findOffSwitch(rig, load);
          return (
            <li key={load} className="flex flex-wrap items-center gap-x-3 border-b border-rule py-1.5">
              <strong>{tell.label(label)}</strong>
              <span className="num text-soft">
                {sayAmps(amps)}, {tell(measured === true ? "measured" : "typical")}
              </span>
              <span className="ml-auto">
                {always ? (
                  <span className="text-soft">{tell("stays live: leave it")}</span>
                ) : off === null ? (
                  <Button
                    onClick={() => power.setDrain({ buttons: { ...power.drain.buttons, [load]: false } })}
                    aria-label={tell("{0}: off by its own button", tell.label(label))}
                  >
                    {tell("Off by its button")}
                  </Button>
                ) : (
                  <Button onClick={() => power.turn(off.id, off.position)}>
                    {tell("Turn {0} to {1}", off.label, off.position ?? tell("rest"))}
                  </Button>
                )}
              </span>
            </li>
          );
        })}
      </ol>
      <ul aria-label={tell("How long each battery lasts")} className="mt-2">
        {lasts.groups.map(({ batteries, hoursToFloor }) => (
          <li key={batteries.join()} className="num">
            {tellJoined(
              tell,
              batteries.map((id) =>
                isStandIn(rig, `batteries.${id}.capacityAh`)
                  ? tell("{0} (size not read: {1} Ah taken)", tell.label(nameBattery(rig, id)), sizeOf(rig, id))
                  : tell("{0}, {1} Ah", tell.label(nameBattery(rig, id)), sizeOf(rig, id)),
              ),
            )}
            : {sayLasting(hoursToFloor, nowMin, reader)}
          </li>
        ))}
      </ul>
    </section>
  );
}

const sizeOf = (rig: Rig, id: string) => rig.batteries.find((battery) => battery.id === id)!.capacityAh;
const sayAmps = (amps: number) => `${amps < 1 ? amps.toFixed(2) : amps.toFixed(1)} A`;
const sayHours = (hours: number, tell: Tell) =>
  hours < 100 ? `${hours.toFixed(1)} h` : tell("{0} days", Math.round(hours / 24));

function sayLasting(hours: number | null, nowMin: number, reader: Reader): string {
  const { tell } = reader;
  if (hours === null) return tell("keeps what it has");
  if (hours === 0) return tell("too low already");
  const lasting = sayHours(hours, tell);
  return hours > 240
    ? tell("{0} until too low", lasting)
    : tell("{0} until too low, {1}", lasting, sayWhen(hours, nowMin, reader));
}
