import type { ReactNode } from "react";
import { judgeWheels, type NextStep } from "../../core/sequence/index.ts";
import { Button } from "../ui/Button.tsx";
import { useTell } from "../ui/tell.ts";
import { StepTimer } from "./StepTimer.tsx";
import type { Steps } from "./useSteps.ts";
import { WheelReads } from "./WheelReads.tsx";

interface StepCardProps {
  readonly next: NextStep;
  readonly steps: Steps;
  readonly sequence: string;
  readonly more?: ((topic: string) => ReactNode) | undefined;
}

/** One's own next step, its caution before it, and a button a wet thumb hits. What the other has to do first stands above. */
export function StepCard({ next: { step, phase, waitsFor }, steps, more }: StepCardProps) {
  const tell = useTell();
  const isWaiting = waitsFor.length > 0;
  const called = steps.built?.called ?? { skipper: "skipper", helper: "helper" };
  const isStopped = [...judgeWheels(step.reads, steps.state.readings).values()].some(
    ({ verdict }) => verdict === "over",
  );
  return (
    <section aria-label={tell("Next step")} className="mt-4 border-t-[3px] border-ink bg-panel px-4 pt-3 pb-4">
      <p className="head text-soft">
        {steps.built?.isTogether === true ? tell("{0}: the {1}", phase, called[step.by]) : phase}
      </p>
      {isWaiting && (
        <div className="my-2 border-l-4 border-amber pl-3">
          <p className="font-bold">{tell("Wait. The {0} has this first:", called[waitsFor[0]!.by])}</p>
          <ul className="my-1">
            {waitsFor.map(({ id, say, by }) => (
              <li key={id} className="flex flex-wrap items-center justify-between gap-2 py-1">
                <span className="min-w-0 flex-1">{say}</span>
                <Button
                  className="min-h-12"
                  aria-label={tell("I saw it done: {0}", say)}
                  onClick={() => steps.say(id, "done", by)}
                >
                  {tell("I saw it done")}
                </Button>
              </li>
            ))}
          </ul>
        </div>
      )}
      {step.caution !== null && (
        <p
          role="note"
          aria-label={tell("Caution")}
          className="my-2 rounded-md bg-caution px-3 py-2 font-semibold text-oncaution"
        >
          {step.caution}
        </p>
      )}
      <h2 className={`text-2xl leading-snug font-bold ${isWaiting ? "text-soft" : ""}`} aria-live="polite">
        {step.say}
      </h2>
      {step.proof !== null && (
        <p className="mt-1 text-lg">
          <strong>{tell("Right when:")}</strong> {step.proof}
        </p>
      )}
      {step.other !== null && (
        <p className="mt-1 text-soft">
          {tell("The {0} meanwhile: {1}", called[step.by === "skipper" ? "helper" : "skipper"], step.other)}
        </p>
      )}
      {step.minutes !== null && <StepTimer id={`${steps.run} ${step.id}`} minutes={step.minutes} />}
      {step.reads.length > 0 && <WheelReads reads={step.reads} steps={steps} />}
      {step.topic !== null && more?.(step.topic)}
      <div className="mt-4 flex gap-3">
        <Button
          look={isStopped ? "plain" : "primary"}
          className="min-h-16 flex-1 text-xl"
          disabled={isWaiting}
          onClick={() => steps.say(step.id, "done", step.by)}
        >
          {tell(isStopped ? "Done, and put right" : "Done")}
        </Button>
        <Button
          look="quiet"
          className="min-h-16"
          aria-label={tell("Leave out: {0}", step.say)}
          onClick={() => steps.say(step.id, "skipped", step.by)}
        >
          {tell("Leave out")}
        </Button>
      </div>
    </section>
  );
}
