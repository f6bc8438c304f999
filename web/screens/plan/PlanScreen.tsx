import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { isOneOf, planners } from "../../../api/roles.ts";
import type { PlanOptions } from "../../../core/route/index.ts";
import { formatBuyers, listStartObstacles } from "../../../core/walk/index.ts";
import { addressOf, ask } from "../../app/client.ts";
import { deliveryQuery, plansQuery, queryClient, todayQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { OwnerLink } from "../../handover/OwnerLink.tsx";
import { StartGate } from "../../handover/StartGate.tsx";
import { startWalk } from "../../handover/StartWalk.tsx";
import { useDelivery } from "../../handover/useDelivery.ts";
import { useWalkState } from "../../offline/useSync.ts";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { listWrong } from "../../plan/listWrong.ts";
import { signStations } from "../../plan/signs.ts";
import { Button, linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { KeyHelp } from "../../ui/KeyHelp.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { PaperLinks } from "../../ui/PaperLinks.tsx";
import { formatLongDay, formatMinutes, formatTimeOf } from "../../ui/words.ts";
import { MakeReady } from "./MakeReady.tsx";
import { ManualOrder } from "./ManualOrder.tsx";
import { Order } from "./Order.tsx";
import { SaveOffline } from "./SaveOffline.tsx";
import { Styles } from "./Styles.tsx";
import { useWalkTimes } from "./useWalkTimes.ts";
import { Verdict } from "./Verdict.tsx";
import { WalkTimeLine } from "./WalkTimeLine.tsx";
import { WhatWaits } from "./WhatWaits.tsx";
import { WhoAndWhen } from "./WhoAndWhen.tsx";

/** The walk before it is walked: its order, its minutes, the course on the deck plan, the schools compared. */
export function PlanScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useDelivery(id);
  return (
    <Fetched query={delivery} what="the plan">
      {(data) => <PlanOf delivery={data} />}
    </Fetched>
  );
}

const latestOptions = ({ id, planOptions }: Delivery): PlanOptions =>
  queryClient.getQueryData(deliveryQuery(id).queryKey)?.planOptions ?? planOptions;

function PlanOf({ delivery }: { delivery: Delivery }) {
  const state = useWalkState(delivery);
  const me = useMe();
  const navigate = useNavigate();
  const [picked, setPicked] = useState<string | null>(null);
  const choose = useChoose(delivery);
  const { plan, seal } = delivery;
  const walkAddress = `/deliveries/${delivery.id}/walk`;
  const isMine = isOneOf(planners, me.role);
  // A walk under way goes by the plan it began with.
  const canPlan = isMine && seal === null && state.startedAt === null;
  const [isByHand, setByHand] = useState(false);
  const start = () => {
    startWalk(delivery);
    void navigate(walkAddress);
  };
  const isFree = state.startedAt !== null || listStartObstacles(delivery.makeReady, state).isFree;
  const goToWalk = () => {
    if (seal !== null || !isFree) return;
    if (state.startedAt === null) start();
    else void navigate(walkAddress);
  };
  return (
    <BoatPage
      plan={
        <DeckPlan
          rig={delivery.rig}
          plan={plan}
          signs={signStations(plan, delivery.topics, state, null)}
          onPick={(station) => setPicked(picked === station ? null : station)}
          wrong={listWrong(state)}
          picked={picked}
          className="size-full"
        />
      }
    >
      <KeyHelp actions={[{ key: "w", says: "Start the walk, or go on with it", act: goToWalk }]} />
      <PlanHead delivery={delivery} isBegun={state.startedAt !== null} isFree={isFree} onStart={start} />
      {seal === null && state.startedAt === null && <StartGate delivery={delivery} state={state} />}
      {seal === null && state.startedAt !== null && (
        <p className="mt-2 text-soft">The walk has begun: its plan, words and boat sheet stay as they were then.</p>
      )}
      <SaveOffline delivery={delivery} />
      <div className="mt-4">
        <Verdict delivery={delivery} />
      </div>
      <PlanMinutes delivery={delivery} />
      {choose.error !== null && <ErrorNotice error={choose.error} />}
      <div className="mt-6 grid gap-x-10 gap-y-8 xl:grid-cols-[minmax(0,1fr)_400px]">
        {isByHand ? (
          <ManualOrder
            delivery={delivery}
            isBusy={choose.isPending}
            onKeep={(manualOrder) => choose.mutate({ manualOrder }, { onSuccess: () => setByHand(false) })}
            onLeave={() => setByHand(false)}
          />
        ) : (
          <Order
            delivery={delivery}
            state={state}
            picked={picked}
            canChange={canPlan}
            onByHand={() => setByHand(true)}
            onPutBack={() => choose.mutate({ manualOrder: null })}
          />
        )}
        <div className="space-y-8 max-xl:order-first">
          <WhoAndWhen
            planOptions={delivery.planOptions}
            canChoose={canPlan}
            onChange={(change) => choose.mutate(change)}
          />
          <Styles
            delivery={delivery}
            canChoose={canPlan}
            onChoose={(style) => choose.mutate({ style, manualOrder: null })}
            isBusy={choose.isPending}
          />
          <WhatWaits delivery={delivery} canPlan={canPlan} onChange={choose.mutateAsync} />
          <MakeReady delivery={delivery} state={state} />
          <OwnerLink delivery={delivery} state={state} />
        </div>
      </div>
    </BoatPage>
  );
}

function useChoose(delivery: Delivery) {
  return useMutation({
    mutationKey: ["plan", delivery.id],
    mutationFn: (_: Partial<PlanOptions>) =>
      ask("setPlan", { params: { delivery: delivery.id }, body: latestOptions(delivery) }),
    // Shown and built upon at once, so that two quick touches do not undo each other.
    onMutate: async (change) => {
      // An answer that is still on its way knows nothing of this touch.
      await queryClient.cancelQueries({ queryKey: deliveryQuery(delivery.id).queryKey });
      queryClient.setQueryData(deliveryQuery(delivery.id).queryKey, (now) =>
        now === undefined ? now : { ...now, planOptions: { ...now.planOptions, ...change } },
      );
    },
    onSettled: async () => {
      // Another touch is under way: what follows it is fetched then.
      if (queryClient.isMutating({ mutationKey: ["plan", delivery.id] }) > 1) return;
      await Promise.all([
        queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery.id).queryKey }),
        queryClient.invalidateQueries({ queryKey: plansQuery(delivery.id).queryKey }),
        queryClient.invalidateQueries({ queryKey: todayQuery.queryKey }),
      ]);
    },
  });
}

