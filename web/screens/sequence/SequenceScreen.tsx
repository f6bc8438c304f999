import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import type { Sequence } from "../../../core/sequence/index.ts";
import { type EntryOf, formatBuyers } from "../../../core/walk/index.ts";
import { guidesQuery } from "../../app/queries.ts";
import { useDelivery } from "../../handover/useDelivery.ts";
import type { NewEntry } from "../../offline/syncQueue.ts";
import { useNews } from "../../offline/useNews.ts";
import { syncQueue, useWalkState } from "../../offline/useSync.ts";
import { StepRun } from "../../sequence/StepRun.tsx";
import { Fetched } from "../../ui/Fetched.tsx";

/** Hitching up, launching, loading or putting away, with the handover it belongs to. */
export function SequenceScreen() {
  const { delivery: id, sequence: name } = useParams() as { delivery: string; sequence: string };
  const delivery = useDelivery(id);
  const guides = useQuery(guidesQuery);
  return (
    <main className="px-4 pt-4 pb-12 md:px-8">
      <Fetched query={delivery} what="the handover">
        {(data) => (
          <Fetched query={guides} what="the steps">
            {({ sequences }) => {
              const sequence = sequences.find((each) => each.id === name);
              return sequence === undefined ? (
                <p>There are no such steps.</p>
              ) : (
                <RunOf delivery={data} sequence={sequence} all={sequences} />
              );
            }}
          </Fetched>
        )}
      </Fetched>
    </main>
  );
}

interface RunOfProps {
  readonly delivery: Delivery;
  readonly sequence: Sequence;
  readonly all: readonly Sequence[];
}

function RunOf({ delivery, sequence, all }: RunOfProps) {
  const { steps } = useWalkState(delivery);
  useNews(delivery.id);
  return (
    <>
      <nav aria-label="Steps for" className="head mb-2 flex flex-wrap items-center gap-x-4 text-soft">
        <Link to={`/boats/${delivery.boat}`} className="inline-flex min-h-11 items-center underline">
          {delivery.boatName} {delivery.hull}
        </Link>
        <span>{formatBuyers(delivery.buyers)}</span>
        {all.map(({ id, title }) => (
          <Link
            key={id}
            to={`/deliveries/${delivery.id}/steps/${id}`}
            aria-current={id === sequence.id ? "page" : undefined}
            className="inline-flex min-h-11 items-center underline aria-[current]:font-bold aria-[current]:text-ink aria-[current]:no-underline"
          >
            {title}
          </Link>
        ))}
      </nav>
      <StepRun
        key={sequence.id}
        sequence={sequence}
        port={{ rig: delivery.rig, entries: steps, onAdd: (entry) => addStep(delivery, steps, sequence, entry) }}
        more={(topic) => <HowTo delivery={delivery} topic={topic} />}
      />
    </>
  );
}

const mostSpentS = 900;

/** Keeps a step; one that teaches a topic of this walk marks it as done by their own hands, with the time since the step before. */
function addStep(delivery: Delivery, before: readonly EntryOf<"step">[], { phases }: Sequence, entry: NewEntry) {
  void syncQueue.add(delivery.id, entry);
  if (entry.kind !== "step" || entry.as !== "done") return;
  const teaches = phases.flatMap(({ steps }) => steps).find(({ id }) => id === entry.step)?.teaches;
  if (teaches === undefined || !delivery.topics.some(({ id }) => id === teaches)) return;
  const last = before.findLast(({ run }) => run === entry.run);
  const spentS = last === undefined ? 0 : Math.round((Date.now() - Date.parse(last.at)) / 1000);
  void syncQueue.add(delivery.id, {
    kind: "mark",
    topic: teaches,
    mark: "did",
    person: null,
    spentS: Math.max(0, Math.min(mostSpentS, spentS)),
  });
}

/** The topic in the words of this walk, for whoever wants to know more: opened in place, so that nobody loses the step. */
function HowTo({ delivery, topic: id }: { delivery: Delivery; topic: string }) {
  const topic = delivery.topics.find((each) => each.id === id);
  if (topic === undefined) return null;
  return (
    <details className="mt-2">
      <summary className="inline-flex min-h-11 items-center underline">How and why</summary>
      <p>{topic.say}</p>
      <p className="mt-1 text-soft">{topic.why}</p>
    </details>
  );
}
