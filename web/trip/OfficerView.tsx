import { useState } from "react";
import type { GearPack } from "../../core/gear/index.ts";
import { type Rig, sayPlace } from "../../core/rig/index.ts";
import type { WalkState } from "../../core/walk/index.ts";
import { DeckPlan } from "../plan/DeckPlan.tsx";
import { useBook, useReader } from "../ui/tell.ts";
import { formatDayAndYear } from "../ui/words.ts";

interface OfficerViewProps {
  readonly rig: Rig;
  readonly pack: GearPack;
  readonly counted: WalkState["gear"];
}

/** A safety check by an officer: touch what they ask for, and it is shown on the plan with how many there are and until when. */
export function OfficerView({ rig, pack, counted }: OfficerViewProps) {
  const reader = useReader();
  const book = useBook();
  const { tell } = reader;
  const [asked, setAsked] = useState<string | null>(null);
  const rule = pack.rules.find(({ id }) => id === asked);
  const parts = rule === undefined ? [] : rig.parts.filter(({ kind }) => rule.parts.includes(kind));
  return (
    <div className="gap-8 md:grid md:grid-cols-2">
      <ul className="grid grid-cols-2 content-start gap-2" aria-label={tell("What is asked for")}>
        {pack.rules.map(({ id, label }) => (
          <li key={id}>
            <button
              type="button"
              aria-pressed={asked === id}
              onClick={() => setAsked(id)}
              className="head flex min-h-16 w-full items-center rounded-md border border-ink bg-panel px-3 text-left text-lg font-bold aria-pressed:bg-helm aria-pressed:text-onhelm"
            >
              {tell(label)}
            </button>
          </li>
        ))}
      </ul>
      <div role="status" className="max-md:mt-4">
        {rule === undefined ? (
          <p className="text-soft">{tell("Touch what the officer asks for.")}</p>
        ) : (
          <>
            <h2 className="text-2xl font-extrabold">{tell(rule.label)}</h2>
            {rule.gear.map((item) => {
              const entry = counted.get(item);
              return entry === undefined ? null : (
                <p key={item} className="num text-lg">
                  {entry.dated === undefined
                    ? tell("{0} counted", entry.count)
                    : tell("{0} counted, good until {1}", entry.count, formatDayAndYear(entry.dated, reader))}
                </p>
              );
            })}
            <p className="text-lg">
              {parts.length === 0
                ? tell("Its place is not on the boat sheet: ask whoever stowed it.")
                : parts.map((part) => `${tell.label(part.label)}: ${sayPlace(rig, part, book)}`).join("; ")}
            </p>
            <DeckPlan rig={rig} parts={parts} className="mt-2 h-[50vh]" />
          </>
        )}
      </div>
    </div>
  );
}
