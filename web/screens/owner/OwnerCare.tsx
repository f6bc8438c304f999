import type { OwnerPage } from "../../../api/index.ts";
import { addressOf } from "../../app/client.ts";
import { linkLook } from "../../ui/Button.tsx";
import { describeDue } from "../../ui/DueDay.tsx";
import { formatMoney } from "../../ui/money.ts";
import { useReader } from "../../ui/tell.ts";
import { formatDayAndYear, formatDistance } from "../../ui/words.ts";

/** What comes up on this boat and why, what was done so far, and the calendar to take along. */
export function OwnerCare({ token, page }: { token: string; page: OwnerPage }) {
  const { visits, services, today, care } = page;
  const reader = useReader();
  const { tell } = reader;
  const outcomeWords = { done: tell("at the yard"), elsewhere: tell("elsewhere"), skipped: tell("skipped") };
  const byWords = { hours: tell("by its hours"), calendar: tell("by the calendar"), season: tell("in its season") };
  const labels = new Map(care.map(({ engine, label }) => [engine, label]));
  const titles = new Map(care.flatMap(({ items }) => items.map(({ id, title }) => [id, title] as const)));
  for (const { item, title } of visits.flatMap(({ items }) => items)) titles.set(item, title);
  return (
    <>
      <h2 className="text-xl font-bold">{tell("What comes up, and why")}</h2>
      <p className="text-soft">
        {tell("Likely days, from the hours you reported. The engine maker's manual comes first where it differs.")}
      </p>
      <ol className="mt-2 border-t border-ink">
        {visits.slice(0, 4).map((visit) => (
          <li key={visit.date} className="border-b border-rule py-2">
            <p>
              <strong className="num" data-testid="owner-visit">
                {formatDayAndYear(visit.date, reader)}
              </strong>{" "}
              <span className="text-soft">{tell("{0}, at the latest", formatDistance(visit.date, today, reader))}</span>
              {visit.priceCents !== null && (
                <span className="num"> {tell("about {0} by the yard's list", formatMoney(visit.priceCents))}</span>
              )}
            </p>
            <ul>
              {visit.items.map(({ scope, item, title, label, work, by, dueDate, range, isAnyDay, isOverdue }) => (
                <li key={`${scope}${item}`} className="mt-1">
                  <strong>{tell(title)}</strong>
                  {care.length > 1 && `, ${tell.label(label)}`}{" "}
                  <span className={isOverdue ? "text-magenta" : "text-soft"}>
                    {isOverdue ? `▲ ${tell("past due")}` : byWords[by]},{" "}
                    {describeDue({ date: dueDate, range, isAnyDay }, today, reader)}
                  </span>
                  <span className="block text-base text-soft">{work.map((each) => tell(each)).join("; ")}</span>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
      <p className="mt-3">
        <a className={linkLook("plain")} href={addressOf("ownerCalendar", { token })} download="boat.ics">
          {tell("Put it in my calendar (.ics)")}
        </a>
      </p>
      <h2 className="mt-7 text-xl font-bold">{tell("What was done")}</h2>
      <ul className="border-t border-ink">
        {services.length === 0 && (
          <li className="py-2 text-soft">{tell("Nothing yet. The first service will be listed here.")}</li>
        )}
        {services.toReversed().map(({ id, date, engine, item, hours, outcome, note, parts }) => (
          <li key={id} className="border-b border-rule py-2">
            <strong>{tell(titles.get(item) ?? item)}</strong>
            {care.length > 1 && engine !== "boat" && `, ${tell(labels.get(engine) ?? engine)}`}
            <span className="num block text-base text-soft">
              {formatDayAndYear(date, reader)}, {engine === "boat" ? "" : `${tell("at {0} h", hours.toFixed(1))}, `}
              {outcomeWords[outcome]}
              {parts !== "" && `. ${tell("Parts: {0}", parts)}`}
              {note !== "" && `. ${note}`}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
