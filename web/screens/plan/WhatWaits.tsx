import { Link } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import type { PlanOptions } from "../../../core/route/index.ts";
import { systemNames, systems } from "../../../core/topic/index.ts";
import { formatMinutes } from "../../ui/words.ts";

const becauseWords = {
  cooling: "needs cooling water: a hose, or afloat",
  afloat: "only afloat",
  ashore: "only out of the water",
  reach: "needs the trailer",
} as const;

interface WhatWaitsProps {
  readonly delivery: Delivery;
  readonly canPlan: boolean;
  readonly onChange: (change: Partial<PlanOptions>) => void;
}

const seconds = [null, 30, 45, 60, 90] as const;

/** What this walk leaves for another day, and why: no time, or not where the boat is. Musts never wait. */
export function WhatWaits({ delivery, canPlan, onChange }: WhatWaitsProps) {
  const { plan, planOptions, topics } = delivery;
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
            ▲ The must-do topics alone need {formatMinutes(plan.totalMin)}: {formatMinutes(plan.overBudgetMin)} more
            than there is. Make more time, or a second meeting. They are never left out.
          </p>
        )}
        {waiting.length > 0 && (
          <>
            <p>
              <strong className="num">{waiting.length}</strong> topics,{" "}
              <strong className="num">{formatMinutes(minutes)}</strong>, do not fit into{" "}
              {formatMinutes(planOptions.budgetMin ?? 0)}. They stay open on the record, for a second session or by
              phone.
            </p>
            <div
              className="flex flex-wrap items-center gap-1 border-b border-rule"
              role="group"
              aria-label="Second session"
            >
              <span className="mr-2 text-soft">Second session, min</span>
              {seconds.map((each) => (
                <button
                  key={each ?? "none"}
                  type="button"
                  disabled={!canPlan}
                  aria-pressed={planOptions.secondMin === each}
                  onClick={() => onChange({ secondMin: each })}
                  className={`num min-h-11 min-w-10 rounded-md px-1.5 disabled:opacity-60 ${planOptions.secondMin === each ? "bg-ink font-bold text-sheet" : "underline decoration-rule underline-offset-4"}`}
                >
                  {each ?? "None"}
                </button>
              ))}
            </div>
            {plan.second !== null && (
              <p className="py-2">
                It takes <strong className="num">{waiting.length - plan.second.deferred.length}</strong> of them at{" "}
                <strong className="num">{plan.second.visits.length}</strong> stops in{" "}
                <strong className="num">{formatMinutes(plan.second.totalMin)}</strong>
                {plan.second.deferred.length > 0 && `; ${plan.second.deferred.length} wait even then`}.{" "}
                {delivery.seal === null && (
                  <Link
                    className="inline-flex min-h-11 items-center underline"
                    to={`/deliveries/${delivery.id}/walk?session=2`}
                  >
                    Walk the second session
                  </Link>
                )}
              </p>
            )}
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
