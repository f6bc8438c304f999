import { useMemo, useState } from "react";
import type { EngineCare } from "../../api/index.ts";
import type { Leg } from "../../core/breakin/index.ts";
import { formatWhole, type Tell } from "../../core/language/index.ts";
import { Button } from "../ui/Button.tsx";
import { Chip } from "../ui/Chip.tsx";
import { useReader, useTell } from "../ui/tell.ts";
import type { BreakInPort } from "./breakInPort.ts";
import { listSets } from "./engineSets.ts";
import { FollowRun, formatMinutesShort } from "./FollowRun.tsx";
import { leastMin, planOf } from "./planOf.ts";
import { cutLegs, type Following, keepFollowing, type LaneLegs, type Ran, readFollowing } from "./useFollow.ts";

type Lane = ReturnType<typeof listSets>[number]["lanes"][number];
const lengths = [30, 60, 90, 120, 180] as const;
const mostMin = 240;

interface NextRunProps {
  readonly port: BreakInPort;
  /** A run was followed to its end or ended by hand: these legs were run. */
  readonly onRan: (ran: Ran) => void;
}

/** "I have 90 minutes": the speeds to go to, least turned first, within what the hours allow; then followed at the helm. */
export function NextRun({ port, onRan }: NextRunProps) {
  const tell = useTell();
  const [minutes, setMinutes] = useState(90);
  const [way, setWay] = useState<string | null>(null);
  const [following, setFollowing] = useState<Following | null>(() => readFollowing(port.key));
  const sets = useMemo(
    () => listSets(port.care.filter(({ limits, breakIn }) => limits.length > 0 && breakIn !== null)),
    [port.care],
  );
  const set = sets.find(({ key }) => key === way) ?? sets[0];
  const plans = useMemo(
    () => set?.lanes.map((lane) => ({ lane, legs: planOf(lane.care, minutes) })) ?? [],
    [set, minutes],
  );
  if (set === undefined)
    return (
      <p className="text-soft">
        {tell(
          "There is a plan as soon as hours have been reported and, if the break-in is counted in tanks, the burn is on the boat sheet.",
        )}
      </p>
    );
  const change = (value: Following | null) => {
    keepFollowing(port.key, value);
    setFollowing(value);
  };
  const lanes = plans.flatMap(({ lane, legs }): LaneLegs[] =>
    legs === null ? [] : [{ label: lane.label, engines: lane.care.map(({ engine }) => engine), legs }],
  );
  const isWhole = lanes.length === plans.length;
  return (
    <section aria-labelledby="next-run">
      <h2 id="next-run" className="text-lg font-bold">
        {tell("Next run")}
      </h2>
      <div className="border-t border-ink pt-3">
        {sets.length > 1 && (
          <div
            className="mb-2 flex flex-wrap gap-2 print:hidden"
            role="radiogroup"
            aria-label={tell("Engines of this run")}
          >
            {sets.map(({ key, label }) => (
              <Chip key={key} isPicked={set.key === key} onPick={() => setWay(key)}>
                {tell.label(label)}
              </Chip>
            ))}
          </div>
        )}
        <MinutesField minutes={minutes} onChange={setMinutes} />
        {isWhole && (
          <p className="mt-3 border-l-4 border-oncaution bg-caution px-3 py-2 text-oncaution">
            {tell(
              "Warm up with the boat in the water or on the hose, never dry. Where the engine maker's manual asks otherwise, it comes first.",
            )}
          </p>
        )}
        <LanePlans plans={plans} minutes={minutes} />
        {isWhole && set.lanes.length > 1 && (
          <p className="mt-2 text-soft">
            {tell("Two levers, two plans: the boat pulls to one side, so keep to open water and a steady course.")}
          </p>
        )}
        {isWhole && (
          <p className="mt-3 flex flex-wrap gap-2 print:hidden">
            <Button
              look="primary"
              className="min-h-14 px-6 text-lg"
              onClick={() => {
                const nowMs = Date.now();
                change({ lanes, startedAtMs: nowMs, begunAtMs: nowMs, skipped: [], pausedAtMs: null });
              }}
            >
              {tell("Follow it at the helm")}
            </Button>
            <Button className="min-h-14" onClick={() => window.print()}>
              {tell("Print it")}
            </Button>
          </p>
        )}
      </div>
      {following !== null && (
        <FollowRun
          following={following}
          onChange={change}
          onEnd={(ranS) => {
            const ran = endRun(following, ranS);
            change(null);
            if (ran.lanes.every(({ legs }) => legs.length > 0)) onRan(ran);
          }}
        />
      )}
    </section>
  );
}

