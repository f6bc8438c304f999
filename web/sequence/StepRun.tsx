import { type ReactNode, useState } from "react";
import { findNextStep, type Sequence } from "../../core/sequence/index.ts";
import { Button } from "../ui/Button.tsx";
import { PickField } from "../ui/fields.tsx";
import { useTell } from "../ui/tell.ts";
import { PassOn } from "./PassOn.tsx";
import { StepCard } from "./StepCard.tsx";
import { StepList } from "./StepList.tsx";
import { type Steps, type StepsPort, useSteps } from "./useSteps.ts";

interface StepRunProps {
  readonly sequence: Sequence;
  readonly port: StepsPort;
  /** Where a topic is read, for those who want to know more. */
  readonly more?: (topic: string) => ReactNode;
}

/** Hitching up, launching, loading: one step at a time, each person their own, every step taken by hand. */
export function StepRun({ sequence, port, more }: StepRunProps) {
  const tell = useTell();
  const steps = useSteps(sequence, port);
  const { built, state, role, way } = steps;
  if (built === null) return <p>{tell("This boat has no trailer on its sheet, so there is nothing to do here.")}</p>;
  const all = built.phases.flatMap((phase) => phase.steps);
  const done = all.filter(({ id }) => state.marks.has(id)).length;
  const next = findNextStep(built, state, role);
  return (
    <div className="@container">
      <div className="gap-x-8 @3xl:grid @3xl:grid-cols-[minmax(0,1fr)_340px]">
        <div className="min-w-0">
          <h1 className="text-2xl font-extrabold md:text-3xl">{built.title}</h1>
          <p className="text-soft">{built.lead}</p>
          <Choices sequence={sequence} steps={steps} />
          <details open={done === 0} className="mt-3 rounded-md bg-caution px-4 py-1 text-oncaution">
            <summary className="flex min-h-11 cursor-pointer items-center font-semibold">{tell("Cautions")}</summary>
            <ul className="list-disc space-y-1 pb-2 pl-5">
              {built.cautions.map((caution) => (
                <li key={caution}>{caution}</li>
              ))}
            </ul>
          </details>
          <p className="num mt-3 font-semibold" aria-live="polite">
            {tell("{0} of {1} steps done", done, all.length)}
          </p>
          <span aria-hidden className="block h-2 bg-shoal">
            <span className="block h-2 bg-helm" style={{ width: `${(done / all.length) * 100}%` }} />
          </span>
          {next === null ? (
            <Through steps={steps} isAll={done === all.length} title={built.title} />
          ) : (
            <StepCard key={next.step.id} next={next} steps={steps} sequence={sequence.id} more={more} />
          )}
          {way.way === "partner" && !built.isTogether && <PassOn steps={steps} />}
        </div>
        <div className="mt-6 @3xl:mt-0">
          <StepList steps={steps} built={built} />
        </div>
      </div>
    </div>
  );
}

function Choices({ sequence, steps }: { sequence: Sequence; steps: Steps }) {
  const tell = useTell();
  const { way, setWay, role, setRole } = steps;
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-3 sm:grid-cols-3">
      {sequence.ways.length > 1 && (
        <PickField
          label={tell("How many")}
          value={way.way}
          options={[
            ["partner", tell("two people")],
            ["alone", tell("alone")],
          ]}
          onChange={(chosen) => setWay({ ...way, way: chosen })}
        />
      )}
      {way.way === "partner" && sequence.isTogether !== true && (
        <PickField
          label={tell("I am the")}
          value={role}
          options={[
            ["skipper", tell("skipper and driver")],
            ["helper", tell("helper")],
          ]}
          onChange={setRole}
        />
      )}
      {sequence.methods !== undefined && way.way === "partner" && (
        <PickField
          label={tell("On the trailer")}
          value={way.method}
          options={[
            ["winch", tell("by the winch")],
            ["drive", tell("driven on, where allowed")],
          ]}
          onChange={(method) => setWay({ ...way, method })}
        />
      )}
    </div>
  );
}

/** One's own part is done; whether all of it is depends on the other. */
function Through({ steps, isAll, title }: { steps: Steps; isAll: boolean; title: string }) {
  const tell = useTell();
  const [isAsked, setAsked] = useState(false);
  const left = [...steps.state.marks.values()].filter(({ as }) => as === "skipped").length;
  return (
    <section aria-label={tell("Done")} className="mt-4 border-l-4 border-helm bg-panel px-4 py-4">
      <h2 className="text-xl font-bold">
        {isAll ? tell("✓ {0}: every step is done", title) : tell("Your part is done. Wait for the other.")}
      </h2>
      {left > 0 && (
        <p className="text-magenta">
          {left === 1 ? tell("▲ 1 step was left out: see below.") : tell("▲ {0} steps were left out: see below.", left)}
        </p>
      )}
      {isAll && (
        <p className="mt-3">
          {isAsked ? (
            <>
              <Button onClick={steps.beginAgain}>{tell("Yes, begin again")}</Button>{" "}
              <Button look="quiet" onClick={() => setAsked(false)}>
                {tell("Cancel")}
              </Button>
            </>
          ) : (
            <Button onClick={() => setAsked(true)}>{tell("Begin again")}</Button>
          )}
        </p>
      )}
    </section>
  );
}
