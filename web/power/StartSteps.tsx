import { listStartHelp } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { storeRegion } from "../ui/storeTime.ts";
import { useBook, useTell } from "../ui/tell.ts";

/** How she is started when her battery will not: for her own switches, cautions before the first step. */
export function StartSteps({ rig }: { rig: Rig }) {
  const tell = useTell();
  const book = useBook();
  return (
    <section aria-labelledby="start-steps" className="mt-6">
      <h2 id="start-steps" className="text-lg font-bold">
        {tell("When the battery will not start the engine")}
      </h2>
      {listStartHelp(rig, { ...storeRegion(), book }).map(({ title, cautions, steps }) => (
        <details key={title} className="border-t border-ink">
          <summary className="head min-h-11 cursor-pointer content-center font-semibold">{title}</summary>
          <ul className="rounded-md bg-caution px-3 py-2 font-semibold text-oncaution">
            {cautions.map((caution) => (
              <li key={caution}>▲ {caution}</li>
            ))}
          </ul>
          <ol className="my-2 list-decimal space-y-1 pl-6">
            {steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </details>
      ))}
    </section>
  );
}
