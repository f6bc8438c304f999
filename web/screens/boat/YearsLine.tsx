import { useState } from "react";
import type { Boat } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { addressOf } from "../../app/client.ts";
import { linkLook } from "../../ui/Button.tsx";
import { describeDue } from "../../ui/DueDay.tsx";
import { formatMoney } from "../../ui/money.ts";
import { PaperLinks } from "../../ui/PaperLinks.tsx";
import { formatDayAndYear, formatDistance } from "../../ui/words.ts";

type Visit = Boat["visits"][number];
const yearsShown = 5;
/** A year that begins further along has its number before its line: behind it there is no room. */
const latestBefore = 0.85;

/** The next five years on one line: a mark for each visit to the workshop; one touch says what is done there. */
export function YearsLine({ boat }: { boat: Boat }) {
  const [picked, setPicked] = useState<string | null>(null);
  const { visits, today } = boat;
  if (visits.length === 0) return null;
  const visit = visits.find(({ date }) => date === picked) ?? visits[0]!;
  const fromMs = Date.parse(today);
  const spanMs = yearsShown * 365.25 * 86_400_000;
  const shareAt = (date: string) => Math.min(1, Math.max(0, (Date.parse(date) - fromMs) / spanMs));
  const at = (date: string) => `${shareAt(date) * 100}%`;
  const firstYear = +today.slice(0, 4) + 1;
  const total = visits.reduce((sum, { labourH }) => sum + labourH, 0);
  return (
    <section aria-labelledby="years" className="mt-7">
      <h2 id="years" className="text-lg font-bold">
        The next five years{" "}
        <span className="font-text text-sm font-normal text-soft">
          {visits.length} visits, about {Math.round(total)} h of work
        </span>
      </h2>
      <div className="border-t border-ink pt-2">
        <div className="relative mx-3 h-16">
          <div className="absolute inset-x-0 top-7 border-t-2 border-ink" />
          {Array.from({ length: yearsShown }, (_, i) => firstYear + i).map((year) => (
            <span
              key={year}
              className={`num absolute top-9 border-soft text-sm text-soft ${shareAt(`${year}-01-01`) > latestBefore ? "-translate-x-full border-r pr-1" : "border-l pl-1"}`}
              style={{ left: at(`${year}-01-01`) }}
            >
              {year}
            </span>
          ))}
          {visits.map((each) => (
            <button
              key={each.date}
              type="button"
              aria-pressed={each.date === visit.date}
              aria-label={`${formatDayAndYear(each.date)}: ${each.items.map(({ title }) => title).join(", ")}`}
              onClick={() => setPicked(each.date)}
              style={{ left: at(each.date) }}
              className="absolute top-1.5 grid h-11 w-6 -translate-x-1/2 place-items-center"
            >
              <span
                className={`size-3.5 rotate-45 border-2 ${markOf(each)} ${each.date === visit.date ? "outline-2 outline-offset-2 outline-helm" : ""}`}
              />
            </button>
          ))}
        </div>
        <VisitOf visit={visit} today={today} />
        <p className="mt-3 flex flex-wrap gap-2 print:hidden">
          <a
            className={linkLook("plain")}
            href={addressOf("boatCalendar", { boat: boat.id })}
            download={`${boat.id}.ics`}
          >
            Calendar (.ics)
          </a>
          <PaperLinks
            says="Service history (PDF)"
            href={addressOf("historyPdf", { boat: boat.id })}
            language={boat.language}
          />
        </p>
      </div>
    </section>
  );
}

function markOf({ items }: Visit): string {
  if (items.some(({ isOverdue }) => isOverdue)) return "border-magenta bg-magenta";
  return items.every(({ by }) => by === "season") ? "border-ink bg-panel" : "border-ink bg-ink";
}

/** `about 312.40`; what has no price yet is said. */
function formatPrice({ priceCents, items }: Visit): string {
  const open = items.filter((item) => item.priceCents === null).length;
  return `about ${formatMoney(priceCents!)}${open === 0 ? "" : `, ${open} not priced yet`}`;
}

const byWords = { hours: "by hours", calendar: "by calendar", season: "in season" } as const;

/** What is done on a visit: work, parts, hours of labour. */
export function VisitOf({ visit, today }: { visit: Visit; today: LocalDate }) {
  return (
    <div className="border-l-4 border-helm pl-3">
      <p>
        <strong>{formatDayAndYear(visit.date)}</strong>{" "}
        <span className="text-soft">
          {formatDistance(visit.date, today)}, at the latest; about {visit.labourH.toFixed(1)} h of work
          {visit.priceCents !== null && `, ${formatPrice(visit)}`}
        </span>
      </p>
      <ul>
        {visit.items.map(({ scope, item, label, title, work, parts, by, dueDate, range, isAnyDay, isOverdue }) => (
          <li key={`${scope}${item}`} className="py-0.5">
            <strong>{title}</strong>, {label}{" "}
            <span className={isOverdue ? "text-magenta" : "text-soft"}>
              {isOverdue ? "▲ past due" : byWords[by]}, {describeDue({ date: dueDate, range, isAnyDay }, today)}
            </span>
            <span className="block text-sm text-soft">
              {work.join("; ")}
              {parts.length > 0 && `. Parts: ${parts.join(", ")}`}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
