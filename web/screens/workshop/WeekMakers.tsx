import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { WorkshopSheet } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { ask } from "../../app/client.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { afterComma } from "../../ui/words.ts";

interface WeekMakersProps {
  readonly begins: LocalDate;
  readonly week: WorkshopSheet["weeks"][number] | undefined;
}

/** What a week comes to, booked and still expected, and whose boats make it. */
export function WeekMakers({ begins, week }: WeekMakersProps) {
  const [isOpen, setOpen] = useState(false);
  if (week === undefined) return null;
  const { byKind, expectedH, capacityH } = week;
  const isOver = expectedH > capacityH;
  return (
    <div className="border-b border-ink py-2">
      <p className={`num ${isOver ? "text-magenta" : ""}`}>
        {isOver ? "▲ " : ""}
        {byKind.booked.toFixed(1)} h booked, {(expectedH - byKind.booked).toFixed(1)} h more expected, of{" "}
        {capacityH.toFixed(0)} h.
      </p>
      <button type="button" className="min-h-11 underline" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {isOpen ? "Hide the boats" : "Which boats make this week"}
      </button>
      {isOpen && <Makers key={begins} begins={begins} />}
    </div>
  );
}

function Makers({ begins }: { begins: LocalDate }) {
  const week = useQuery({
    queryKey: ["workshop", "week", begins],
    queryFn: () => ask("workshopWeek", { params: { begins } }),
  });
  return (
    <Fetched query={week} what="the boats of this week">
      {({ boats, more }) => (
        <ul aria-label="Boats that make this week" className="border-t border-rule">
          {boats.length === 0 && <li className="py-2 text-soft">Nothing is expected then.</li>}
          {boats.map(({ boat, boatName, serial, buyers, titles, expectedH, isBooked }) => (
            <li key={boat} className="flex gap-4 border-b border-rule py-1.5">
              <span className="min-w-0 flex-1 break-words">
                <Link to={`/boats/${boat}`} className="font-semibold underline">
                  {boatName} {serial}
                </Link>
                {afterComma(buyers)}
                <span className="block text-sm text-soft">
                  {titles.join(", ")}
                  {isBooked && ". Booked"}
                </span>
              </span>
              <span className="num whitespace-nowrap">{expectedH.toFixed(1)} h</span>
            </li>
          ))}
          {more > 0 && <li className="py-1.5 text-soft">and {more} boats with less</li>}
        </ul>
      )}
    </Fetched>
  );
}
