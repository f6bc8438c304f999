import { memo, useEffect, useEffectEvent, useRef, useState } from "react";
import { Link } from "react-router";
import type { BoatList } from "../../app/useFoundBoats.ts";
import { HullSign } from "../../plan/HullSign.tsx";
import { formatDue } from "../../ui/DueDay.tsx";
import { EmptySheet } from "../../ui/EmptySheet.tsx";
import { formatDayAndYear } from "../../ui/words.ts";
import { stageWords } from "./stageWords.ts";

type Row = BoatList["boats"][number];

/** So many rows fill any screen; more are drawn as one comes down to them. */
const inSight = 12;
const step = 40;
const restMs = 120;

/** Boats as a table, its columns fixed, so that a row more moves none of the others; on a phone each is a few lines to read. */
export function BoatTable({ list: { boats, boatsInAll } }: { list: BoatList }) {
  // With each letter typed above it there is another list: the rest is drawn once that stands for a moment.
  const [drawn, setDrawn] = useState<typeof boats | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setDrawn(boats), restMs);
    return () => clearTimeout(timer);
  }, [boats]);
  const [reached, setReached] = useState({ boats, rows: step });
  // Another list begins at its top.
  const rows = reached.boats === boats ? reached.rows : step;
  const shown = boats.slice(0, drawn === boats ? rows : inSight);
  const isMore = shown.length < boats.length;
  if (boatsInAll === 0)
    return <EmptySheet>No boats yet. Boats in stock and sold boats will be listed here.</EmptySheet>;
  if (boats.length === 0) return null;
  return (
    <div className="relative overflow-x-auto">
      <table className="mt-2 w-full md:min-w-[56rem] md:table-fixed">
        <thead className="max-md:sr-only">
          <tr className="border-b border-ink">
            <th className="w-44 py-1">From above</th>
            <th>Boat</th>
            <th>Buyer</th>
            <th className="w-32">Stage</th>
            <th className="w-36">Handover</th>
            <th className="w-36 text-right">Service due</th>
            <th className="w-14 text-right">Owed</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((row) => (
            <BoatRow key={row.id} row={row} />
          ))}
        </tbody>
      </table>
      {isMore && <Below key={shown.length} onSeen={() => setReached({ boats, rows: rows + step })} />}
    </div>
  );
}

/** Stands below the rows that are drawn, and says when it is about to come into sight. */
function Below({ onSeen }: { onSeen: () => void }) {
  const place = useRef<HTMLParagraphElement>(null);
  const seen = useEffectEvent(onSeen);
  useEffect(() => {
    const watch = new IntersectionObserver(([entry]) => entry!.isIntersecting && seen(), { rootMargin: "1200px" });
    watch.observe(place.current!);
    return () => watch.disconnect();
  }, []);
  return (
    <p ref={place} role="status" className="py-4 text-soft">
      More boats …
    </p>
  );
}

const cell = "pr-3 md:py-2 max-md:block";

/** Drawn again only when something of it has changed: with each letter typed above them there are hundreds. */
const BoatRow = memo(function BoatRow({ row }: { row: Row }) {
  const { id, name, hull, stock, color, buyers, stage, inService, nextDelivery, due, owed, ...boat } = row;
  return (
    <tr className="border-b border-rule max-md:block max-md:py-2">
      <td className="py-2 max-md:hidden">
        <HullSign {...boat} />
      </td>
      <td className={cell}>
        <Link to={`/boats/${id}`} className="head inline-flex min-h-11 items-center font-bold underline">
          {name}
        </Link>
        <p className="text-sm text-soft">
          {[hull, stock === "" ? "" : `no. ${stock}`, color].filter((part) => part !== "").join(", ")}
        </p>
      </td>
      <td className={`${cell} max-w-72 break-words`}>{buyers}</td>
      <td className={`${cell} ${stage === "service-due" ? "font-semibold" : "text-soft"}`}>{stageWords[stage]}</td>
      <td className={`${cell} whitespace-nowrap`}>
        <span className="text-soft md:hidden">Handover </span>
        {nextDelivery !== null
          ? formatDayAndYear(nextDelivery)
          : inService === null
            ? "–"
            : `was ${formatDayAndYear(inService)}`}
      </td>
      <td className={`${cell} num whitespace-nowrap md:text-right ${due === null ? "max-md:hidden" : ""}`}>
        <span className="text-soft md:hidden">Service due </span>
        {due === null ? (
          "–"
        ) : (
          <span className={due.state === "overdue" ? "text-magenta" : ""}>
            {due.state === "overdue" && "▲ "}
            {formatDue({ ...due, date: due.dueDate })}
          </span>
        )}
      </td>
      <td className={`num font-semibold md:py-2 md:text-right ${owed === 0 ? "max-md:hidden" : "max-md:block"}`}>
        <span className="font-normal text-soft md:hidden">Owed </span>
        {owed === 0 ? "–" : owed}
      </td>
    </tr>
  );
});
