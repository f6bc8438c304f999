import { useState } from "react";
import type { Boat } from "../../../api/index.ts";
import { isOneOf, mechanics } from "../../../api/roles.ts";
import { useMe } from "../../app/useMe.ts";
import { CorrectPad } from "../../care/CorrectPad.tsx";
import { Withdrawn } from "../../care/Withdrawn.tsx";
import { withdraw } from "../../care/withdraw.ts";
import { FileLink } from "../../ui/AttachFile.tsx";
import { formatMoney } from "../../ui/money.ts";
import { PhotoLink } from "../../ui/PhotoField.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

const outcomeWords = { done: "here", elsewhere: "elsewhere", skipped: "skipped" } as const;

/** What was done so far, the last first. */
export function ServicesDone({ boat }: { boat: Boat }) {
  const me = useMe();
  const mayCorrect = isOneOf(mechanics, me.role);
  if (boat.services.length + boat.withdrawn.filter(({ kind }) => kind === "service").length === 0) return null;
  const labels = new Map(boat.care.map(({ engine, label }) => [engine, label]));
  const titles = new Map(boat.care.flatMap(({ items }) => items.map(({ id, title }) => [id, title] as const)));
  for (const { item, title } of boat.visits.flatMap(({ items }) => items)) titles.set(item, title);
  return (
    <section aria-labelledby="done" className="mt-7">
      <h2 id="done" className="text-lg font-bold">
        What was done
      </h2>
      <div className="relative overflow-x-auto">
        <table className="w-full">
          <thead>
            <tr className="border-b border-ink">
              <th className="py-1">On</th>
              <th>Engine</th>
              <th>What</th>
              <th className="text-right">At</th>
              <th className="pl-4">Where, by whom</th>
              <th className="text-right">Price</th>
              <th className="sr-only">Correct</th>
            </tr>
          </thead>
          <tbody>
            {boat.services.toReversed().map((service) => (
              <DoneRow
                key={service.id}
                boat={boat}
                service={service}
                label={labels.get(service.engine) ?? "The boat"}
                title={titles.get(service.item) ?? service.item}
                mayCorrect={mayCorrect}
              />
            ))}
          </tbody>
        </table>
      </div>
      <Withdrawn
        withdrawn={boat.withdrawn.filter(({ kind }) => kind === "service")}
        labelOf={new Map([...labels, ...titles])}
      />
    </section>
  );
}

interface DoneProps {
  readonly boat: Boat;
  readonly service: Boat["services"][number];
  readonly label: string;
  readonly title: string;
  readonly mayCorrect: boolean;
}

function DoneRow({ boat, service, label, title, mayCorrect }: DoneProps) {
  const [isOpen, setOpen] = useState(false);
  const { id, date, engine, hours, by, outcome, note, photo, file, fileName, priceCents, parts, labourH, mechanic } =
    service;
  return (
    <>
      <tr className="border-b border-rule align-top">
        <td className="num py-1.5 pr-4 whitespace-nowrap">{formatDayAndYear(date)}</td>
        <td className="py-1.5 pr-4">{label}</td>
        <td className="py-1.5 pr-4">
          {title}
          {parts !== "" && <span className="block text-sm">Parts: {parts}</span>}
          {note !== "" && <span className="block text-sm text-soft">{note}</span>}
          {photo !== null && <PhotoLink photo={photo} says={title} />}
          {file !== null && (
            <span className="block">
              <FileLink file={file} fileName={fileName ?? "file"} />
            </span>
          )}
        </td>
        <td className="num py-1.5 text-right whitespace-nowrap">{engine === "boat" ? "" : `${hours.toFixed(1)} h`}</td>
        <td className="py-1.5 pl-4 text-soft">
          {outcomeWords[outcome]}, {mechanic === "" ? by : mechanic}
          {labourH !== null && <span className="num"> · {labourH.toFixed(1)} h of work</span>}
          {mechanic !== "" && mechanic !== by && <span className="block text-sm">entered by {by}</span>}
        </td>
        <td className="num py-1.5 text-right">{priceCents === null ? "" : formatMoney(priceCents)}</td>
        <td className="text-right">
          {mayCorrect && !isOpen && (
            <button
              type="button"
              className="min-h-11 px-2 underline"
              aria-label={`Correct ${title}, ${label}, ${formatDayAndYear(date)}`}
              onClick={() => setOpen(true)}
            >
              Correct
            </button>
          )}
        </td>
      </tr>
      {isOpen && (
        <tr>
          <td colSpan={7}>
            <CorrectPad
              wrong={{ kind: "service", id, date, amount: hours }}
              says={`${title} of ${formatDayAndYear(date)}`}
              amountLabel="Engine hours then"
              latest={boat.today}
              send={(body) => withdraw(boat.id, body)}
              onDone={() => setOpen(false)}
            />
          </td>
        </tr>
      )}
    </>
  );
}
