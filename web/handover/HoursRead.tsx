import { useState } from "react";
import type { Delivery } from "../../api/index.ts";
import { askHandoverHours, type ReadingAnswer } from "../../core/hours/index.ts";
import type { MeterKind } from "../../core/rig/index.ts";
import type { EntryOf, WalkState } from "../../core/walk/index.ts";
import { syncQueue } from "../offline/useSync.ts";
import { Button } from "../ui/Button.tsx";
import { parseHours } from "../ui/parseHours.ts";
import { HoursQuestion } from "./HoursQuestion.tsx";
import { MeterNote } from "./MeterNote.tsx";

/** Engine hours off the meter. The hours run in the yard count: break-in and service begin from here. */
export function HoursRead({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  return (
    <>
      <p className="text-soft">Off the gauge, with the buyer looking. The yard's own running counts.</p>
      <ul aria-label="Engine hours" className="border-t border-rule">
        {delivery.rig.engines.map(({ id, label, meter }) => (
          <EngineLine
            key={id}
            delivery={delivery}
            engine={id}
            label={label}
            meter={meter}
            read={state.hours.get(id) ?? null}
          />
        ))}
      </ul>
    </>
  );
}

/** The same under its own heading. */
export function HoursSection(props: { delivery: Delivery; state: WalkState }) {
  return (
    <section aria-labelledby="hours-read">
      <h2 id="hours-read" className="text-lg font-bold">
        Engine hours, read together
      </h2>
      <HoursRead {...props} />
    </section>
  );
}

interface EngineLineProps {
  readonly delivery: Delivery;
  readonly engine: string;
  readonly label: string;
  readonly meter: MeterKind | undefined;
  readonly read: EntryOf<"hours"> | null;
}

function EngineLine({ delivery, engine, label, meter, read }: EngineLineProps) {
  const [text, setText] = useState(read === null ? "" : String(read.hours));
  const [asked, setAsked] = useState<number | null>(null);
  const hours = parseHours(text);
  const isWrong = text !== "" && hours === null;
  const { date, readings, rig } = delivery;
  const ask = (value: number) =>
    askHandoverHours(readings[engine] ?? [], { date, hours: value }, { meter, isUsed: rig.used !== undefined });
  const keep = (value: number, answer?: ReadingAnswer) => {
    // Hours that do not follow from those before are asked about here as everywhere else.
    if (answer === undefined && ask(value) !== null) return setAsked(value);
    setAsked(null);
    void syncQueue.add(delivery.id, {
      kind: "hours",
      engine,
      hours: value,
      ...(answer === undefined ? {} : { answer }),
    });
  };
  const inQuestion =
    asked ?? (read !== null && read.answer === undefined && ask(read.hours) !== null ? read.hours : null);
  const question = inQuestion === null ? null : ask(inQuestion);
  return (
    <li className="border-b border-rule py-2">
      <form
        className="flex flex-wrap items-center gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (hours !== null) keep(hours);
        }}
      >
        <label htmlFor={`hours-${engine}`} className="min-w-36 flex-1">
          {label}
        </label>
        <input
          id={`hours-${engine}`}
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-invalid={isWrong}
          className="num min-h-11 w-28 rounded-md border border-soft bg-panel px-3 text-right"
        />
        <span className="text-soft">h</span>
        <Button type="submit" disabled={hours === null || hours === read?.hours}>
          {read === null ? "Save" : "Read again"}
        </Button>
      </form>
      <MeterNote meter={meter} />
      {isWrong && <p className="text-magenta">▲ Type hours such as 0.9, as the meter shows them.</p>}
      {question !== null && inQuestion !== null && (
        <HoursQuestion
          question={{
            code: question.code === "falls" ? "hours-fall" : "hours-leap",
            got: inQuestion,
            before: question.beforeH,
            on: question.on,
            isFirst: (readings[engine] ?? []).length === 0,
          }}
          meter={meter}
          isBusy={false}
          onAnswer={(answer) => keep(inQuestion, answer)}
          onLeave={() => setAsked(null)}
        />
      )}
      {read !== null && <p className="text-soft">Read: {read.hours.toFixed(1)} h</p>}
    </li>
  );
}
