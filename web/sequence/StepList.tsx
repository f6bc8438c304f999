import { Check, Minus } from "lucide-react";
import type { BuiltSequence } from "../../core/sequence/index.ts";
import { useTell } from "../ui/tell.ts";
import { formatClock } from "../ui/words.ts";
import type { Steps } from "./useSteps.ts";

/** All steps in order with what stands of each; one that was marked wrongly is opened again by a touch. */
export function StepList({ steps, built }: { steps: Steps; built: BuiltSequence }) {
  const tell = useTell();
  const { state, way } = steps;
  return (
    <ol aria-label={tell("All steps")} className="mt-4">
      {built.phases.map((phase) => (
        <li key={phase.id} className="mt-3">
          <h3 className="head border-b border-ink font-bold">{phase.title}</h3>
          <ul>
            {phase.steps.map(({ id, say, by }) => {
              const mark = state.marks.get(id);
              return (
                <li key={id} className="flex items-center gap-2 border-b border-rule py-1">
                  <span aria-hidden className="w-5 shrink-0">
                    {mark?.as === "done" && <Check size={18} />}
                    {mark?.as === "skipped" && <Minus size={18} />}
                  </span>
                  <span className={`min-w-0 flex-1 ${mark === undefined ? "" : "text-soft"}`}>
                    {say}
                    {way.way === "partner" && mark === undefined && (
                      <span className="text-soft"> ({built.called[by]})</span>
                    )}
                    {mark !== undefined && (
                      <span className="block text-sm">
                        {tell(mark.as === "done" ? "done" : "left out")}
                        {mark.entry === null ? tell(", by the other phone") : ` ${formatClock(mark.entry.at)}`}
                      </span>
                    )}
                  </span>
                  {mark !== undefined && (
                    <button
                      type="button"
                      aria-label={tell("Open again: {0}", say)}
                      className="min-h-11 px-2 text-sm underline"
                      onClick={() => steps.say(id, "open", by)}
                    >
                      {tell("Open again")}
                    </button>
                  )}
                </li>
              );
            })}
          </ul>
        </li>
      ))}
    </ol>
  );
}
