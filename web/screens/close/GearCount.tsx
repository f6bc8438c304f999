import { Minus, Plus } from "lucide-react";
import { useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import { goesOutOfDate } from "../../../core/care/gearDates.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { Button } from "../../ui/Button.tsx";
import { DateInput } from "../../ui/DateInput.tsx";

type Gear = Delivery["rig"]["gear"][number];

const groupNames = {
  keys: "Keys",
  papers: "Papers",
  safety: "Safety gear",
  deck: "Deck",
  water: "Water",
  trailer: "Trailer",
} as const;

/** Things handed over, counted against what was sold with the boat. Short counts become owed. */
export function GearCount({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const { gear } = delivery.rig;
  const count = (item: string, value: number) => countGear(delivery.id, state, item, value);
  const uncounted = gear.filter(({ id }) => !state.gear.has(id));
  const groups = [...new Set(gear.map(({ group }) => group))];
  return (
    <>
      {uncounted.length > 0 && (
        <Button
          onClick={() => {
            for (const item of uncounted) count(item.id, item.count);
          }}
        >
          The other {uncounted.length} are all there
        </Button>
      )}
      {groups.map((group) => (
        <div key={group}>
          <h3 className="head border-b border-ink pt-2 text-[0.8125rem] font-semibold text-soft">
            {groupNames[group]}
          </h3>
          <ul className="gap-x-8 lg:grid lg:grid-cols-2">
            {gear
              .filter((item) => item.group === group)
              .map((item) => (
                <GearLine key={item.id} delivery={delivery.id} state={state} item={item} />
              ))}
          </ul>
        </div>
      ))}
    </>
  );
}

function countGear(delivery: string, state: WalkState, item: string, count: number) {
  const dated = state.gear.get(item)?.dated;
  void syncQueue.add(delivery, { kind: "gear", item, count, ...(dated === undefined ? {} : { dated }) });
}

interface GearLineProps {
  readonly delivery: string;
  readonly state: WalkState;
  readonly item: Gear;
}

function GearLine({ delivery, state, item }: GearLineProps) {
  // More than was listed is asked about before it is written down: a finger slips more often than a yard gives.
  const [asked, setAsked] = useState<number | null>(null);
  const counted = state.gear.get(item.id)?.count;
  const isShort = counted !== undefined && counted < item.count;
  const count = (value: number) => {
    setAsked(null);
    countGear(delivery, state, item.id, value);
  };
  const more = (asked ?? counted ?? 0) + 1;
  return (
    <li className="flex min-h-12 flex-wrap items-center gap-x-3 border-b border-rule">
      <span className={`min-w-32 flex-1 ${item.must ? "font-semibold" : ""}`}>{item.label}</span>
      {goesOutOfDate(item) && counted !== undefined && (
        <GearDate delivery={delivery} state={state} item={item} counted={counted} />
      )}
      {isShort && <span className="text-magenta">▲ {item.count - counted} short</span>}
      <Button
        aria-label={`One less: ${item.label}`}
        className="w-11 px-0!"
        disabled={counted === 0}
        onClick={() => count(Math.max(0, (counted ?? item.count) - 1))}
      >
        <Minus size={18} aria-hidden />
      </Button>
      <button
        type="button"
        aria-label={`${item.label}: ${counted === undefined ? `not counted, all ${item.count} there` : `${counted} of ${item.count}`}`}
        className={`num min-h-11 w-20 rounded-md text-center ${counted === undefined ? "text-soft underline" : "font-bold"}`}
        onClick={() => count(item.count)}
      >
        {counted ?? "–"} <span className="font-normal text-soft">of {item.count}</span>
      </button>
      <Button
        aria-label={`One more: ${item.label}`}
        className="w-11 px-0!"
        onClick={() => (more > item.count ? setAsked(more) : count(more))}
      >
        <Plus size={18} aria-hidden />
      </Button>
      {asked !== null && (
        <p role="alert" className="flex basis-full flex-wrap items-center gap-2 pb-2 text-amber">
          ◷ The list says {item.count}. Were {asked} handed over?
          <Button onClick={() => count(asked)}>Yes, {asked}</Button>
          <Button look="quiet" onClick={() => setAsked(null)}>
            No
          </Button>
        </p>
      )}
    </li>
  );
}

function GearDate({ delivery, state, item, counted }: GearLineProps & { readonly counted: number }) {
  const before = state.gear.get(item.id)?.dated ?? null;
  return (
    <label className="flex items-center gap-2 text-soft">
      dated
      <DateInput
        aria-label={`Date on: ${item.label}`}
        value={before}
        onDate={(dated) => {
          const entry = { kind: "gear" as const, item: item.id, count: counted };
          if (dated !== before) void syncQueue.add(delivery, dated === null ? entry : { ...entry, dated });
        }}
        className="num min-h-11 rounded-md border border-soft bg-panel px-2 text-ink"
      />
    </label>
  );
}
