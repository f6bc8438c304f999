import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import type { Boat, TowingSheet } from "../../../api/index.ts";
import { isOneOf, walkers } from "../../../api/roles.ts";
import { fitLaunches, gradeOf, type RampOutput, type RampSheet, ramp, withFitted } from "../../../core/ramp/index.ts";
import { joinWords } from "../../../core/text/index.ts";
import { boatQuery, towingQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { askRamp } from "../../ramp/askRamp.ts";
import { RampSketch, sayDepth, sayMark } from "../../ramp/RampSketch.tsx";
import { say } from "../../ui/amounts.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { PickField } from "../../ui/fields.tsx";
import { SliderField } from "../../ui/SliderField.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatDay } from "../../ui/words.ts";
import { CarOnRamp } from "./CarOnRamp.tsx";
import { LaunchSeen } from "./LaunchSeen.tsx";
import { RampForm } from "./RampForm.tsx";

/** At the ramp: how far to back in, drawn to scale for this boat, trailer, car and ramp. */
export function RampScreen() {
  const { boat: id } = useParams() as { boat: string };
  const boat = useQuery(boatQuery(id));
  const towing = useQuery(towingQuery(id));
  return (
    <Fetched query={boat} what="the boat">
      {(data) => (
        <Fetched query={towing} what="the ramps">
          {(sheet) => <RampOf boat={data} sheet={sheet} />}
        </Fetched>
      )}
    </Fetched>
  );
}

const usualGradePct = 13;

function RampOf({ boat, sheet }: { boat: Boat; sheet: TowingSheet }) {
  const { rig } = boat;
  const me = useMe();
  const [rampId, setRampId] = useState(sheet.ramps[0]?.id ?? "");
  const here = sheet.ramps.find(({ id }) => id === rampId);
  const [triedPct, setTriedPct] = useState<number | null>(null);
  const [waterM, setWaterM] = useState(0);
  const [isNew, setNew] = useState(false);
  const gradePct = triedPct ?? (here === undefined ? usualGradePct : gradeOf(here));
  const { ask, guessed } = useMemo(() => askRamp(rig, sheet.vehicle, gradePct), [rig, sheet.vehicle, gradePct]);
  const fitted = useMemo(() => fitLaunches(ask, sheet.launches), [ask, sheet.launches]);
  const learned = useMemo(() => withFitted(ask, fitted), [ask, fitted]);
  const answer = useMemo(() => ramp(learned), [learned]);
  const scene = useMemo(
    () => ({ ask: learned, waterM, loaM: rig.loaM, axles: rig.trailer?.axles ?? 1 }),
    [learned, waterM, rig],
  );
  const delivery = boat.deliveries.at(-1);
  const isTooDeep = answer.verdict === "wheels-too-deep";
  const wadeM = ask.vehicle.wadeLimitM;
  if (rig.trailer === null)
    return (
      <main className="px-4 pt-5 md:px-8">
        <Back boat={boat} />
        <p className="mt-3">{boat.name} has no trailer on its boat sheet, so there is nothing to back down a ramp.</p>
      </main>
    );
  return (
    <main className="gap-x-8 px-4 pt-4 pb-12 md:px-8 lg:grid lg:grid-cols-[minmax(0,1fr)_320px] lg:grid-rows-[auto_1fr]">
      <div className="min-w-0">
        <Back boat={boat} />
        <h1 className={`text-2xl font-extrabold md:text-3xl ${isTooDeep ? "text-magenta" : ""}`} aria-live="polite">
          {isTooDeep
            ? `▲ Too flat for this car: its rear wheels would stand ${sayOver(answer.rearWheelDepthM, wadeM)}.`
            : `Back in until ${sayMarkTo(answer.fenderUnderM)}.`}
        </h1>
        <p className="mt-1 text-lg">{sayNext(answer, wadeM)}</p>
        <RampSketch
          scene={scene}
          hasOutboard={rig.engines.some(({ kind }) => kind === "outboard")}
          isTooDeep={isTooDeep}
          label={`Side section of the ramp at ${sayGrade(gradePct)}: ${sayMark(answer.fenderUnderM)}, rear wheels ${sayDepth(answer.rearWheelDepthM)}`}
        />
        {guessed.length > 0 && (
          <p className="mt-2 text-soft">
            Assumed, for nobody has measured: {joinWords(guessed)}. Measure before you trust the mark.
          </p>
        )}
      </div>
      <div className="space-y-4 max-lg:mt-6 lg:row-span-2">
        <h2 className="text-lg font-bold">This ramp, this trailer</h2>
        {sheet.ramps.length > 0 && (
          <PickField
            label="Ramp"
            value={rampId}
            options={sheet.ramps.map(({ id, name }) => [id, name])}
            onChange={(id) => {
              setRampId(id);
              setTriedPct(null);
            }}
          />
        )}
        {here !== undefined && <p className="text-soft">{sayRamp(here)}</p>}
        <SliderField
          label="Grade"
          value={Math.min(35, gradePct)}
          says={sayGrade(gradePct)}
          least={3}
          most={35}
          step={0.5}
          onChange={setTriedPct}
        />
        <SliderField
          label="Water against normal"
          value={waterM}
          says={waterM === 0 ? "normal" : `${waterM > 0 ? "+" : "−"}${say(Math.abs(waterM), "height")}`}
          least={-1.5}
          most={1.5}
          step={0.1}
          onChange={setWaterM}
        />
        <Learned sheet={sheet} fitted={fitted} minGradePct={answer.minGradePct} />
        <p className="rounded-md bg-caution px-4 py-3 text-oncaution">
          Nobody between boat and car, no children on the ramp. The winch handle is never let go.{" "}
          {here !== undefined && !here.isDriveOn && "Driving on is forbidden here."}
        </p>
        <LaunchSeen
          boat={boat.id}
          ramp={triedPct === null && here !== undefined ? here.name : "a grade set by hand"}
          gradePct={gradePct}
          expectedM={answer.fenderUnderM}
          launches={sheet.launches}
        />
        <CarOnRamp boat={boat.id} vehicle={sheet.vehicle} />
        {isOneOf(walkers, me.role) && <RampForm boat={boat.id} isOpen={isNew} onOpen={setNew} onKept={setRampId} />}
      </div>
      <div className="min-w-0">
        <Stages here={here} />
        {delivery !== undefined && (
          <p className="mt-4 flex flex-wrap gap-x-6">
            <Link
              to={`/deliveries/${delivery.id}/steps/launch`}
              className="inline-flex min-h-11 items-center underline"
            >
              Launch step by step
            </Link>
            <Link to={`/deliveries/${delivery.id}/steps/load`} className="inline-flex min-h-11 items-center underline">
              Load step by step
            </Link>
          </p>
        )}
      </div>
    </main>
  );
}

function Back({ boat }: { boat: Boat }) {
  return (
    <p className="head text-soft">
      <Link to={`/boats/${boat.id}`} className="inline-flex min-h-11 items-center underline">
        {boat.name} {boat.hull}
      </Link>{" "}
      {boat.buyers}
    </p>
  );
}

/** (0.07) → "the top of the fender is 3 in under"; (−0.05) → "… is only 2 in out of the water". */
const sayMarkTo = (underM: number): string =>
  Math.abs(underM) < 0.005
    ? "the top of the fender goes under"
    : `the top of the fender is ${underM > 0 ? "" : "only "}${say(Math.abs(underM), "height")} ${underM > 0 ? "under" : "out of the water"}`;
/** Rounded, what is too deep by a little would look as if it were allowed. */
const sayOver = (depthM: number, mostM: number): string =>
  say(depthM, "height") === say(mostM, "height") ? `just over ${say(mostM, "height")} deep` : sayDepth(depthM);
const sayGrade = (pct: number) => `${pct.toFixed(1).replace(/\.0$/, "")} %`;
const sayRamp = ({ surface, isDriveOn, staging }: RampSheet) =>
  [surface, isDriveOn ? "driving on is allowed" : "no driving on", staging === "" ? null : `make ready: ${staging}`]
    .filter(Boolean)
    .join(" · ");

function sayNext({ verdict, rearWheelDepthM, minGradePct }: RampOutput, wadeM: number): string {
  if (verdict === "ok")
    return `There the stern floats. Your rear wheels ${rearWheelDepthM < 0.005 ? "stay dry" : `stand ${sayDepth(rearWheelDepthM)}`}; the car may wade ${say(wadeM, "height")}.`;
  if (minGradePct === null)
    return `The car may wade ${say(wadeM, "height")}, which no ramp allows: use a longer tongue or another car.`;
  return `It may wade ${say(wadeM, "height")}. Look for a ramp of at least ${sayGrade(minGradePct)}, or lengthen the tongue.`;
}

interface LearnedProps {
  readonly sheet: TowingSheet;
  readonly fitted: ReturnType<typeof fitLaunches>;
  readonly minGradePct: number | null;
}

/** What launches have taught, and how sure the mark is. */
function Learned({ sheet: { launches }, fitted, minGradePct }: LearnedProps) {
  const last = launches.at(-1);
  return (
    <p>
      {last === undefined ? (
        <>
          <strong>Not launched yet:</strong> the mark is right to about {say(fitted.markSdM * 2, "height")}. Enter what
          you see at the first launch.
        </>
      ) : (
        <>
          <strong>Learned from {launches.length === 1 ? "one launch" : `${launches.length} launches`}</strong>, the last
          on {formatDay(storeDay(last.at))}: bunk {say(fitted.bunkHeightM, "height")}, stern draft{" "}
          {say(fitted.sternDraftM, "height")}; the mark is right to about {say(fitted.markSdM * 2, "height")}.
        </>
      )}{" "}
      {minGradePct !== null && (
        <>
          Gentlest ramp that floats the boat before the car is too deep:{" "}
          <strong className="num">{sayGrade(minGradePct)}</strong>.
        </>
      )}
    </p>
  );
}

/** The three moments of a launch, in their order. */
function Stages({ here }: { here: RampSheet | undefined }) {
  const stages = [
    [
      "Make ready",
      "Plug in, straps off, engine up, lines and fenders on, chocks by the door. Winch strap and bow chain stay on.",
    ],
    [
      "At the water",
      "One drives, one watches the mark from the side and says stop. Handbrake, gear or park, chock. Then the bow chain off.",
    ],
    [
      "Afloat",
      `Engine down, start, look for the cooling water. Somebody holds the line. Then the winch strap comes off, never before.${here?.isDriveOn === false ? " To load, winch the boat on: do not drive it on." : ""}`,
    ],
  ] as const;
  return (
    <ol className="mt-4 grid content-start gap-3 md:grid-cols-3">
      {stages.map(([title, text]) => (
        <li key={title} className="border-t-[3px] border-ink pt-2">
          <h2 className="head font-bold">{title}</h2>
          <p>{text}</p>
        </li>
      ))}
    </ol>
  );
}
