import { useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import { deliveryQuery, queryClient } from "../../app/queries.ts";
import { syncQueue, useSyncStatus } from "../../offline/useSync.ts";
import { Button } from "../../ui/Button.tsx";
import { count } from "../../ui/words.ts";

type Next = NonNullable<Delivery["next"]>;
const whatWords: Record<Next["topics"][number]["what"], string> = {
  reworded: "new words",
  added: "new here",
  gone: "no longer on this boat",
  "now-must": "now a must",
  "no-must": "no longer a must",
};
const mostShown = 4;

/** Library or boat sheet changed since the walk began: what is still to come may be brought up to date, all of it or none. */
export function UpdateOffer({ delivery }: { delivery: Delivery }) {
  const { next } = delivery;
  const [declined, setDeclined] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const { hasSignal } = useSyncStatus();
  if (next === null || next.snapshot === declined) return null;
  const { topics, isBoatChanged } = next;
  const update = async () => {
    setBusy(true);
    await syncQueue.add(delivery.id, { kind: "update", next: next.snapshot });
    await syncQueue.sendAll().catch(() => undefined);
    await queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery.id).queryKey });
    setBusy(false);
  };
  const shown = topics.slice(0, mostShown).map(({ title, what }) => `${title} (${whatWords[what]})`);
  const more = topics.length - shown.length;
  return (
    <section
      aria-label="Changed since the walk began"
      className="border-b border-rule bg-caution px-3 py-2 text-base text-oncaution md:px-5"
    >
      <p>
        {isBoatChanged && "The boat sheet was changed since this walk began. "}
        {topics.length > 0 &&
          `${count(topics.length, "topic", "topics")} still to come changed: ${shown.join(", ")}${more > 0 ? `, and ${more} more` : ""}. `}
        What you have explained stays as you said it.
      </p>
      <p className="mt-1 flex flex-wrap gap-2">
        <Button disabled={isBusy || !hasSignal} onClick={() => void update()}>
          {isBusy ? "Updating …" : "Update what is still to come"}
        </Button>
        <Button look="quiet" onClick={() => setDeclined(next.snapshot)}>
          Keep it as it is
        </Button>
        {!hasSignal && <span className="self-center">Updating needs signal.</span>}
      </p>
    </section>
  );
}
