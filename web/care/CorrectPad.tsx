import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { ulid } from "ulid";
import type { NewWithdrawal } from "../../api/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import type { ReadingAnswer } from "../../core/hours/index.ts";
import type { MeterKind } from "../../core/rig/index.ts";
import { type Quantity, readAmount, type Typed, toCore } from "../../core/units/index.ts";
import { findQuestion, HoursQuestion } from "../handover/HoursQuestion.tsx";
import { say } from "../ui/amounts.ts";
import { Button } from "../ui/Button.tsx";
import { DateInput } from "../ui/DateInput.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { parseHours } from "../ui/parseHours.ts";
import { readPlain } from "../ui/readPlain.ts";
import { storeRegion } from "../ui/storeTime.ts";
import { useTell } from "../ui/tell.ts";

/** What was entered: its day and, where it has one, its number. */
export interface Wrong {
  readonly kind: NewWithdrawal["kind"];
  readonly id: string;
  readonly date: LocalDate;
  /** Hours or litres; null where there is no number to be put right. */
  readonly amount: number | null;
  /** Of an amount in units of the store's: as it was typed. */
  readonly typed?: Typed | undefined;
}

interface CorrectProps {
  readonly wrong: Wrong;
  /** What it is, in a few words: `12.4 h of 3 Jun 2026`. */
  readonly says: string;
  /** `Hours on the meter`, `Fuel`. */
  readonly amountLabel: string;
  /** What the amount measures, where stores have units of their own for it. */
  readonly quantity?: Quantity;
  readonly latest: LocalDate;
  readonly meter?: MeterKind | undefined;
  readonly send: (withdrawal: NewWithdrawal) => Promise<unknown>;
  readonly onDone: () => void;
}

const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-3 text-ink";

/** What was entered wrong: put right, or taken out. Either way it stays to be seen, with the reason. */
export function CorrectPad({ wrong, says, amountLabel, quantity, latest, meter, send, onDone }: CorrectProps) {
  const tell = useTell();
  const [freshId] = useState(ulid);
  const [reason, setReason] = useState("");
  const [date, setDate] = useState<LocalDate | null>(wrong.date);
  const [text, setText] = useState(() => writeWrong(wrong, quantity));
  const hasNumber = wrong.amount !== null;
  // What was not touched stays what it was, whatever the field rounds it to.
  const isTouched = text !== writeWrong(wrong, quantity);
  const typed =
    quantity === undefined ? null : isTouched ? readAmount(text, quantity, storeRegion().units) : wrong.typed;
  const amount = !isTouched
    ? wrong.amount
    : quantity === undefined
      ? parseHours(text)
      : typed && toCore(typed, quantity);
  const isChanged = hasNumber && amount != null && date !== null && (amount !== wrong.amount || date !== wrong.date);
  const [fault, setFault] = useState<string | null>(null);
  const keep = useMutation({
    mutationFn: ({ isRight, answer }: { isRight: boolean; answer?: ReadingAnswer }) =>
      send({
        kind: wrong.kind,
        id: wrong.id,
        reason: reason.trim(),
        ...(isRight
          ? {
              right: {
                id: freshId,
                date: date!,
                amount: amount!,
                ...(typed == null ? {} : { typed }),
                ...(answer === undefined ? {} : { answer }),
              },
            }
          : {}),
      }),
    onSuccess: onDone,
  });
  const press = (isRight: boolean, answer?: ReadingAnswer) => {
    setFault(reason.trim() === "" ? tell("Say in a few words what was wrong.") : null);
    if (reason.trim() !== "") keep.mutate(answer === undefined ? { isRight } : { isRight, answer });
  };
  const question = findQuestion(keep.error);
  return (
    <form
      aria-label={tell("Correct {0}", says)}
      className="my-2 border-l-4 border-helm bg-panel px-4 py-3 text-base"
      onSubmit={(event) => {
        event.preventDefault();
        if (isChanged) press(true);
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        {hasNumber && (
          <>
            <label className="text-soft">
              {amountLabel}
              <input
                inputMode="decimal"
                value={text}
                onChange={(event) => setText(event.target.value)}
                aria-invalid={amount == null}
                className={`${field} num w-28 text-right`}
              />
            </label>
            <label className="text-soft">
              {tell("On the day")}
              <DateInput required max={latest} value={date} onDate={setDate} className={field} />
            </label>
          </>
        )}
        <label className="min-w-44 flex-1 text-soft">
          {tell("What was wrong")}
          <input
            value={reason}
            maxLength={200}
            onChange={(event) => setReason(readPlain(event))}
            className={`${field} w-full`}
          />
        </label>
      </div>
      {fault !== null && (
        <p role="alert" className="mt-2 text-magenta">
          ▲ {fault}
        </p>
      )}
      {question !== null ? (
        <HoursQuestion
          question={question}
          meter={meter}
          isBusy={keep.isPending}
          onAnswer={(answer) => press(true, answer)}
          onLeave={() => keep.reset()}
        />
      ) : (
        keep.error !== null && <ErrorNotice error={keep.error} />
      )}
      <p className="mt-3 flex flex-wrap gap-2">
        {hasNumber && (
          <Button type="submit" look="primary" disabled={keep.isPending || !isChanged}>
            {tell("Put it right")}
          </Button>
        )}
        <Button disabled={keep.isPending} onClick={() => press(false)}>
          {tell("Take it out")}
        </Button>
        <Button look="quiet" onClick={onDone}>
          {tell("Cancel")}
        </Button>
      </p>
    </form>
  );
}

/** As it stands in the field: one digit after the point, an amount of the store's units as it was typed. */
function writeWrong({ amount, typed }: Wrong, quantity: Quantity | undefined): string {
  if (amount === null) return "";
  if (quantity === undefined) return String(Math.round(amount * 10) / 10);
  return say(amount, quantity, typed);
}
