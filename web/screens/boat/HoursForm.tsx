import { useMutation } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { ulid } from "ulid";
import type { Boat } from "../../../api/index.ts";
import { ask, Refused } from "../../app/client.ts";
import { boatQuery, queryClient, todayQuery } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { parseHours } from "../../ui/parseHours.ts";
import { sayDayAndYear } from "../../ui/words.ts";

interface Fields {
  engine: string;
  hours: string;
  date: string;
  reason: string;
}

const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-3";

/** Hours as told by phone or read off the meter. Falling hours are asked about, and kept with the answer. */
export function HoursForm({ boat }: { boat: Boat }) {
  const { register, handleSubmit, reset, formState } = useForm<Fields>({
    defaultValues: { engine: boat.rig.engines[0]!.id, hours: "", date: boat.today, reason: "" },
  });
  const add = useMutation({
    mutationFn: ({ engine, hours, date, reason }: Fields) =>
      ask("addReading", {
        params: { boat: boat.id },
        body: {
          id: ulid(),
          engine,
          date,
          hours: parseHours(hours)!,
          ...(reason.trim() === "" ? {} : { reason: reason.trim() }),
        },
      }),
    onSuccess: async (_, { engine, date }) => {
      reset({ engine, date, hours: "", reason: "" });
      await queryClient.invalidateQueries({ queryKey: boatQuery(boat.id).queryKey });
      await queryClient.invalidateQueries({ queryKey: todayQuery.queryKey });
    },
  });
  const needsReason = add.error instanceof Refused && add.error.code === "hours-fall";
  const labelOf = new Map(boat.rig.engines.map(({ id, label }) => [id, label]));
  return (
    <section aria-labelledby="readings" className="mt-7">
      <h2 id="readings" className="text-lg font-bold">
        Hours
      </h2>
      <form
        className="flex flex-wrap items-end gap-3 border-t border-ink pt-3"
        onSubmit={handleSubmit((fields) => add.mutate(fields))}
        noValidate
      >
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
            max={boat.today}
            className={`${field} text-ink`}
          />
        </label>
        {needsReason && (
          <label className="flex-1 text-soft">
            Why fewer hours than before
            <input
              {...register("reason", { required: "Say why, or correct the hours." })}
              maxLength={300}
              placeholder="meter changed, typing slip before …"
              className={`${field} w-full min-w-52 text-ink placeholder:text-soft`}
            />
          </label>
        )}
        <Button type="submit" look="primary" disabled={add.isPending}>
          Keep the reading
        </Button>
      </form>
      {(formState.errors.hours ?? formState.errors.reason) !== undefined && (
        <p role="alert" className="mt-1 text-magenta">
          ▲ {(formState.errors.hours ?? formState.errors.reason)?.message}
        </p>
      )}
      {add.error !== null && (
        <div className="mt-2">
          <ErrorNotice error={add.error} />
        </div>
      )}
      <table className="mt-3 w-full max-w-2xl">
        <thead>
          <tr className="border-b border-ink">
            <th className="py-1">Read on</th>
            <th>Engine</th>
            <th className="text-right">Hours</th>
            <th className="pl-4">By</th>
          </tr>
        </thead>
        <tbody>
          {boat.readings.toReversed().map(({ id, engine, date, hours, reason, by }) => (
            <tr key={id} className="border-b border-rule">
              <td className="py-1.5">{sayDayAndYear(date)}</td>
              <td>{labelOf.get(engine)}</td>
              <td className="num text-right font-semibold">
                {hours.toFixed(1)} <span className="font-normal text-soft">h</span>
              </td>
              <td className="pl-4 text-soft">
                {by}
                {reason !== null && `: ${reason}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
