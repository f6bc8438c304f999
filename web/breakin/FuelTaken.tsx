import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { EngineCare, FillLine, NewFill } from "../../api/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import type { Tell } from "../../core/language/index.ts";
import type { Typed } from "../../core/units/index.ts";
import { CorrectPad } from "../care/CorrectPad.tsx";
import { say } from "../ui/amounts.ts";
import { Button } from "../ui/Button.tsx";
import { TickField } from "../ui/fields.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { QuantityField } from "../ui/QuantityField.tsx";
import { useReader, useTell } from "../ui/tell.ts";
import { useFormId } from "../ui/useIds.ts";
import { formatDayAndYear } from "../ui/words.ts";
import type { BreakInPort } from "./breakInPort.ts";
import { DayField } from "./RunDay.tsx";

/** What a row says of its fuel: how much, or that the tanks were full and nobody counted. */
const formatFuel = ({ litres, isFull, typed }: NewFill, tell: Tell) => {
  if (litres === 0) return tell("full, not counted");
  const amount = say(litres, "volume", typed);
  return isFull ? tell("{0}, full tank", amount) : amount;
};

/** Fuel that went in, where a break-in is counted in tanks: from brim to brim it measures what the engines burn. */
export function FuelTaken({ port }: { port: BreakInPort }) {
  const tell = useTell();
  const burns = port.care.flatMap(({ isByTanks, label, tankHours }) => (isByTanks ? [{ label, tankHours }] : []));
  if (burns.length === 0) return null;
  const isMeasured = burns.some(({ tankHours }) => tankHours?.measured != null);
  const hasBrim = port.fills.some(({ isFull }) => isFull);
  return (
    <section aria-labelledby="fuel-taken" className="print:hidden">
      <h2 id="fuel-taken" className="text-lg font-bold">
        {tell("Fuel taken")}
      </h2>
      <div className="border-t border-ink pt-3">
        {burns.map(({ label, tankHours }) => (
          <p key={label}>
            {burns.length > 1 && <strong>{tell.label(label)}: </strong>}
            {formatBurn(tankHours, burns.length > 1, tell)}
          </p>
        ))}
        {!isMeasured && (
          <p className="text-soft">
            {tell(
              hasBrim
                ? "One full tank is noted. At the next one, report the hours of that day too: then the burn is measured."
                : "Fill the tanks and report the hours of that day: from the second full tank on the burn is measured, not supposed.",
            )}
          </p>
        )}
        <FuelForm port={port} mayBeUncounted={!hasBrim} />
        <ul aria-label={tell("Fuel taken so far")} className="mt-3 max-w-3xl">
          {port.fills.toReversed().map((fill) => (
            <FillRow key={fill.id} port={port} fill={fill} />
          ))}
        </ul>
      </div>
    </section>
  );
}

function formatBurn(tankHours: EngineCare["tankHours"], isOneOf: boolean, tell: Tell): string {
  if (tankHours === null) return tell("What it burns is not known yet.");
  const burn = say(tankHours.burnLph, "flow");
  if (tankHours.measured === null) return tell("{0}, as entered on the boat sheet.", burn);
  const { litres, hours } = tankHours.measured;
  const measured = isOneOf ? "{0}, measured over {1} h and {2}, its share." : "{0}, measured over {1} h and {2}.";
  return tell(measured, burn, hours.toFixed(1), say(litres, "volume"));
}

function FuelForm({ port, mayBeUncounted }: { port: BreakInPort; mayBeUncounted: boolean }) {
  const reader = useReader();
  const { tell } = reader;
  const [date, setDate] = useState<LocalDate | null>(port.today);
  const [litres, setLitres] = useState<number>();
  const [typed, setTyped] = useState<Typed>();
  const [isFull, setFull] = useState(true);
  const [fault, setFault] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const [id, renewId] = useFormId();
  const add = useMutation({
    mutationFn: (fill: NewFill) =>
      port.addFill(fill, tell("Fuel of {0}, {1}", formatDayAndYear(fill.date, reader), formatFuel(fill, tell))),
    onSuccess: () => {
      setLitres(undefined);
      setTyped(undefined);
      renewId();
      // The field begins anew, empty.
      setRound((before) => before + 1);
    },
  });
  const keep = () => {
    const isUncounted = litres === undefined && isFull && mayBeUncounted;
    setFault(litres === undefined && !isUncounted ? tell("Type how much went in, as the pump showed it.") : null);
    if (date !== null && (litres !== undefined || isUncounted))
      add.mutate({ id, date, litres: litres ?? 0, isFull, ...(typed === undefined ? {} : { typed }) });
  };
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
      noValidate
    >
      <DayField port={port} date={date} onDate={setDate} />
      <QuantityField
        key={round}
        label={tell("Went in")}
        quantity="volume"
        value={litres}
        typed={typed}
        onChange={(amount, written) => {
          setLitres(amount);
          setTyped(written);
        }}
        isOptional
        least={0.1}
        most={20_000}
      />
      <TickField label={tell("Full tank")} value={isFull} onChange={setFull} />
      <Button type="submit" look="primary" disabled={add.isPending}>
        {tell("Note the fuel")}
      </Button>
      {mayBeUncounted && (
        <p className="basis-full text-sm text-soft">
          {tell("The first full tank needs no amount: what counts is what goes in after it.")}
        </p>
      )}
      {fault !== null && (
        <p role="alert" className="basis-full text-magenta">
          ▲ {fault}
        </p>
      )}
      {add.error !== null && (
        <div className="basis-full">
          <ErrorNotice error={add.error} />
        </div>
      )}
    </form>
  );
}

function FillRow({ port, fill }: { port: BreakInPort; fill: FillLine }) {
  const reader = useReader();
  const { tell } = reader;
  const [isOpen, setOpen] = useState(false);
  const day = formatDayAndYear(fill.date, reader);
  return (
    <li className="border-b border-rule py-1.5">
      <p className="flex flex-wrap items-center gap-x-4">
        <span className="num">{day}</span>
        <strong className="num">{formatFuel(fill, tell)}</strong>
        <span className="text-soft">{fill.by}</span>
        {fill.isFull && !fill.hasHours && (
          <span className="text-amber">
            {tell("◷ No hours reported on that day: add them, or it only adds what went in")}
          </span>
        )}
        {port.mayCorrect(fill) && !isOpen && (
          <button
            type="button"
            className="ml-auto min-h-11 underline"
            aria-label={tell("Correct the fuel of {0}", day)}
            onClick={() => setOpen(true)}
          >
            {tell("Correct")}
          </button>
        )}
      </p>
      {isOpen && (
        <CorrectPad
          wrong={{ kind: "fill", id: fill.id, date: fill.date, amount: fill.litres, typed: fill.typed }}
          says={tell("the fuel of {0}", day)}
          amountLabel={tell("Fuel")}
          quantity="volume"
          latest={port.today}
          send={port.withdraw}
          onDone={() => setOpen(false)}
        />
      )}
    </li>
  );
}
