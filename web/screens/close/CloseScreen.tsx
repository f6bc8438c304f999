import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { listObstacles, listOpenTopics, listOwed } from "../../../core/walk/index.ts";
import { ask, Refused } from "../../app/client.ts";
import { deliveryQuery, queryClient } from "../../app/queries.ts";
import { journal, useWalkState } from "../../offline/useJournal.ts";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeliveryPlan } from "../../plan/DeliveryPlan.tsx";
import { Button, linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { GearCount } from "./GearCount.tsx";
import { HoursRead } from "./HoursRead.tsx";
import { OpenTopics } from "./OpenTopics.tsx";
import { SignPads } from "./SignPads.tsx";

/** Closing: what is still open, gear, hours, signatures. Sealed when nothing stands in the way. */
export function CloseScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useQuery(deliveryQuery(id));
  return (
    <Fetched query={delivery} what="the handover">
      {(data) =>
        data.seal === null ? <CloseOf delivery={data} /> : <Navigate to={`/deliveries/${id}/record`} replace />
      }
    </Fetched>
  );
}

const obstacleWords = {
  "must-open": (count: number) => `${count} must-do ${count === 1 ? "topic needs" : "topics need"} doing or a reason`,
  "gear-uncounted": (count: number) => `${count} ${count === 1 ? "thing is" : "things are"} not counted yet`,
  "hours-unread": (count: number) => `hours of ${count} ${count === 1 ? "engine" : "engines"} not read yet`,
  unsigned: (count: number) => (count === 2 ? "nobody has signed yet" : "one signature is missing"),
  "stopping-snag": (count: number) => `${count} ${count === 1 ? "snag stops" : "snags stop"} the handover`,
} as const;

function CloseOf({ delivery }: { delivery: Delivery }) {
  const state = useWalkState(delivery);
  const navigate = useNavigate();
  const open = listOpenTopics(delivery.topics, state);
  const owed = listOwed(delivery.topics, delivery.rig.gear, state);
  const obstacles = listObstacles(delivery.topics, delivery.rig, state);
  const openRecord = async () => {
    await queryClient.invalidateQueries();
    await navigate(`/deliveries/${delivery.id}/record`);
  };
  const seal = useMutation({
    mutationFn: async () => {
      await journal.sendAll();
      return ask("seal", { params: { delivery: delivery.id } });
    },
    onSuccess: openRecord,
  });
  const isSealedByOther = seal.error instanceof Refused && seal.error.code === "already-sealed";
  return (
    <BoatPage plan={<DeliveryPlan delivery={delivery} state={state} />}>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h1 className="text-2xl font-bold">Close the handover</h1>
          <p className="text-soft">
            {delivery.boatName} {delivery.hull}, {delivery.buyers.map(({ name }) => name).join(" and ")}
          </p>
        </div>
        <Link to={`/deliveries/${delivery.id}/walk`} className={linkLook("plain")}>
          Back to the walk
        </Link>
      </div>
      <div className="mt-5 max-w-3xl space-y-8">
        <OpenTopics delivery={delivery} open={open} />
        <GearCount delivery={delivery} state={state} />
        <HoursRead delivery={delivery} state={state} />
        <section aria-labelledby="owed">
          <h2 id="owed" className="text-lg font-bold">
            What is owed
          </h2>
          <ul className="border-t border-ink">
            {owed.length === 0 && <li className="py-2 text-soft">Nothing so far.</li>}
            {owed.map(({ ref, what, text }) => (
              <li key={ref} className="flex gap-2 border-b border-rule py-2">
                <span aria-hidden className={what === "snag" ? "text-magenta" : ""}>
                  {what === "later" ? "▷" : "▲"}
                </span>
                {text}
              </li>
            ))}
          </ul>
        </section>
        <SignPads delivery={delivery} state={state} />
        <section aria-label="Seal" className="border-t border-ink pt-4">
          {obstacles.length > 0 && (
            <div className="mb-4" id="obstacles">
              <p className="head font-semibold">Before it can be sealed:</p>
              <ul>
                {obstacles.map(({ code, ids }) => (
                  <li key={code} className="text-amber">
                    ◷ {obstacleWords[code](ids.length)}
                  </li>
                ))}
              </ul>
            </div>
          )}
          <Button
            look="primary"
            className="min-h-14 px-8 text-lg"
            disabled={obstacles.length > 0 || seal.isPending}
            aria-describedby={obstacles.length > 0 ? "obstacles" : undefined}
            onClick={() => seal.mutate()}
          >
            {seal.isPending ? "Sealing …" : "Close and seal"}
          </Button>
          <p className="mt-2 text-soft">Sealed is frozen: later changes are only added beside it.</p>
          {seal.error !== null && (
            <div className="mt-4">
              <ErrorNotice error={seal.error}>
                {isSealedByOther && (
                  <Button className="mt-2" onClick={() => void openRecord()}>
                    Open the record
                  </Button>
                )}
              </ErrorNotice>
            </div>
          )}
        </section>
      </div>
    </BoatPage>
  );
}
