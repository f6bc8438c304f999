import { useState } from "react";
import type { Verdict } from "../../core/measure/index.ts";
import { type JudgedWheel, judgeWheels, type WheelRead } from "../../core/sequence/index.ts";
import type { Typed } from "../../core/units/index.ts";
import { say } from "../ui/amounts.ts";
import { Button } from "../ui/Button.tsx";
import { QuantityField } from "../ui/QuantityField.tsx";
import { useTell } from "../ui/tell.ts";
import type { Steps } from "./useSteps.ts";

const looks: Record<Verdict, { sign: string; look: string }> = {
  fits: { sign: "✓", look: "" },
  tight: { sign: "◷", look: "text-amber" },
  over: { sign: "▲", look: "text-magenta font-bold" },
  unknown: { sign: "?", look: "text-soft" },
};

/** What is read at each wheel, judged at once: by itself, and side against side. */
export function WheelReads({ reads, steps }: { reads: readonly WheelRead[]; steps: Steps }) {
  const { readings } = steps.state;
  const judged = judgeWheels(reads, readings);
  return (
    <ul className="mt-3 grid gap-3 sm:grid-cols-2">
      {reads.map((read) => (
        <Read key={read.id} read={read} steps={steps} judged={judged.get(read.id)} />
      ))}
    </ul>
  );
}

function Read({ read, steps, judged }: { read: WheelRead; steps: Steps; judged: JudgedWheel | undefined }) {
  const tell = useTell();
  const isHub = read.asks === "hubs";
  const quantity = isHub ? "temperature" : "pressure";
  const taken = steps.state.readings.get(read.id);
  const [value, setValue] = useState<number | undefined>(taken?.value);
  const [typed, setTyped] = useState<Typed | undefined>(taken?.typed);
  return (
    <li className="border-b border-rule pb-2">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (value !== undefined) steps.read(read.id, { value, ...(typed === undefined ? {} : { typed }) });
        }}
      >
        <QuantityField
          label={read.label}
          {...(read.plateKpa === null ? {} : { why: tell("Plate, cold: {0}.", say(read.plateKpa, "pressure")) })}
          quantity={quantity}
          value={value}
          typed={typed}
          onChange={(next, as) => {
            setValue(next);
            setTyped(as);
          }}
          least={isHub ? -40 : 20}
          most={isHub ? 400 : 1000}
          isOptional
        />
        <p className="mt-1 flex flex-wrap gap-2">
          <Button type="submit" disabled={value === undefined} aria-label={tell("Save: {0}", read.label)}>
            {tell("Save")}
          </Button>
          {isHub &&
            (["warm", "hot"] as const).map((feel) => (
              <Button
                key={feel}
                aria-pressed={taken?.feel === feel}
                aria-label={tell("{0} feels {1}", read.label, tell(feel))}
                onClick={() => steps.read(read.id, { feel })}
              >
                {tell("Feels {0}", tell(feel))}
              </Button>
            ))}
        </p>
      </form>
      {judged !== undefined && (
        <p role="status" className={looks[judged.verdict].look}>
          {looks[judged.verdict].sign}{" "}
          {taken?.value === undefined ? tell(taken?.feel ?? "") : say(taken.value, quantity)}. {tell(judged.says)}
        </p>
      )}
    </li>
  );
}