interface PlanHeadProps {
  readonly delivery: Delivery;
  readonly isBegun: boolean;
  /** Nothing stands in the way of its start. */
  readonly isFree: boolean;
  readonly onStart: () => void;
}

function PlanHead({ delivery, isBegun, isFree, onStart }: PlanHeadProps) {
  const { id, seal } = delivery;
  return (
    <div className="flex flex-wrap items-start justify-between gap-4">
      <div className="min-w-0 md:flex-1">
        <h1 className="text-2xl font-bold">
          {delivery.boatName} <span className="font-medium text-soft">{delivery.hull}</span>
        </h1>
        <p className="break-words">{formatBuyers(delivery.buyers)}</p>
        <p className="text-soft">
          {formatLongDay(delivery.date)}, {formatTimeOf(delivery.time)}. {delivery.note}
        </p>
      </div>
      <PaperLinks
        says="Print the plan"
        href={addressOf("planPdf", { delivery: id })}
        language={delivery.planOptions.language ?? "en"}
      />
      {seal === null && !isFree && (
        <Link to={`/deliveries/${id}/ready`} className={linkLook("primary")}>
          Go on with make-ready
        </Link>
      )}
      {seal === null && isBegun && (
        <Link to={`/deliveries/${id}/walk`} className={linkLook("primary")}>
          Go on with the walk
        </Link>
      )}
      {seal === null && isFree && !isBegun && (
        <Button look="primary" onClick={onStart}>
          Start the walk
        </Button>
      )}
      {seal !== null && (
        <Link to={`/deliveries/${id}/record`} className={linkLook("primary")}>
          Open the record
        </Link>
      )}
    </div>
  );
}

function PlanMinutes({ delivery }: { delivery: Delivery }) {
  const { plan, topics, planOptions } = delivery;
  const { times, isBefore } = useWalkTimes(delivery);
  const musts = topics.filter(({ must }) => must).length;
  return (
    <p className="mt-1">
      <strong className="num">{plan.visits.length}</strong> stops, <strong className="num">{plan.moves}</strong> moves.{" "}
      <strong className="num">{formatMinutes(plan.topicMin)}</strong> of topics and{" "}
      <strong className="num">{formatMinutes(plan.moveMin)}</strong> of moving about. {musts} topics are must-do.
      {/* Its lines are kept free from the beginning, so that nothing below moves when it comes. */}
      <span className={`mt-1 block min-h-13 ${isBefore ? "opacity-50" : ""}`}>
        {times !== null && <WalkTimeLine times={times} budgetMin={planOptions.budgetMin} />}
      </span>
      {!plan.optimal && " The order is good, but not proven to be the shortest."}
    </p>
  );
}
