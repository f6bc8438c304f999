import { useState } from "react";
import { ulid } from "ulid";
import type { NewRun } from "../../api/index.ts";
import { type Leg, sampleLegs } from "../../core/breakin/index.ts";
import { fromClock, type LocalDate, toClock } from "../../core/dates/index.ts";
import type { Tell } from "../../core/language/index.ts";
import { Button } from "../ui/Button.tsx";
import { Chip } from "../ui/Chip.tsx";
import { storeDay, storeMinutes } from "../ui/storeTime.ts";
import { useTell } from "../ui/tell.ts";
import { useIds } from "../ui/useIds.ts";
import type { BreakInPort } from "./breakInPort.ts";
import { type EngineSet, listSets } from "./engineSets.ts";
import { RunDay, runField } from "./RunDay.tsx";
import type { LaneLegs, Ran } from "./useFollow.ts";

interface TypedLeg {
  readonly key: string;
  readonly minutes: string;
  readonly rpm: string;
}
interface TypedLane extends Omit<LaneLegs, "legs"> {
  readonly legs: readonly TypedLeg[];
}

const typeLegs = (legs: readonly Leg[]): TypedLeg[] =>
  legs.map(({ minutes, rpm }) => ({ key: ulid(), minutes: String(minutes), rpm: String(rpm) }));
const firstLeg: Leg = { minutes: 5, rpm: 1200 };

interface ByHandProps {
  readonly port: BreakInPort;
  /** Legs that were just followed, to begin with. */
  readonly ran: Ran | null;
  readonly isBusy: boolean;
  readonly onKeep: (run: NewRun) => void;
}

/** A run leg by leg: about what speed for how many minutes; of twins one list for both, or one each. */
export function RunByHand({ port, ran, isBusy, onKeep }: ByHandProps) {
  const tell = useTell();
  const sets = listSets(port.care);
  const lanesOf = (set: EngineSet | undefined, legs: readonly TypedLeg[]): TypedLane[] =>
    (set?.lanes ?? []).map(({ label, care }) => ({
      label,
      engines: care.map(({ engine }) => engine),
      legs: legs.map((leg) => ({ ...leg, key: ulid() })),
    }));
  const [date, setDate] = useState<LocalDate | null>(ran === null ? port.today : storeDay(ran.begunAtMs));
  const [start, setStart] = useState(ran === null ? "12:00" : toClock(storeMinutes(ran.begunAtMs)));
  // One id an engine until it is kept: pressed twice, it is one run.
  const idOf = useIds();
  const [way, setWay] = useState(sets[0]?.key);
  const [lanes, setLanes] = useState<readonly TypedLane[]>(
    () => ran?.lanes.map((lane) => ({ ...lane, legs: typeLegs(lane.legs) })) ?? lanesOf(sets[0], typeLegs([firstLeg])),
  );
  const [fault, setFault] = useState<string | null>(null);
  const isOneOf = lanes.length > 1;
  const submit = () => {
    if (date === null) return;
    const engines: NewRun["engines"] = [];
    for (const lane of lanes) {
      const read = readLegs(lane.legs, isOneOf ? tell("{0}, leg", tell.label(lane.label)) : tell("Leg"), tell);
      if (typeof read === "string") return setFault(read);
      const samples = sampleLegs(read);
      for (const engine of lane.engines) engines.push({ id: idOf(engine), engine, samples });
    }
    setFault(null);
    onKeep({ date, startMin: fromClock(start), source: "hand", fileName: "", engines });
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      {ran === null && sets.length > 1 && (
        <div className="mb-2 flex flex-wrap gap-2" role="radiogroup" aria-label={tell("Engines that ran")}>
          {sets.map((set) => (
            <Chip
              key={set.key}
              isPicked={way === set.key}
              onPick={() => {
                setWay(set.key);
                setLanes(lanesOf(set, lanes[0]?.legs ?? []));
              }}
            >
              {tell(set.key === "apart" ? "Each by itself" : set.label)}
            </Chip>
          ))}
        </div>
      )}
      <RunDay port={port} date={date} start={start} onDate={setDate} onStart={setStart} />
      <div className="mt-2 flex flex-wrap gap-x-10 gap-y-4">
        {lanes.map((lane, i) => (
          <LegsTyped
            key={lane.label}
            lane={lane}
            isOneOf={isOneOf}
            onChange={(legs) => setLanes(lanes.map((each, n) => (n === i ? { ...each, legs } : each)))}
          />
        ))}
      </div>
      {fault !== null && (
        <p role="alert" className="text-magenta">
          ▲ {fault}
        </p>
      )}
      <Button type="submit" look="primary" className="mt-2" disabled={isBusy}>
        {tell("Save")}
      </Button>
    </form>
  );
}

/** The legs as numbers, or what is wrong with one of them. */
function readLegs(typed: readonly TypedLeg[], of: string, tell: Tell): Leg[] | string {
  const legs: Leg[] = [];
  for (const [i, { minutes, rpm }] of typed.entries()) {
    const leg = { minutes: Number(minutes.replace(",", ".")), rpm: Number(rpm.replace(/[,. ]/g, "")) };
    if (!(leg.minutes > 0 && leg.minutes <= 600)) return tell("{0} {1}: minutes from 0.1 to 600.", of, i + 1);
    if (rpm.trim() === "" || !(leg.rpm >= 0 && leg.rpm <= 20_000))
      return tell("{0} {1}: rpm from 0 to 20,000.", of, i + 1);
    legs.push(leg);
  }
  return legs;
}

interface LegsProps {
  readonly lane: TypedLane;
  readonly isOneOf: boolean;
  readonly onChange: (legs: readonly TypedLeg[]) => void;
}

function LegsTyped({ lane: { label, legs }, isOneOf, onChange }: LegsProps) {
  const tell = useTell();
  const of = isOneOf ? `, ${tell.label(label)}` : "";
  const set = (key: string, change: Partial<TypedLeg>) =>
    onChange(legs.map((leg) => (leg.key === key ? { ...leg, ...change } : leg)));
  return (
    <div>
      {isOneOf && <h3 className="font-bold">{label}</h3>}
      <table>
        <thead>
          <tr className="text-left">
            <th className="pr-3 font-normal text-soft">{tell("Minutes")}</th>
            <th className="pr-3 font-normal text-soft">{tell("About what rpm")}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {legs.map(({ key, minutes, rpm }, i) => (
            <tr key={key}>
              <td className="py-1 pr-3">
                <input
                  aria-label={tell("Minutes of leg {0}{1}", i + 1, of)}
                  inputMode="decimal"
                  className={`${runField} w-18 text-right sm:w-24`}
                  value={minutes}
                  onChange={(event) => set(key, { minutes: event.target.value })}
                />
              </td>
              <td className="py-1 pr-3">
                <input
                  aria-label={tell("rpm of leg {0}{1}", i + 1, of)}
                  inputMode="numeric"
                  className={`${runField} w-22 text-right sm:w-28`}
                  value={rpm}
                  onChange={(event) => set(key, { rpm: event.target.value })}
                />
              </td>
              <td>
                <button
                  type="button"
                  className="min-h-12 px-2 underline disabled:opacity-40"
                  disabled={legs.length === 1}
                  aria-label={tell("Take leg {0} out{1}", i + 1, of)}
                  onClick={() => onChange(legs.filter((leg) => leg.key !== key))}
                >
                  {tell("Take out")}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        className="mt-1"
        onClick={() => onChange([...legs, { key: ulid(), minutes: "5", rpm: legs.at(-1)?.rpm ?? "2000" }])}
      >
        {tell("Another leg{0}", of)}
      </Button>
    </div>
  );
}
