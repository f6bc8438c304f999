import type { OwnerPage } from "../../../api/index.ts";
import { addressOf } from "../../app/client.ts";
import { linkLook } from "../../ui/Button.tsx";
import { describeDue } from "../../ui/DueDay.tsx";
import { formatMoney } from "../../ui/money.ts";
import { formatDayAndYear, formatDistance } from "../../ui/words.ts";

const outcomeWords = { done: "at the yard", elsewhere: "elsewhere", skipped: "skipped" } as const;
const byWords = { hours: "by its hours", calendar: "by the calendar", season: "in its season" } as const;

/** What comes up on this boat and why, what was done so far, and the calendar to take along. */
export function OwnerCare({ token, page }: { token: string; page: OwnerPage }) {
  const { visits, services, today, care } = page;
  const labels = new Map(care.map(({ engine, label }) => [engine, label]));
  const titles = new Map(care.flatMap(({ items }) => items.map(({ id, title }) => [id, title] as const)));
  for (const { item, title } of visits.flatMap(({ items }) => items)) titles.set(item, title);
  return (
    <>
      <h2 className="text-xl font-bold">What comes up, and why</h2>
      <p className="text-soft">
        Likely days, from the hours you reported. The engine maker's manual comes first where it differs.
      </p>
      <ol className="mt-2 border-t border-ink">
        {visits.slice(0, 4).map((visit) => (
          <li key={visit.date} className="border-b border-rule py-2">
            <p>
              <strong className="num" data-testid="owner-visit">
                {formatDayAndYear(visit.date)}
              </strong>{" "}
              <span className="text-soft">{formatDistance(visit.date, today)}, at the latest</span>
              {visit.priceCents !== null && (
                <span className="num"> about {formatMoney(visit.priceCents)} by the yard's list</span>
              )}
            </p>
            <ul>
              {visit.items.map(({ scope, item, title, label, work, by, dueDate, range, isAnyDay, isOverdue }) => (
                <li key={`${scope}${item}`} className="mt-1">
                  <strong>{title}</strong>
                  {care.length > 1 && `, ${label}`}{" "}
                  <span className={isOverdue ? "text-magenta" : "text-soft"}>
                    {isOverdue ? "▲ past due" : byWords[by]}, {describeDue({ date: dueDate, range, isAnyDay }, today)}
                  </span>
                  <span className="block text-base text-soft">{work.join("; ")}</span>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
      <p className="mt-3">
        <a className={linkLook("plain")} href={addressOf("ownerCalendar", { token })} download="boat.ics">
          Put it in my calendar (.ics)
        </a>
      </p>
      <h2 className="mt-7 text-xl font-bold">What was done</h2>
      <ul className="border-t border-ink">
        {services.length === 0 && (
          <li className="py-2 text-soft">Nothing yet. The first service comes to stand here.</li>
        )}
        {services.toReversed().map(({ id, date, engine, item, hours, outcome, note, parts }) => (
          <li key={id} className="border-b border-rule py-2">
            <strong>{titles.get(item) ?? item}</strong>
            {care.length > 1 && engine !== "boat" && `, ${labels.get(engine)}`}
            <span className="num block text-base text-soft">
              {formatDayAndYear(date)}, {engine === "boat" ? "" : `at ${hours.toFixed(1)} h, `}
              {outcomeWords[outcome]}
              {parts !== "" && `. Parts: ${parts}`}
              {note !== "" && `. ${note}`}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
