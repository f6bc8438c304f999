import { useMemo, useState } from "react";
import type { EngineCare } from "../../api/index.ts";
import { breakInPlan, type Leg, usualIdleRpm } from "../../core/breakin/index.ts";
import { Button } from "../ui/Button.tsx";
import { Chip } from "../ui/Chip.tsx";
import type { BreakInDoor } from "./door.ts";
import { FollowRun, sayMinutesShort } from "./FollowRun.tsx";
import { type Following, keepFollowing, readFollowing } from "./useFollow.ts";

const lengths = [30, 60, 90, 120, 180] as const;

interface NextRunProps {
  readonly door: BreakInDoor;
  /** A run was followed to its end or ended by hand: these legs were run. */
  readonly onRan: (legs: readonly Leg[]) => void;
}

/** "I have 90 minutes": the speeds to go to, least turned first, within what the hours allow; then followed at the helm. */
export function NextRun({ door, onRan }: NextRunProps) {
  const [minutes, setMinutes] = useState(90);
  const [following, setFollowing] = useState<Following | null>(() => readFollowing(door.key));
  const engines = door.care.filter(({ limits, breakIn }) => limits.length > 0 && breakIn !== null);
  const plans = useMemo(() => engines.map((care) => ({ care, legs: planOf(care, minutes) })), [engines, minutes]);
  // Twins turn together: the plan is that of the engine with the fewest hours, whose limits are the stricter.
  const lead = [...plans].sort((a, b) => (a.care.toldH ?? 0) - (b.care.toldH ?? 0))[0];
  if (lead === undefined)
    return (
      <p className="text-soft">
        There is a plan as soon as hours were told, and, where the break-in is counted in tanks, the burn stands on the
        rig sheet.
      </p>
    );
  const change = (value: Following | null) => {
    keepFollowing(door.key, value);
    setFollowing(value);
  };
  const isTwin = plans.length > 1;
  return (
    <section aria-labelledby="next-run">
      <h2 id="next-run" className="text-lg font-bold">
        Next run
      </h2>
      <div className="border-t border-ink pt-3">
        <div
          className="flex flex-wrap items-center gap-2 print:hidden"
          role="radiogroup"
          aria-label="Minutes there are"
        >
          <span className="text-soft">I have</span>
          {lengths.map((each) => (
            <Chip key={each} isPicked={minutes === each} onPick={() => setMinutes(each)}>
              <span className="num">{each}</span> min
            </Chip>
          ))}
          <label className="flex items-center gap-2">
            <span className="text-soft">or</span>
            <input
              type="number"
              min={5}
              max={240}
              value={minutes}
              aria-label="Minutes"
              onChange={(event) => setMinutes(Math.max(0, Math.min(240, Number(event.target.value))))}
              className="num min-h-12 w-20 rounded-md border border-soft bg-panel px-2 text-right"
            />
          </label>
        </div>
        {lead.legs === null ? (
          <p className="mt-3">
            {minutes < 5
              ? "A run is 5 minutes at least."
              : "No run of this length keeps all the limits. Try another length."}
          </p>
        ) : (
          <>
            <p className="mt-3 border-l-4 border-oncaution bg-caution px-3 py-2 text-oncaution">
              Warm up with the boat in the water or on the hose, never dry. Where the engine maker's manual asks
              otherwise, it comes first.
            </p>
            <table className="mt-3 w-full max-w-xl text-lg">
              <thead>
                <tr className="border-b border-ink">
                  <th className="w-10 py-1 text-right">Leg</th>
                  <th className="text-right">rpm, about</th>
                  <th className="text-right">For</th>
                  <th className="text-right">From</th>
                  <th className="pl-5">Why</th>
                </tr>
              </thead>
              <tbody>
                {lead.legs.map((leg, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: legs are known by their place
                  <tr key={i} className="border-b border-rule">
                    <td className="num py-1.5 text-right text-soft">{i + 1}</td>
                    <td className="num text-right text-xl font-bold">{leg.rpm.toLocaleString("en-GB")}</td>
                    <td className="num text-right">{sayMinutesShort(leg.minutes)}</td>
                    <td className="num text-right text-soft">{startOf(lead.legs!, i)}</td>
                    <td className="pl-5 text-base text-soft">{whyOf(lead.legs!, i, lead.care)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {isTwin && (
              <p className="mt-2 text-soft">
                Both engines together, by the limits of {lead.care.label}, which has the fewer hours.
              </p>
            )}
            <p className="mt-3 flex flex-wrap gap-2 print:hidden">
              <Button
                look="primary"
                className="min-h-14 px-6 text-lg"
                onClick={() => change({ legs: lead.legs!, startedAtMs: Date.now(), pausedAtMs: null })}
              >
                Follow it at the helm
              </Button>
              <Button className="min-h-14" onClick={() => window.print()}>
                Print it
              </Button>
            </p>
          </>
        )}
      </div>
      {following !== null && (
        <FollowRun
          following={following}
          onChange={change}
          onEnd={(ranS) => {
            const ran = cutLegs(following.legs, ranS);
            change(null);
            if (ran.length > 0) onRan(ran);
          }}
        />
      )}
    </section>
  );
}

function planOf(care: EngineCare, minutes: number): Leg[] | null {
  if (minutes < 5) return null;
  const coveredS = Object.fromEntries(care.coverage.map(({ fromRpm, s }) => [String(fromRpm), s]));
  const answer = breakInPlan({
    phases: care.limits,
    hoursBefore: care.toldH ?? 0,
    minutes,
    coveredS,
    idleRpm: usualIdleRpm,
    topRpm: care.ratedToRpm,
  });
  return answer.ok ? answer.value.legs : null;
}

const startOf = (legs: readonly Leg[], index: number) => {
  const s = Math.round(legs.slice(0, index).reduce((sum, { minutes }) => sum + minutes, 0) * 60);
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
};

function whyOf(legs: readonly Leg[], index: number, care: EngineCare): string {
  if (index === legs.length - 1) return "cool down before you switch off";
  const until = legs.findIndex(({ rpm }) => rpm > 1500);
  if (index < (until < 0 ? legs.length : until)) return "warm up";
  const band = care.coverage.find(({ fromRpm }) => legs[index]!.rpm >= fromRpm && legs[index]!.rpm < fromRpm + 500);
  const wot = care.limits.find((limit) => limit.wot !== undefined)?.wot?.rpm;
  if (wot !== undefined && legs[index]!.rpm >= wot) return "full throttle, short";
  return band !== undefined && band.s === 0 ? "not turned yet" : "";
}

/** The legs as far as they were run. */
function cutLegs(legs: readonly Leg[], ranS: number): Leg[] {
  const ran: Leg[] = [];
  let left = ranS / 60;
  for (const { rpm, minutes } of legs) {
    if (left <= 0.05) break;
    ran.push({ rpm, minutes: Math.round(Math.min(minutes, left) * 10) / 10 });
    left -= minutes;
  }
  return ran.filter(({ minutes }) => minutes > 0);
}