/** Legs in their order; of a pair, why each is there stands side by side for one engine and the other where they differ. */
function LegTable({ legs, care }: { legs: readonly Leg[]; care: readonly EngineCare[] }) {
  const { tell, language } = useReader();
  const reasons = care.map((one) => ({
    label: tell.label(one.label),
    why: legs.map((_, i) => whyOf(legs, i, one, tell)),
  }));
  const isAlike = reasons.every(({ why }) => why.join() === reasons[0]!.why.join());
  const shown = isAlike ? [{ ...reasons[0]!, label: tell(care.length === 1 ? "Why" : "Why, both engines") }] : reasons;
  const number = "num whitespace-nowrap pl-4 text-right";
  return (
    <div className="relative overflow-x-auto">
      <table className="w-full max-w-3xl text-lg">
        <thead>
          <tr className="border-b border-ink">
            <th className="w-10 py-1 text-right">{tell("Leg")}</th>
            <th className="pl-4 text-right whitespace-nowrap">{tell("rpm, about")}</th>
            <th className="pl-4 text-right">{tell("For")}</th>
            <th className="pl-4 text-right">{tell("From")}</th>
            {shown.map(({ label }) => (
              <th key={label} className="pl-5">
                {label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {legs.map((leg, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: legs are known by their place
            <tr key={i} className="border-b border-rule">
              <td className="num py-1.5 text-right text-soft">{i + 1}</td>
              <td className={`${number} text-xl font-bold`}>{formatWhole(leg.rpm, language)}</td>
              <td className={number}>{formatMinutesShort(leg.minutes)}</td>
              <td className={`${number} text-soft`}>{startOf(legs, i)}</td>
              {shown.map(({ label, why }) => (
                <td key={label} className="pl-5 text-base text-soft">
                  {why[i]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const startOf = (legs: readonly Leg[], index: number) => {
  const s = Math.round(legs.slice(0, index).reduce((sum, { minutes }) => sum + minutes, 0) * 60);
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
};

function whyOf(legs: readonly Leg[], index: number, care: EngineCare, tell: Tell): string {
  if (index === legs.length - 1) return tell("cool down before you switch off");
  const until = legs.findIndex(({ rpm }) => rpm > 1500);
  if (index < (until < 0 ? legs.length : until)) return tell("warm up");
  const { rpm } = legs[index]!;
  const band = care.coverage.find(({ fromRpm }) => rpm >= fromRpm && rpm < fromRpm + 500);
  const wot = care.limits.find((limit) => limit.wot !== undefined)?.wot?.rpm;
  if (wot !== undefined && rpm >= wot) return tell("full throttle, short");
  if (band === undefined) return tell("ease down");
  const isIn = (leg: Leg) => leg.rpm >= band.fromRpm && leg.rpm < band.fromRpm + 500;
  const planned = legs.slice(0, index).reduce((sum, leg) => sum + (isIn(leg) ? leg.minutes : 0), 0);
  const sofarMin = band.s / 60 + planned;
  return sofarMin === 0
    ? tell("not turned yet")
    : tell("{0} of {1} min by then", Math.round(sofarMin), Math.round(band.goalS / 60));
}

interface MinutesProps {
  readonly minutes: number;
  readonly onChange: (minutes: number) => void;
}

function MinutesField({ minutes, onChange }: MinutesProps) {
  const tell = useTell();
  return (
    <div
      className="flex flex-wrap items-center gap-2 print:hidden"
      role="radiogroup"
      aria-label={tell("Minutes there are")}
    >
      <span className="text-soft">{tell("I have")}</span>
      {lengths.map((each) => (
        <Chip key={each} isPicked={minutes === each} onPick={() => onChange(each)}>
          <span className="num">{each}</span> {tell("min")}
        </Chip>
      ))}
      <label className="flex items-center gap-2">
        <span className="text-soft">{tell("or")}</span>
        <input
          type="number"
          min={leastMin}
          max={mostMin}
          value={minutes}
          aria-label={tell("Minutes")}
          onChange={(event) => onChange(Math.max(0, Math.min(mostMin, Number(event.target.value))))}
          className="num min-h-12 w-20 rounded-md border border-soft bg-panel px-2 text-right"
        />
      </label>
    </div>
  );
}

interface LanePlansProps {
  readonly plans: readonly { readonly lane: Lane; readonly legs: readonly Leg[] | null }[];
  readonly minutes: number;
}

function LanePlans({ plans, minutes }: LanePlansProps) {
  const tell = useTell();
  return (
    <div className={`mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 ${plans.length > 1 ? "lg:grid-cols-2" : ""}`}>
      {plans.map(({ lane, legs }) => (
        <div key={lane.label}>
          {plans.length > 1 && <h3 className="font-bold">{tell.label(lane.label)}</h3>}
          {legs === null ? (
            <p>
              {tell(
                minutes < leastMin
                  ? "A run is 5 minutes at least."
                  : "No run of this length keeps all the limits. Try another length.",
              )}
            </p>
          ) : (
            <LegTable legs={legs} care={lane.care} />
          )}
        </div>
      ))}
    </div>
  );
}

/** What was really run of a run that was followed. */
const endRun = ({ begunAtMs, skipped, lanes }: Following, ranS: number): Ran => ({
  lanes: lanes.map((lane) => ({ ...lane, legs: cutLegs(lane.legs, ranS, skipped) })),
  begunAtMs,
});
