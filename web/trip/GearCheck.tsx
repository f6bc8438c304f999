import { useState } from "react";
import type { GearPack } from "../../core/gear/index.ts";
import { type Rig, sayPlace } from "../../core/rig/index.ts";
import type { JudgedTrip } from "../../core/trip/index.ts";
import { DeckPlan } from "../plan/DeckPlan.tsx";
import { Button } from "../ui/Button.tsx";
import { useReader } from "../ui/tell.ts";
import { formatDayAndYear } from "../ui/words.ts";
import type { Trip } from "./useTrip.ts";

interface GearCheckProps {
  readonly trip: Trip;
  readonly pack: GearPack;
  readonly judged: JudgedTrip;
  readonly rig: Rig;
}

/** What must be aboard for these people on this water: counted here, and each thing found on the plan by one touch. */
export function GearCheck({ trip, pack, judged, rig }: GearCheckProps) {
  const reader = useReader();
  const { tell } = reader;
  const { draft, change } = trip;
  const [shown, setShown] = useState<string | null>(null);
  const items = judged.gear.items;
  const countOf = (item: string) => draft.aboard.find((each) => each.item === item);
  const setCount = (item: string, qty: number) => {
    const before = countOf(item);
    const others = draft.aboard.filter((each) => each.item !== item);
    change({ aboard: [...others, { ...(before ?? { item }), qty: Math.max(0, qty) }] });
  };
  const rule = pack.rules.find(({ id }) => id === shown);
  const parts = rule === undefined ? [] : rig.parts.filter(({ kind }) => rule.parts.includes(kind));
  return (
    <section aria-labelledby="gear-check" className="mt-6">
      <h2 id="gear-check" className="text-lg font-bold">
        {tell("Safety gear")}
      </h2>
      <p className="border-t border-ink pt-1 text-sm text-soft">
        {tell(pack.name)}.{" "}
        {tell(
          pack.isExample
            ? "Check your local law; this is an example, nobody's law. Last checked {0}."
            : "Check your local law. Last checked {0}.",
          formatDayAndYear(pack.checkedOn, reader),
        )}
      </p>
      <div className="gap-6 md:grid md:grid-cols-[minmax(0,1fr)_220px]">
        <ul>
          {items.map(({ rule: id, needed, good, expired, missing }) => {
            const { label, says, gear } = pack.rules.find((each) => each.id === id)!;
            const item = gear[0];
            const counted = item === undefined ? undefined : countOf(item);
            return (
              <li key={id} className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-2">
                <span className="min-w-44 flex-1">
                  <strong className={missing > 0 ? "text-magenta" : ""}>
                    {missing > 0 ? "▲ " : "✓ "}
                    {tell(label)}
                  </strong>
                  <span className="block text-sm text-soft">{tell(says)}</span>
                  {missing > 0 && (
                    <span className="block text-sm text-magenta">
                      {expired > 0
                        ? tell("{0} missing, {1} out of date", missing, expired)
                        : tell("{0} missing", missing)}
                    </span>
                  )}
                </span>
                <span className="num w-16 text-right">{tell("{0} of {1}", good, needed)}</span>
                {item !== undefined && (
                  <span className="flex items-center gap-1">
                    <Button
                      aria-label={tell("One less: {0}", tell(label))}
                      onClick={() => setCount(item, (counted?.qty ?? 0) - 1)}
                    >
                      −
                    </Button>
                    <Button
                      aria-label={tell("One more: {0}", tell(label))}
                      onClick={() => setCount(item, (counted?.qty ?? 0) + 1)}
                    >
                      +
                    </Button>
                  </span>
                )}
                <Button
                  look="quiet"
                  aria-pressed={shown === id}
                  aria-label={tell("Where: {0}", tell(label))}
                  onClick={() => setShown(shown === id ? null : id)}
                >
                  {tell("Where")}
                </Button>
              </li>
            );
          })}
        </ul>
        {rule !== undefined && (
          <div className="max-md:mt-3" role="status">
            <p className="font-semibold">{tell(rule.label)}</p>
            <p>
              {parts.length === 0
                ? tell("No place on the boat sheet: put it where everybody knows.")
                : parts.map((part) => sayPlace(rig, part)).join("; ")}
            </p>
            {parts.length > 0 && <DeckPlan rig={rig} parts={parts} className="h-80" />}
          </div>
        )}
      </div>
    </section>
  );
}
