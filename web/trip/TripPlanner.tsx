import { useMemo } from "react";
import { fromClock } from "../../core/dates/index.ts";
import type { GearPack } from "../../core/gear/index.ts";
import {
  type JudgedTrip,
  judgeTrip,
  sayClock,
  sayContractClock,
  sayReason,
  type TripPlan,
} from "../../core/trip/index.ts";
import { say, spell } from "../ui/amounts.ts";
import { useIdiom, useTell } from "../ui/tell.ts";
import { AshoreNote } from "./AshoreNote.tsx";
import { BreakInOnTheWay } from "./BreakInOnTheWay.tsx";
import { GearCheck } from "./GearCheck.tsx";
import { TripChart } from "./TripChart.tsx";
import { TripFields } from "./TripFields.tsx";
import { type TripPort, useTrip } from "./useTrip.ts";

const headings = { go: "✓ Go", "no-go": "▲ No go", "not-checked": "? Not a go yet" } as const;

/** A day out: whether to go, when to turn back, what it takes; every figure with the reason that it gives. */
export function TripPlanner({ port }: { port: TripPort }) {
  const trip = useTrip(port);
  const { plan, draft } = trip;
  const pack = port.packs.find(({ id }) => id === draft.gearPack) ?? port.packs[0]!;
  const judged = useMemo(
    () => (plan === null ? null : judgeTrip(plan, port.rig, pack, port.today, port.timeZone)),
    [plan, port.rig, pack, port.today, port.timeZone],
  );
  return (
    <div className="@container">
      <div className="gap-x-8 @3xl:grid @3xl:grid-cols-[minmax(0,1fr)_360px] @3xl:grid-rows-[auto_1fr]">
        <div className="min-w-0">
          {judged === null || plan === null ? (
            <Waiting draft={trip.draft} />
          ) : (
            <>
              <Verdict judged={judged} plan={plan} pack={pack} />
              <TripChart plan={plan} judged={judged} />
              <Figures judged={judged} plan={plan} />
            </>
          )}
        </div>
        <div className="mt-6 @3xl:row-span-2 @3xl:mt-0">
          <TripFields trip={trip} port={port} />
        </div>
        <div className="min-w-0">
          {judged !== null && <GearCheck trip={trip} pack={pack} judged={judged} rig={port.rig} />}
          {judged !== null && plan !== null && <BreakInOnTheWay care={port.care} judged={judged} plan={plan} />}
          {judged !== null && plan !== null && <AshoreNote trip={trip} plan={plan} judged={judged} port={port} />}
        </div>
      </div>
    </div>
  );
}

function Waiting({
  draft,
}: {
  draft: { cruiseKn: number | undefined; burnLph: number | undefined; fuelL: number | undefined };
}) {
  const tell = useTell();
  const open = [
    ...(draft.cruiseKn === undefined ? [tell("how fast it cruises")] : []),
    ...(draft.burnLph === undefined ? [tell("how much fuel it burns")] : []),
    ...(draft.fuelL === undefined ? [tell("the fuel aboard")] : []),
  ];
  return (
    <h1 className="text-2xl font-extrabold md:text-3xl">
      {open.length === 0
        ? tell("Something entered cannot be kept: see the fields.")
        : tell("Not a go yet: enter {0}.", open.join(", "))}
    </h1>
  );
}

interface JudgedProps {
  readonly judged: JudgedTrip;
  readonly plan: TripPlan;
}

function Verdict({ judged, plan, pack }: JudgedProps & { pack: GearPack }) {
  const tell = useTell();
  const idiom = useIdiom();
  const { verdict, reasons, backMin, answer } = judged;
  const look = verdict === "no-go" ? "text-magenta" : verdict === "not-checked" ? "text-amber" : "";
  return (
    <section aria-label={tell("Go or no go")}>
      <h1 className={`text-2xl font-extrabold md:text-3xl ${look}`} aria-live="polite">
        {answer.oneWayH === 0
          ? tell(headings[verdict])
          : verdict === "go"
            ? tell("✓ Go: back at {0}", sayClock(backMin, idiom))
            : tell("{0}. You would be back at {1}", tell(headings[verdict]), sayClock(backMin, idiom))}
      </h1>
      {verdict === "go" && reasons.length === 0 && (
        <p>{tell("Fuel, wind, daylight and gear are all as they should be.")}</p>
      )}
      <ul className="mt-1">
        {reasons.map(({ code, weight }) => (
          <li
            key={code}
            className={`py-0.5 ${weight === "stops" ? "text-magenta" : weight === "unknown" ? "text-amber" : "text-soft"}`}
          >
            {weight === "stops" ? "▲" : weight === "unknown" ? "?" : "●"} {sayReason(code, judged, plan, pack, idiom)}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Figures({ judged, plan }: JudgedProps) {
  const tell = useTell();
  const idiom = useIdiom();
  const { answer, fuel, sunsetMin } = judged;
  const figures: [string, string][] = [
    [tell("One way"), `${(answer.oneWayH * 60).toFixed(0)} min, ${say(fuel.outL, "volume")}`],
    [tell("Fuel wanted"), tell("{0}: a third out, a third back, a third in hand", say(answer.needL, "volume"))],
    [tell("Left when back"), say(Math.max(0, fuel.leftL), "volume")],
    [
      tell("Latest turn back"),
      answer.latestTurnAt === null ? tell("the wind sets none") : sayContractClock(answer.latestTurnAt, idiom),
    ],
    [tell("Sunset"), sunsetMin === null ? tell("not known") : sayClock(sunsetMin, idiom)],
    ...(answer.rodeM === null || plan.anchor === null
      ? []
      : ([
          [
            tell("Anchor rode"),
            tell("{0} at {1} to 1, from the bow down to the bottom", say(answer.rodeM, "length"), plan.anchor.scope),
          ],
        ] as [string, string][])),
  ];
  let atMin = fromClock(plan.departAt);
  return (
    <>
      <dl className="mt-3 grid gap-x-6 border-t border-ink sm:grid-cols-2">
        {figures.map(([name, said]) => (
          <div key={name} className="flex gap-3 border-b border-rule py-1.5">
            <dt className="w-32 shrink-0 text-soft">{spell(name)}</dt>
            <dd className="num font-semibold">{said}</dd>
          </div>
        ))}
      </dl>
      {plan.legs.length > 0 && (
        <ol aria-label={tell("Legs out")} className="mt-2">
          {plan.legs.map(({ to, nm, courseDeg }, i) => {
            const minutes = (nm / plan.cruiseKn) * 60;
            atMin += minutes;
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: legs are known by their place
              <li key={i} className="num flex flex-wrap gap-x-4 border-b border-rule py-1">
                <span className="min-w-32 flex-1">{to}</span>
                {courseDeg !== undefined && (
                  <span className="text-soft">
                    {tell("{0}° true", String(Math.round(courseDeg) % 360).padStart(3, "0"))}
                  </span>
                )}
                <span>{tell("{0} nm", nm.toFixed(1))}</span>
                <span>{tell("{0} min", Math.round(minutes))}</span>
                <span className="font-semibold">{sayClock(atMin, idiom)}</span>
              </li>
            );
          })}
        </ol>
      )}
    </>
  );
}
