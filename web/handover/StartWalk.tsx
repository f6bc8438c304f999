import type { Delivery } from "../../api/index.ts";
import { listStartObstacles, type WalkState } from "../../core/walk/index.ts";
import { syncQueue } from "../offline/useSync.ts";
import { Button } from "../ui/Button.tsx";
import { count, formatMinutes } from "../ui/words.ts";
import { StartGate } from "./StartGate.tsx";

/** Begins a walk, with what its screen shows. */
export function startWalk({ id, snapshot }: Delivery): void {
  void syncQueue.add(id, { kind: "start", ...(snapshot === null ? {} : { snapshot }) });
}

/** The act that begins a walk: from here on it goes by what it began with, however library and boat sheet change. */
export function StartWalk({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  if (!listStartObstacles(delivery.makeReady, state).isFree) return <StartGate delivery={delivery} state={state} />;
  const topics = delivery.plan.visits.reduce((sum, visit) => sum + visit.topics.length, 0);
  return (
    <section aria-label="Start" className="mt-4 text-base">
      <p>
        {count(topics, "topic", "topics")} planned, about {formatMinutes(delivery.plan.totalMin)}. The words, the order
        and the boat sheet stay as they are now until this handover is signed.
      </p>
      <Button look="primary" className="mt-3 min-h-16 px-10 text-xl" onClick={() => startWalk(delivery)}>
        Start the walk
      </Button>
    </section>
  );
}
