import { useState } from "react";
import type { Boat } from "../../../api/index.ts";
import { isOneOf, mechanics } from "../../../api/roles.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { useMe } from "../../app/useMe.ts";
import { DueDay } from "../../ui/DueDay.tsx";
import { formatDayAndYear } from "../../ui/words.ts";
import { RecordService } from "./RecordService.tsx";

const stateSigns = { overdue: "▲ overdue", soon: "◷ soon", ahead: "ahead", finished: "done" } as const;

/** What falls due, by hours or by date, whichever comes first. */
export function ServiceTable({ boat }: { boat: Boat }) {
  const me = useMe();
  const canRecord = isOneOf(mechanics, me.role);
  const [open, setOpen] = useState<{ engine: string; item: string } | null>(null);
  return (
    <section aria-labelledby="service" className="mt-7">
      <h2 id="service" className="text-lg font-bold">
        Service <span className="font-text text-sm font-normal text-soft">{boat.care[0]?.serviceTitle}</span>
      </h2>
      <div className="relative overflow-x-auto">
        <table className="w-full">
          <thead>
            <tr className="border-b border-ink">
              <th className="py-1">Engine</th>
              <th>What</th>
              <th className="text-right">At hours</th>
              <th className="text-right">Likely there</th>
              <th className="text-right">By calendar</th>
              <th className="text-right">Due</th>
              <th className="pl-4">State</th>
              {canRecord && <th className="sr-only">Record</th>}
            </tr>
          </thead>
          <tbody>
            {boat.care.flatMap((care) =>
              care.items.map((item, i) => (
                <ItemRow
                  key={`${care.engine}-${item.id}`}
                  care={care}
                  item={item}
                  isFirst={i === 0}
                  isLast={i === care.items.length - 1}
                  today={boat.today}
                  onRecord={canRecord ? () => setOpen({ engine: care.engine, item: item.id }) : null}
                />
              )),
            )}
          </tbody>
        </table>
      </div>
      {open !== null && (
        <RecordService
          key={`${open.engine}${open.item}`}
          boat={boat}
          engine={open.engine}
          item={open.item}
          onDone={() => setOpen(null)}
        />
      )}
      {boat.care.some(({ items }) => items.some(({ id, state }) => id === "first-service" && state === "overdue")) && (
        <p className="mt-2 border-l-4 border-amber pl-3">
          ◷ The first service is late. Look into the engine maker's manual for what it asks of a late one, and call the
          buyer before the next outing.
        </p>
      )}
      <p className="mt-1 text-sm text-soft">{boat.care[0]?.serviceBasis}</p>
    </section>
  );
}

function Day({ date }: { date: LocalDate | null }) {
  return <td className="num py-2 pl-3 text-right whitespace-nowrap">{date === null ? "–" : formatDayAndYear(date)}</td>;
}

type Care = Boat["care"][number];

interface ItemRowProps {
  readonly care: Care;
  readonly item: Care["items"][number];
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly today: LocalDate;
  /** Null for whoever may not. */
  readonly onRecord: (() => void) | null;
}

function ItemRow({ care, item, isFirst, isLast, today, onRecord }: ItemRowProps) {
  return (
    <tr className={`border-b ${isLast ? "border-soft" : "border-rule"} align-top`}>
      <td className="py-2 pr-3">
        {isFirst && (
          <>
            <strong>{care.label}</strong>
            <p className="num text-sm text-soft">{care.likelyNowH?.toFixed(1)} h likely now</p>
          </>
        )}
      </td>
      <td className="py-2 pr-3" title={item.work.join(", ")}>
        {item.title}
        {item.isUnknown && <p className="text-sm text-soft">last time not known</p>}
        {item.lastDone !== null && <p className="text-sm text-soft">last {formatDayAndYear(item.lastDone)}</p>}
      </td>
      <td className="num py-2 text-right whitespace-nowrap">
        {item.targetH === null ? "–" : `${item.targetH.toFixed(0)} h`}
      </td>
      <Day date={item.hoursDate} />
      <Day date={item.calendarDate} />
      <td className="num py-2 text-right font-semibold whitespace-nowrap" data-testid={`due-${care.engine}-${item.id}`}>
        <DueDay day={{ ...item, date: item.dueDate }} isOverdue={item.state === "overdue"} today={today} />
        {item.dueDate !== null && (
          <p className="text-sm font-normal text-soft">by {item.by === "hours" ? "hours" : "calendar"}</p>
        )}
      </td>
      <td
        className={`py-2 pl-4 whitespace-nowrap ${item.state === "overdue" ? "text-magenta" : item.state === "soon" ? "text-amber" : "text-soft"}`}
      >
        {item.isUnknown && item.state === "overdue" ? "▲ due, not known" : stateSigns[item.state]}
      </td>
      {onRecord !== null && (
        <td className="py-1 pl-4 text-right">
          {item.state !== "finished" && (
            <button
              type="button"
              className="min-h-11 font-semibold underline"
              aria-label={`Record ${item.title}, ${care.label}`}
              onClick={onRecord}
            >
              Record
            </button>
          )}
        </td>
      )}
    </tr>
  );
}
