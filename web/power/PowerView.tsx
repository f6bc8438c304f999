import { type ReactNode, useMemo, useState } from "react";
import { findDeadPumps } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { BoatPage } from "../plan/BoatPage.tsx";
import { DeckPlan } from "../plan/DeckPlan.tsx";
import { Button } from "../ui/Button.tsx";
import { storeMinutes } from "../ui/storeTime.ts";
import { type Reader, useReader, useTell } from "../ui/tell.ts";
import { formatDayAndYear } from "../ui/words.ts";
import { DrainCurve } from "./DrainCurve.tsx";
import { DrainFields } from "./DrainFields.tsx";
import { LeavingCheck } from "./LeavingCheck.tsx";
import { LoadList } from "./LoadList.tsx";
import { sayVerdict } from "./powerWords.ts";
import { StartSteps } from "./StartSteps.tsx";
import { SwitchList } from "./SwitchList.tsx";
import { type Power, usePower } from "./usePower.ts";
import { WiringDiagram } from "./WiringDiagram.tsx";

const nothingRead: Readonly<Record<string, number>> = {};
const powerKinds = ["battery", "selector", "breakers", "fuse-block", "isolator", "charger", "charger-socket"];

/** How it is known that the wiring is as it is drawn. */
function sayTrust({ wiring, wiringChecked }: Rig, reader: Reader): string {
  const { tell } = reader;
  if (wiringChecked !== undefined)
    return tell(
      "The wiring was checked on this boat by {0}, {1}.",
      wiringChecked.by,
      formatDayAndYear(wiringChecked.on, reader),
    );
  const from =
    wiring === undefined
      ? "The wiring is assumed from the kind of battery switches."
      : "The wiring is as its boat sheet has it.";
  return `${tell(from)} ${tell("Nobody has checked it on this boat: believe the boat before the drawing.")}`;
}

interface MapProps {
  readonly rig: Rig;
  /** Volts at rest as they were read last, by battery: the curve begins there. */
  readonly volts?: Readonly<Record<string, number>>;
}

/** The power map as a screen about a boat, with where its batteries and breakers are beside it. */
export function PowerView({ rig, back, volts }: MapProps & { readonly back: ReactNode }) {
  return (
    <BoatPage
      plan={
        <DeckPlan rig={rig} parts={rig.parts.filter(({ kind }) => powerKinds.includes(kind))} className="size-full" />
      }
    >
      <p className="head text-soft">{back}</p>
      <PowerMap rig={rig} {...(volts === undefined ? {} : { volts })} />
    </BoatPage>
  );
}

/** What is live on a boat, what drains it and by when: its own wiring, to be turned and broken on the screen. */
export function PowerMap({ rig, volts = nothingRead }: MapProps) {
  const power = usePower(rig, volts);
  const reader = useReader();
  const { tell } = reader;
  const [nowMin] = useState(() => storeMinutes(Date.now()));
  const labelOf = useMemo(() => new Map(rig.loads.map(({ id, label }) => [id, label])), [rig]);
  const biggest = power.drawing.find(({ load }) => !rig.loads.find(({ id }) => id === load)!.always)?.load ?? null;
  const verdict = sayVerdict(
    rig,
    power.lasts,
    power.others,
    biggest === null ? null : labelOf.get(biggest)!,
    nowMin,
    reader,
  );
  const isOff = power.setting.tripped.length + power.setting.loose.length + (power.setting.wiresOff?.length ?? 0) > 0;
  return (
    <>
      <DeadPumps rig={rig} power={power} />
      <h1 className={`text-2xl font-bold ${verdict.isBad ? "text-magenta" : ""}`} aria-live="polite">
        {verdict.isBad && "▲ "}
        {verdict.says}
      </h1>
      <p className="mt-1 text-lg">{verdict.next}</p>
      <p className="text-soft">{sayTrust(rig, reader)}</p>
      {rig.batteries.length === 0 || rig.loads.length === 0 ? (
        <p className="mt-4 border-t border-ink py-4">
          {tell("Nothing to draw yet: put down batteries and what they feed on the boat sheet.")}
        </p>
      ) : (
        <>
          <p className="mt-3 flex flex-wrap gap-2">
            <Button onClick={power.leave}>{tell("As it is often left")}</Button>
            <Button onClick={power.allOff}>{tell("Everything off")}</Button>
            {isOff && <Button onClick={power.mend}>{tell("All breakers in, clamps and wires on")}</Button>}
          </p>
          <div className="flex flex-col">
            <SwitchList rig={rig} power={power} />
            <section aria-label={tell("Wiring")} className="mt-3 relative overflow-x-auto border-t border-ink pt-2">
              <WiringDiagram rig={rig} power={power} />
            </section>
            <section aria-labelledby="drain" className="mt-6">
              <h2 id="drain" className="text-lg font-bold">
                {tell("How long it lasts")}
              </h2>
              <div className="border-t border-ink pt-2">
                <DrainCurve rig={rig} power={power} nowMin={nowMin} says={verdict.says} />
                <p className="text-soft">
                  {tell(
                    "Too low means a lead battery half used, a lithium one four fifths. Below that a start is not sure, and lead suffers. Draws are typical ones until somebody has measured them on the boat.",
                  )}
                </p>
                <DrainFields rig={rig} power={power} />
              </div>
            </section>
            <div className="contents gap-x-10 lg:mt-6 lg:grid lg:grid-cols-2">
              {/* On a phone this is what it is opened for. */}
              <div className="max-lg:order-first max-lg:mt-4">
                <LeavingCheck rig={rig} power={power} nowMin={nowMin} />
              </div>
              <div className="max-lg:mt-6">
                <LoadList rig={rig} power={power} />
              </div>
            </div>
          </div>
          <StartSteps rig={rig} />
        </>
      )}
    </>
  );
}

/** Before all else: nobody is aboard, and what keeps the boat afloat has no power. */
function DeadPumps({ rig, power }: { rig: Rig; power: Power }) {
  const tell = useTell();
  return findDeadPumps(rig, power.reasons).map(({ label, missing }) => (
    <p key={label} role="alert" className="mb-3 border-l-[7px] border-magenta pl-4 text-xl font-bold text-magenta">
      ▲ {tell("{0} has no power: {1}.", tell.label(label), missing.join("; "))}{" "}
      {tell("Water that comes in stays in. Do not leave the boat like this.")}
    </p>
  ));
}
