import type { Delivery } from "../../../api/index.ts";
import { systemNames, systems } from "../../../core/topic/index.ts";
import { sayMinutes } from "../../ui/words.ts";

const becauseWords = {
  cooling: "needs cooling water: a hose, or afloat",
  afloat: "only afloat",
  ashore: "only out of the water",
  reach: "needs the trailer",
} as const;

/** What this walk leaves for another day, and why: no time, or not where the boat is. Musts never wait. */
export function WhatWaits({ delivery }: { delivery: Delivery }) {
  const { plan, wishes, topics } = delivery;
  const waiting = topics.filter(({ id }) => plan.deferred.includes(id));
  const minutes = waiting.reduce((sum, topic) => sum + topic.minutes, 0);
  if (waiting.length === 0 && plan.elsewhere.length === 0 && plan.overBudgetMin === undefined) return null;
  return (
    <section aria-labelledby="waits">
      <h2 id="waits" className="text-lg font-bold">
        What waits
      </h2>
      <div className="border-t border-ink pt-2">
        {plan.overBudgetMin !== undefined && (
          <p className="mb-2 border-l-4 border-magenta pl-3 text-magenta">
            ▲ The must-do topics alone need {sayMinutes(plan.totalMin)}: {sayMinutes(plan.overBudgetMin)} more than
            there is. Make more time, or a second meeting. They are never left out.
          </p>
        )}
        {waiting.length > 0 && (
          <>
            <p>
              <strong className="num">{waiting.length}</strong> topics,{" "}
              <strong className="num">{sayMinutes(minutes)}</strong>, do not fit into{" "}
              {sayMinutes(wishes.budgetMin ?? 0)}. They stay open on the record, for a second meeting of about{" "}
              {sayMinutes(minutes * 1.08)}, or by phone.
            </p>
            {systems.map((system) => {
              const mine = waiting.filter((topic) => topic.system === system);
              if (mine.length === 0) return null;
              return (
                <details key={system} className="border-b border-rule">
                  <summary className="head flex min-h-11 items-center justify-between font-semibold">
                    {systemNames[system]}
                    <span className="num font-normal text-soft">{mine.length}</span>
                  </summary>
                  <ul className="pb-2 pl-3">
                    {mine.map(({ id, title, minutes: each }) => (
                      <li key={id} className="flex justify-between gap-3 py-0.5">
                        {title} <span className="num text-soft">{each} min</span>
                      </li>
                    ))}
                  </ul>
                </details>
              );
            })}
          </>
        )}
        {plan.elsewhere.length > 0 && (
          <ul className="mt-2">
            {plan.elsewhere.map(({ topic, title, because }) => (
              <li key={topic} className="flex flex-wrap justify-between gap-x-3 border-b border-rule py-1.5">
                {title} <span className="text-soft">{becauseWords[because]}</span>
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}
