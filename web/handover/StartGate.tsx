import { useState } from "react";
import { Link } from "react-router";
import type { Delivery } from "../../api/index.ts";
import { listStartObstacles, mayEnter, type WalkState } from "../../core/walk/index.ts";
import { useMe } from "../app/useMe.ts";
import { syncQueue } from "../offline/useSync.ts";
import { Button } from "../ui/Button.tsx";
import { readPlain } from "../ui/readPlain.ts";

const mostShown = 6;

/** Why a walk may not start yet: make-ready open, or a stopping snag. Whom the store lets may answer for it. */
export function StartGate({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const me = useMe();
  const [reason, setReason] = useState("");
  const { open, stopping, isFree } = listStartObstacles(delivery.makeReady, state);
  if (isFree) return null;
  return (
    <section aria-labelledby="gate" className="mt-4 border-l-4 border-magenta bg-panel px-4 py-3 text-base">
      <h2 id="gate" className="text-lg font-bold">
        Not ready to be walked
      </h2>
      {stopping.map((snag) => (
        <p key={snag.id} className="text-magenta">
          ▲ {snag.note}. This stops the handover until it is settled on the{" "}
          <Link className="underline" to={`/boats/${delivery.boat}`}>
            boat's page
          </Link>
          .
        </p>
      ))}
      {open.length > 0 && (
        <p>
          Make-ready has {open.length} of {delivery.makeReady.length} open:{" "}
          {open
            .slice(0, mostShown)
            .map(({ title }) => title)
            .join("; ")}
          {open.length > mostShown && ` and ${open.length - mostShown} more`}.{" "}
          <Link className="inline-flex min-h-11 items-center underline" to={`/deliveries/${delivery.id}/ready`}>
            Go on with make-ready
          </Link>
        </p>
      )}
      {mayEnter("allow", me.role, me.allowers) ? (
        <form
          className="mt-2 flex flex-wrap gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim() !== "") void syncQueue.add(delivery.id, { kind: "allow", reason: reason.trim() });
          }}
        >
          <input
            aria-label="Why it may start anyway"
            placeholder="Why it may start anyway"
            value={reason}
            maxLength={500}
            onChange={(event) => setReason(readPlain(event))}
            className="min-h-12 min-w-0 flex-1 basis-60 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
          />
          <Button type="submit" look="person" className="min-h-12">
            Allow the start
          </Button>
        </form>
      ) : (
        <p className="text-soft">
          It may be allowed anyway, with a reason that goes on the record, by: {me.allowers.join(", ")}.
        </p>
      )}
    </section>
  );
}
