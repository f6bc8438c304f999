import { useMutation } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { useNavigate } from "react-router";
import type { Boat } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { cutText } from "../../../core/text/index.ts";
import { ask } from "../../app/client.ts";
import { boatQuery, boatsQuery, queryClient, todayQuery } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { PaperNote } from "../../ui/PaperNote.tsx";
import { toPlain } from "../../ui/readPlain.ts";

interface Fields {
  buyers: string;
  date: LocalDate;
  time: string;
  phone: string;
  email: string;
  note: string;
}

/** Plans a handover: who comes, when, and what to know. The plan then opens. */
export function NewHandover({ boat }: { boat: Boat }) {
  const navigate = useNavigate();
  const { register, handleSubmit, watch } = useForm<Fields>({
    defaultValues: { buyers: "", date: boat.today, time: "10:00", phone: "", email: "", note: "" },
  });
  const add = useMutation({
    mutationFn: ({ buyers, ...rest }: Fields) =>
      ask("addDelivery", { body: { boat: boat.id, buyers: splitNames(buyers), ...rest } }),
    onSuccess: async ({ delivery }) => {
      for (const { queryKey } of [boatQuery(boat.id), boatsQuery, todayQuery])
        await queryClient.invalidateQueries({ queryKey });
      await navigate(`/deliveries/${delivery}`);
    },
  });
  return (
    <details className="mt-2">
      <summary className="inline-flex min-h-11 items-center underline">Plan a handover</summary>
      <form className="space-y-3" onSubmit={handleSubmit((fields) => add.mutate(fields))}>
        <label className="block text-soft">
          Who comes, names with commas between
          <input {...register("buyers", { required: true })} maxLength={400} required className={fieldLook} />
        </label>
        <PaperNote text={watch("buyers") ?? ""} />
        <div className="flex gap-3">
          <label className="text-soft">
            Day
            <input {...register("date")} type="date" required className={fieldLook} />
          </label>
          <label className="text-soft">
            Time
            <input {...register("time")} type="time" required className={fieldLook} />
          </label>
        </div>
        <div className="flex flex-wrap gap-3">
          <label className="min-w-0 flex-1 basis-36 text-soft">
            Phone
            <input {...register("phone")} type="tel" maxLength={40} autoComplete="off" className={fieldLook} />
          </label>
          <label className="min-w-0 flex-1 basis-44 text-soft">
            E-mail
            <input {...register("email")} type="email" maxLength={120} autoComplete="off" className={fieldLook} />
          </label>
        </div>
        <label className="block text-soft">
          What to know
          <input {...register("note")} maxLength={400} className={fieldLook} />
        </label>
        {add.error !== null && <ErrorNotice error={add.error} />}
        <Button type="submit" disabled={add.isPending}>
          Plan it
        </Button>
      </form>
    </details>
  );
}

const mostBuyers = 8;

function splitNames(text: string): string[] {
  return text
    .split(",")
    .map((name) => cutText(toPlain(name).trim(), 80))
    .filter((name) => name !== "")
    .slice(0, mostBuyers);
}
