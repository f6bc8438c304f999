import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { type UseFormReturn, useForm } from "react-hook-form";
import type { Boat } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import type { ReadingAnswer } from "../../../core/hours/index.ts";
import { CorrectPad } from "../../care/CorrectPad.tsx";
import { Withdrawn } from "../../care/Withdrawn.tsx";
import { withdraw } from "../../care/withdraw.ts";
import { findQuestion, HoursQuestion, readingWords, sourceWords } from "../../handover/HoursQuestion.tsx";
import { MeterNote } from "../../handover/MeterNote.tsx";
import { WaitingPosts } from "../../handover/WaitingPosts.tsx";
import { syncQueue } from "../../offline/useSync.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { PhotoLink } from "../../ui/PhotoField.tsx";
import { TakePhoto } from "../../ui/Photos.tsx";
import { parseHours } from "../../ui/parseHours.ts";
import { useFormId } from "../../ui/useIds.ts";
import { formatDayAndYear } from "../../ui/words.ts";
import { HoursFan } from "./HoursFan.tsx";

interface Fields {
  engine: string;
  hours: string;
  date: LocalDate;
  source: "phone" | "photo" | "workshop";
}

const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-3";

/** Hours as reported by phone or read off the meter. Hours that fall or leap are asked about, and kept with the answer. */
export function HoursForm({ boat }: { boat: Boat }) {
  const labelOf = new Map(boat.rig.engines.map(({ id, label }) => [id, label]));
  return (
    <section aria-labelledby="readings" className="mt-7">
      <h2 id="readings" className="text-lg font-bold">
        Hours
      </h2>
      <div className="border-t border-ink pt-3">
        {boat.driftH !== null && (
          <p className="mb-3 border-l-4 border-amber pl-3">
            ◷ The engines have drifted {boat.driftH.toFixed(1)} h apart. Was one meter changed, or one engine rested?
          </p>
        )}
        <HoursFan boat={boat} />
      </div>
      <ReadingForm boat={boat} labelOf={labelOf} />
      <ReadingTable boat={boat} labelOf={labelOf} />
      <Withdrawn withdrawn={boat.withdrawn.filter(({ kind }) => kind === "reading")} labelOf={labelOf} />
    </section>
  );
}

interface OfBoat {
  readonly boat: Boat;
  readonly labelOf: ReadonlyMap<string, string>;
}

type Answered = Fields & { readonly answer?: ReadingAnswer };

/** Sends a reading; one id until it is kept: pressed twice, it is one. */
function useAddReading({ boat, labelOf }: OfBoat, onKept: (fields: Fields) => void) {
  const [id, renewId] = useFormId();
  return useMutation({
    mutationFn: ({ answer, engine, date, hours, source, photo }: Answered & { photo: string | null }) =>
      syncQueue.post({
        id,
        body: {
          id,
          engine,
          date,
          hours: parseHours(hours)!,
          source,
          ...(answer === undefined ? {} : { answer }),
          ...(photo === null || source !== "photo" ? {} : { photo }),
        },
        name: "addReading",
        params: { boat: boat.id },
        about: boat.id,
        says: `${hours} h, ${labelOf.get(engine)}, ${formatDayAndYear(date)}`,
      }),
    onSuccess: (_, fields) => {
      renewId();
      onKept(fields);
    },
  });
}

function ReadingForm({ boat, labelOf }: OfBoat) {
  const [photo, setPhoto] = useState<string | null>(null);
  const form = useForm<Fields>({
    defaultValues: { engine: boat.rig.engines[0]!.id, hours: "", date: boat.today, source: "phone" },
  });
  const { handleSubmit, reset, getValues, watch, formState } = form;
  const add = useAddReading({ boat, labelOf }, ({ engine, date, source }) => {
    setPhoto(null);
    reset({ engine, date, hours: "", source });
  });
  const question = findQuestion(add.error);
  const meter = boat.rig.engines.find(({ id }) => id === watch("engine"))?.meter;
  return (
    <>
      <form
        className="flex flex-wrap items-end gap-3 pt-3"
        onSubmit={handleSubmit((fields) => add.mutate({ ...fields, photo }))}
        noValidate
      >
        <ReadingFields boat={boat} form={form} />
        {watch("source") === "photo" && (
          <TakePhoto says={photo === null ? "Photo of the meter" : "Photo taken"} onTaken={setPhoto} />
        )}
        <Button type="submit" look="primary" disabled={add.isPending}>
          Save
        </Button>
      </form>
      <MeterNote meter={meter} />
      <WaitingPosts about={boat.id} engines={boat.rig.engines} />
      {formState.errors.hours !== undefined && (
        <p role="alert" className="mt-1 text-magenta">
          ▲ {formState.errors.hours.message}
        </p>
      )}
      {question !== null && (
        <HoursQuestion
          question={question}
          meter={meter}
          isBusy={add.isPending}
          onAnswer={(answer) => add.mutate({ ...getValues(), answer, photo })}
          onLeave={() => add.reset()}
        />
      )}
      {question === null && add.error !== null && (
        <div className="mt-2">
          <ErrorNotice error={add.error} />
        </div>
      )}
    </>
  );
}

