import type { Delivery } from "../../../api/index.ts";
import { formatQuarters } from "../../../core/text/index.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { Button } from "../../ui/Button.tsx";
import { MarkSign, markWords } from "../../ui/MarkSign.tsx";
import { Broken } from "./Broken.tsx";

interface OrderProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
  /** Only this station's stops, when one is picked on the plan. */
  readonly picked: string | null;
  readonly canChange: boolean;
  readonly onByHand: () => void;
  readonly onPutBack: () => void;
}

/** Every stop and what is told there, in order. Must-do topics carry the heavy left rule. */
export function Order({ delivery, state, picked, canChange, onByHand, onPutBack }: OrderProps) {
  const topicOf = new Map(delivery.topics.map((topic) => [topic.id, topic]));
  const stationOf = new Map(delivery.rig.stations.map((station) => [station.id, station]));
  const stops = delivery.plan.visits
    .map((visit, i) => ({ ...visit, number: i + 1 }))
    .filter(({ station }) => picked === null || station === picked);
  return (
    <section aria-labelledby="order">
      <div className="flex flex-wrap items-end justify-between gap-2">
        <h2 id="order" className="text-lg font-bold">
          {picked === null ? "The order" : `Explained at: ${stationOf.get(picked)?.label}`}
          {delivery.plan.isByHand && <span className="font-normal text-soft"> made by hand</span>}
        </h2>
        {canChange && (
          <span className="flex flex-wrap gap-2">
            {delivery.plan.isByHand && <Button onClick={onPutBack}>Put it back</Button>}
            <Button onClick={onByHand}>Change by hand</Button>
          </span>
        )}
      </div>
      <Broken delivery={delivery} broken={delivery.plan.broken} />
      {stops.length === 0 && (
        <p className="border-t border-ink py-3 text-soft">Nothing is explained here on this boat.</p>
      )}
      <ol className="mt-1 border-t border-ink">
        {stops.map(({ number, station, topics }) => (
          <li key={number} className="grid grid-cols-[40px_1fr] border-b border-rule py-2">
            <span className="num pt-0.5 text-lg font-bold">{number}</span>
            <div>
              <h3 className="flex justify-between font-bold">
                {stationOf.get(station)?.label}
                <span className="num font-normal text-soft">
                  {formatQuarters(topics.reduce((sum, id) => sum + (topicOf.get(id)?.minutes ?? 0), 0))} min
                </span>
              </h3>
              {delivery.plan.reasons[number - 1] !== undefined && (
                <p className="mb-1 font-text text-base text-soft">{delivery.plan.reasons[number - 1]}.</p>
              )}
              <ul>
                {topics.map((id) => {
                  const topic = topicOf.get(id);
                  if (topic === undefined) return null;
                  const mark = state.topics.get(id)?.mark ?? null;
                  return (
                    <li
                      key={id}
                      className={`flex min-h-8 items-center gap-2 border-l-4 pl-2 ${topic.must ? "border-ink font-semibold" : "border-transparent"}`}
                    >
                      <MarkSign mark={mark} size={14} />
                      <span className="min-w-0">{topic.title}</span>
                      {mark !== null && <span className="ml-auto text-sm text-soft">{markWords[mark]}</span>}
                    </li>
                  );
                })}
              </ul>
            </div>
          </li>
        ))}
      </ol>
    </section>
  );
}
