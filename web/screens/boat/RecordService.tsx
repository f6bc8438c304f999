import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Boat } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { ask } from "../../app/client.ts";
import { boatQuery, queryClient, todayQuery } from "../../app/queries.ts";
import { type Attached, AttachFile } from "../../ui/AttachFile.tsx";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { DateInput } from "../../ui/DateInput.tsx";
import { MeterHours } from "../../ui/MeterHours.tsx";
import { readMoney, toAmount } from "../../ui/money.ts";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { TakePhoto } from "../../ui/Photos.tsx";
import { parseHours } from "../../ui/parseHours.ts";
import { readPlain } from "../../ui/readPlain.ts";
import { useIds } from "../../ui/useIds.ts";

type Outcome = Boat["services"][number]["outcome"];
const outcomeWords: Record<Outcome, string> = { done: "Done here", elsewhere: "Done elsewhere", skipped: "Skipped" };
const noteWords: Record<Outcome, string> = {
  done: "Parts and remarks",
  elsewhere: "Who did it, and what shows it",
  skipped: "Why it is skipped",
};
const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-3";

interface RecordProps {
  readonly boat: Boat;
  readonly engine: string;
  readonly item: string;
  readonly onDone: () => void;
}

function findFault(outcome: Outcome, hours: string, price: string, note: string): string | null {
  if (outcome === "done" && readMoney(price) === undefined) return "Type the price as a number, or leave it empty.";
  if (outcome !== "done" && note.trim() === "") return `${noteWords[outcome]}: say it in a few words.`;
  if (parseHours(hours) === null) return "Type hours such as 20.5, as the meter shows them.";
  return null;
}

/** What was done of a service item, here or elsewhere with proof, or skipped with a reason; the next one moves. */
export function RecordService({ boat, engine, item, onDone }: RecordProps) {
  const care = boat.care.find((each) => each.engine === engine);
  const title = care?.items.find(({ id }) => id === item)?.title ?? item;
  const [outcome, setOutcome] = useState<Outcome>("done");
  const [date, setDate] = useState<LocalDate | null>(boat.today);
  const [hours, setHours] = useState("");
  const [note, setNote] = useState("");
  const planned = boat.visits.flatMap(({ items }) => items).find((each) => each.scope === engine && each.item === item);
  const [price, setPrice] = useState(planned?.priceCents == null ? "" : toAmount(planned.priceCents));
  const [photo, setPhoto] = useState<string | null>(null);
  const [proof, setProof] = useState<Attached | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const record = useRecord(boat.id, onDone);
  const idOf = useIds();
  const keep = () => {
    if (date === null) return;
    const wrong = findFault(outcome, hours, price, note);
    setFault(wrong);
    if (wrong !== null) return;
    const cents = readMoney(price);
    record.mutate({
      params: { boat: boat.id },
      body: {
        id: idOf(),
        engine,
        item,
        date,
        hours: parseHours(hours)!,
        outcome,
        note: note.trim(),
        ...(photo === null ? {} : { photo }),
        ...proof,
        ...(cents == null || outcome !== "done" ? {} : { priceCents: cents }),
      },
    });
  };
  return (
    <form
      aria-label={`Record ${title}`}
      className="mt-3 border-l-4 border-helm bg-panel px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <p className="font-bold">
        {title}, {care?.label}
      </p>
      <div className="mt-2 flex flex-wrap gap-2" role="radiogroup" aria-label="What came of it">
        {(Object.keys(outcomeWords) as Outcome[]).map((each) => (
          <Chip key={each} isPicked={outcome === each} onPick={() => setOutcome(each)}>
            {outcomeWords[each]}
          </Chip>
        ))}
      </div>
      <div className="mt-2 flex flex-wrap items-start gap-3">
        <Day boat={boat} date={date} onDate={setDate} />
        <MeterHours label="At engine hours" value={hours} onChange={setHours} likelyH={care?.likelyNowH ?? null} />
        <label className="min-w-60 flex-1 text-soft">
          {noteWords[outcome]}
          <input
            value={note}
            maxLength={400}
            onChange={(event) => setNote(readPlain(event))}
            className={`${field} w-full text-ink`}
          />
        </label>
        {outcome === "done" && (
          <label className="text-soft">
            Price
            <input
              inputMode="decimal"
              value={price}
              onChange={(event) => setPrice(event.target.value)}
              className={`${field} num w-28 text-right text-ink`}
            />
          </label>
        )}
        <TakePhoto says={photo === null ? "Photo or receipt" : "Photo taken"} onTaken={setPhoto} />
        <AttachFile says="File (PDF, text)" value={proof} onChange={setProof} />
      </div>
      {fault !== null && (
        <p role="alert" className="mt-1 text-magenta">
          ▲ {fault}
        </p>
      )}
      {record.error !== null && <ErrorNotice error={record.error} />}
      <p className="mt-3 flex gap-2">
        <Button type="submit" look="primary" disabled={record.isPending}>
          Save the service
        </Button>
        <Button look="quiet" onClick={onDone}>
          Cancel
        </Button>
      </p>
    </form>
  );
}

function useRecord(boat: string, onDone: () => void) {
  return useMutation({
    mutationFn: (body: Parameters<typeof ask<"addService">>[1]) => ask("addService", body),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: boatQuery(boat).queryKey });
      await queryClient.invalidateQueries({ queryKey: todayQuery.queryKey });
      onDone();
    },
  });
}

interface DayProps {
  readonly boat: Boat;
  readonly date: LocalDate | null;
  readonly onDate: (date: LocalDate | null) => void;
}

function Day({ boat, date, onDate }: DayProps) {
  return (
    <label className="text-soft">
      On
      <DateInput
        required
        min={boat.rig.used === undefined ? (boat.inService ?? undefined) : undefined}
        max={boat.today}
        value={date}
        onDate={onDate}
        className={`${field} text-ink`}
      />
    </label>
  );
}