function ReadingFields({ boat, form: { register, formState } }: { boat: Boat; form: UseFormReturn<Fields> }) {
  return (
    <>
      <label className="text-soft">
        Engine
        <select {...register("engine")} className={`${field} text-ink`}>
          {boat.rig.engines.map(({ id, label }) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <label className="text-soft">
        Hours on the meter
        <input
          {...register("hours", {
            validate: (text) => parseHours(text) !== null || "Type hours such as 12.4, as the meter shows them.",
          })}
          inputMode="decimal"
          aria-invalid={formState.errors.hours !== undefined}
          className={`${field} num w-32 text-right text-ink`}
        />
      </label>
      <label className="text-soft">
        Read on
        <input
          {...register("date", { required: true })}
          type="date"
          min={boat.rig.used === undefined ? (boat.inService ?? undefined) : undefined}
          max={boat.today}
          className={`${field} text-ink`}
        />
      </label>
      <label className="text-soft">
        Reported by
        <select {...register("source")} className={`${field} text-ink`}>
          <option value="phone">phone</option>
          <option value="photo">photo of the meter</option>
          <option value="workshop">read in the workshop</option>
        </select>
      </label>
    </>
  );
}

function ReadingTable({ boat, labelOf }: OfBoat) {
  return (
    <div className="relative overflow-x-auto">
      <table className="mt-3 w-full max-w-3xl">
        <thead>
          <tr className="border-b border-ink">
            <th className="py-1">Read on</th>
            <th>Engine</th>
            <th className="text-right">Meter</th>
            <th className="pl-4">By</th>
            <th className="sr-only">Correct</th>
          </tr>
        </thead>
        <tbody>
          {boat.readings.toReversed().map((reading) => (
            <ReadingRow key={reading.id} boat={boat} reading={reading} label={labelOf.get(reading.engine) ?? ""} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface ReadingProps {
  readonly boat: Boat;
  readonly reading: Boat["readings"][number];
  readonly label: string;
}

function ReadingRow({ boat, reading, label }: ReadingProps) {
  const [isOpen, setOpen] = useState(false);
  const { id, engine, date, hours, reason, answer, source, by, photo } = reading;
  const says = `${hours.toFixed(1)} h of ${formatDayAndYear(date)}`;
  return (
    <>
      <tr className="border-b border-rule">
        <td className="py-1.5">{formatDayAndYear(date)}</td>
        <td>{label}</td>
        <td className="num text-right font-semibold">
          {hours.toFixed(1)} <span className="font-normal text-soft">h</span>
        </td>
        <td className="pl-4 text-soft">
          {by}, {sourceWords[source]}
          {answer !== null && `: ${readingWords[answer]}`}
          {reason !== null && ` (${reason})`}
          {photo !== null && <PhotoLink photo={photo} says="The hour meter" />}
        </td>
        <td className="text-right">
          {!isOpen && (
            <button
              type="button"
              className="min-h-11 px-2 underline"
              aria-label={`Correct ${says}, ${label}`}
              onClick={() => setOpen(true)}
            >
              Correct
            </button>
          )}
        </td>
      </tr>
      {isOpen && (
        <tr>
          <td colSpan={5}>
            <CorrectPad
              wrong={{ kind: "reading", id, date, amount: hours }}
              says={says}
              amountLabel="Hours on the meter"
              latest={boat.today}
              meter={boat.rig.engines.find((each) => each.id === engine)?.meter}
              send={(body) => withdraw(boat.id, body)}
              onDone={() => setOpen(false)}
            />
          </td>
        </tr>
      )}
    </>
  );
}
