import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { listInstead, type PlanOptions } from "../../../core/route/index.ts";
import { formatQuarters } from "../../../core/text/index.ts";
import { shortenTitles, systemNames, systems, type Topic } from "../../../core/topic/index.ts";
import { Button } from "../../ui/Button.tsx";
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
  readonly onChange: (change: Partial<PlanOptions>) => Promise<unknown>;
}

const seconds = [null, 30, 45, 60, 90] as const;

/** What this walk leaves for another day, and why: no time, or not where the boat is. Musts never wait. */
export function WhatWaits({ delivery, canPlan, onChange }: WhatWaitsProps) {
  const { plan, planOptions, topics, rig } = delivery;
  const waiting = topics.filter(({ id }) => plan.deferred.includes(id));
  const minutes = waiting.reduce((sum, topic) => sum + topic.minutes, 0);
  const instead = useMemo(
    () => listInstead(rig, topics, plan.deferred, planOptions.added),
    [rig, topics, plan.deferred, planOptions.added],
  );
  const adding = useAdding(delivery, onChange);
  if (waiting.length === 0 && adding.added.length === 0 && plan.elsewhere.length === 0) return null;
  return (
    <section aria-labelledby="waits">
      <h2 id="waits" className="text-lg font-bold">
        What waits
      </h2>
      <div className="border-t border-ink pt-2">
        <Added adding={adding} />
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
                  onClick={() => void onChange({ secondMin: each })}
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
                    {mine.map((topic) => (
                      <WaitingTopic
                        key={topic.id}
                        topic={topic}
                        instead={instead.get(topic.id) ?? []}
                        onAdd={canPlan ? () => void adding.add(topic) : null}
                        isBusy={adding.isBusy}
                      />
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

interface WaitingTopicProps {
  readonly topic: Topic;
  /** What is told in its place. */
  readonly instead: readonly Topic[];
  readonly onAdd: (() => void) | null;
  readonly isBusy: boolean;
}

function WaitingTopic({ topic, instead, onAdd, isBusy }: WaitingTopicProps) {
  return (
    <li className="flex items-start justify-between gap-3 border-t border-rule py-1">
      <span className="min-w-0 py-1.5">
        {topic.title}
        <span className="block font-text text-sm text-soft">
          {formatQuarters(topic.minutes)} min
          {instead.length > 0 && `; in its place: ${shortenTitles(instead.map(({ title }) => title)).join(", ")}`}
        </span>
      </span>
      {onAdd !== null && (
        <Button look="quiet" aria-label={`Add ${topic.title}`} disabled={isBusy} onClick={onAdd}>
          Add
        </Button>
      )}
    </li>
  );
}

/** A waiting topic added by a touch, and what goes for it: known once the walk has been planned anew. */
function useAdding(delivery: Delivery, onChange: WhatWaitsProps["onChange"]) {
  const [last, setLast] = useState<{ readonly topic: Topic; readonly waited: readonly string[] } | null>(null);
  const [isBusy, setBusy] = useState(false);
  const { added, manualOrder } = delivery.planOptions;
  const change = async (now: readonly string[]) => {
    setBusy(true);
    // What was refused is said at the top of the plan.
    await onChange({ added: [...now] }).catch(() => undefined);
    setBusy(false);
  };
  const titleOf = new Map(delivery.topics.map(({ id, title }) => [id, title]));
  return {
    added: added.filter((id) => titleOf.has(id)),
    titleOf,
    isBusy,
    /** The topic that was just added, and the titles of those that went for it. */
    last:
      last === null || isBusy || !added.includes(last.topic.id)
        ? null
        : {
            title: last.topic.title,
            gone: delivery.plan.deferred.filter((id) => !last.waited.includes(id)).map((id) => titleOf.get(id) ?? id),
          },
    async add(topic: Topic) {
      // An order made by hand is kept as it is: what is added comes at its end.
      if (manualOrder !== null) {
        setBusy(true);
        await onChange({ manualOrder: [...manualOrder, topic.id] }).catch(() => undefined);
        setBusy(false);
        return;
      }
      setLast({ topic, waited: delivery.plan.deferred });
      await change([...added, topic.id]);
    },
    async remove(id: string) {
      await change(added.filter((each) => each !== id));
    },
  };
}

function Added({ adding }: { adding: ReturnType<typeof useAdding> }) {
  const { added, titleOf, last, isBusy } = adding;
  if (added.length === 0) return null;
  return (
    <div className="mb-2 border-b border-rule pb-2">
      {last !== null && (
        <p role="status" className="border-l-4 border-helm pl-3">
          Added: {last.title}.{" "}
          {last.gone.length === 0
            ? "There was time for it; nothing had to go."
            : `For it these wait now: ${shortenTitles(last.gone).join(", ")}.`}
        </p>
      )}
      <h3 className="mt-1 font-semibold">Added to this walk</h3>
      <ul>
        {added.map((id) => (
          <li key={id} className="flex items-center justify-between gap-3">
            {titleOf.get(id)}
            <Button
              look="quiet"
              aria-label={`Do not add ${titleOf.get(id)}`}
              disabled={isBusy}
              onClick={() => void adding.remove(id)}
            >
              Undo
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
