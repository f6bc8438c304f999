import { type ReactNode, useEffect, useMemo } from "react";
import { Link, Navigate, useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { formatMeasure } from "../../../core/measure/index.ts";
import { capitalize } from "../../../core/text/index.ts";
import {
  findWaitingClose,
  formatBuyers,
  formatEntry,
  listObstacles,
  listOwed,
  listUnseen,
  mayEnter,
  type Obstacle,
  type Unseen,
  type WalkState,
  type WeighedClose,
} from "../../../core/walk/index.ts";
import { deliveryQuery, queryClient } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { obstacleWords, unseenWords } from "../../handover/closeWords.ts";
import { HoursRead } from "../../handover/HoursRead.tsx";
import { useDelivery } from "../../handover/useDelivery.ts";
import { useStaffName } from "../../handover/useStaffName.ts";
import { MeasureList } from "../../measure/MeasureList.tsx";
import { useNews } from "../../offline/useNews.ts";
import { syncQueue, useEntries, useSyncStatus, useWalkState } from "../../offline/useSync.ts";
import { OwedList } from "../../owed/OwedList.tsx";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeliveryPlan } from "../../plan/DeliveryPlan.tsx";
import { spell } from "../../ui/amounts.ts";
import { Button, linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { count, formatClock } from "../../ui/words.ts";
import { BeforeParting } from "./BeforeParting.tsx";
import { ClosePart, PartStrip } from "./ClosePart.tsx";
import { listOff, listParts, type PartId } from "./closeParts.ts";
import { GearCount } from "./GearCount.tsx";
import { SignPads } from "./SignPads.tsx";
import { type SittingState, useSitting } from "./useSitting.ts";

/** Closing: what is still open, gear, hours, signatures. Sealed when nothing stands in the way. */
export function CloseScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useDelivery(id);
  return (
    <Fetched query={delivery} what="the handover">
      {(data) =>
        data.seal === null ? <Closing delivery={data} /> : <Navigate to={`/deliveries/${id}/record`} replace />
      }
    </Fetched>
  );
}

/** The page itself, of a handover that is not sealed. */
export function Closing({ delivery }: { delivery: Delivery }) {
  const whole = useWalkState(delivery);
  const sitting = useSitting(delivery);
  const { state } = sitting;
  useNews(delivery.id);
  useFetchWhenSent(delivery.id);
  const owed = listOwed(delivery.topics, delivery.rig.gear, state);
  const obstacles = listObstacles(delivery, state);
  const parts = listParts(delivery, state, obstacles, owed);
  const inside: Record<PartId, ReactNode> = {
    topics: <BeforeParting delivery={delivery} state={state} />,
    readings: <Readings delivery={delivery} state={state} />,
    gear: <GearCount delivery={delivery} state={state} />,
    hours: <HoursRead delivery={delivery} state={state} />,
    owed: <OwedList delivery={delivery} state={state} owed={owed} />,
    sign: (
      <>
        <Uncovered delivery={delivery} sitting={sitting} />
        <SignPads delivery={delivery} sitting={sitting} />
      </>
    ),
  };
  return (
    <BoatPage plan={<DeliveryPlan delivery={delivery} state={whole} />}>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h1 className="text-2xl font-bold">Close the handover</h1>
          <p className="break-words text-soft">
            {delivery.boatName} {delivery.hull}, {formatBuyers(delivery.buyers)}
          </p>
        </div>
        <Link to={`/deliveries/${delivery.id}/walk`} className={linkLook("plain")}>
          Back to the walk
        </Link>
      </div>
      <div className="max-w-4xl">
        <PartStrip parts={parts} />
        <div className="mt-2">
          {parts.map((part) => (
            <ClosePart key={part.id} part={part}>
              {inside[part.id]}
            </ClosePart>
          ))}
        </div>
        <Seal delivery={delivery} sitting={sitting} obstacles={obstacles} />
      </div>
    </BoatPage>
  );
}

/** What is off, in words; all of them can be read again. */
function Readings({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const off = listOff(delivery, state);
  return (
    <>
      {off.length > 0 && (
        <ul className="border-t border-rule" aria-label="Readings that want a look">
          {off.map(({ measure, taken, verdict, says }) => (
            <li key={measure.id} className="border-b border-rule py-1.5 pl-4">
              <span className={verdict === "over" ? "text-magenta" : "text-amber"}>
                {verdict === "over" ? "▲" : "◷"} {spell(measure.label)}: {formatMeasure(measure, taken)}.
              </span>{" "}
              {says}
            </li>
          ))}
        </ul>
      )}
      <details>
        <summary className="head flex min-h-11 items-center font-semibold">All readings</summary>
        <MeasureList
          rig={delivery.rig}
          state={state}
          kinds={null}
          onAdd={(entry) => void syncQueue.add(delivery.id, entry)}
        />
      </details>
    </>
  );
}

/** Once what was done here has arrived, the server may have sealed it. */
function useFetchWhenSent(delivery: string) {
  useEffect(
    () =>
      syncQueue.onSent((sent) => {
        if (sent === delivery) void queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery).queryKey });
      }),
    [delivery],
  );
}

/** What others entered after the first signature: it is not covered by it, unless everybody signs again. */
function Uncovered({ delivery, sitting }: { delivery: Delivery; sitting: SittingState }) {
  const { uncovered, startOver } = sitting;
  if (uncovered.length === 0) return null;
  const titleOf = (id: string) => delivery.topics.find((topic) => topic.id === id)?.title ?? id;
  return (
    <section
      aria-label="Not covered by the signatures"
      className="border-l-4 border-amber bg-caution px-4 py-3 text-oncaution"
    >
      <p>
        {count(uncovered.length, "entry", "entries")} from another device came after the first signature. The record
        keeps {uncovered.length === 1 ? "it" : "them"} as not covered by the signatures:
      </p>
      <ul className="my-2 list-disc pl-5">
        {uncovered.slice(0, 6).map((entry) => (
          <li key={entry.id}>{formatEntry(entry, { rig: delivery.rig, entries: uncovered }, titleOf)}</li>
        ))}
        {uncovered.length > 6 && <li>and {uncovered.length - 6} more</li>}
      </ul>
      <Button onClick={() => void startOver()}>Include {uncovered.length === 1 ? "it" : "them"} and sign again</Button>
    </section>
  );
}

interface SealProps {
  readonly delivery: Delivery;
  readonly sitting: SittingState;
  readonly obstacles: readonly Obstacle[];
}

/** The entries in words, by what they are to whoever signed. */
function UnseenList({ delivery, unseen }: { delivery: Delivery; unseen: readonly Unseen[] }) {
  const titleOf = (id: string) => delivery.topics.find((topic) => topic.id === id)?.title ?? id;
  const nameOf = useStaffName(delivery);
  return (
    <ul className="my-2 list-disc pl-5">
      {unseen.map(({ entry, why }) => (
        <li key={entry.id} className="break-words">
          {capitalize(unseenWords[why](formatEntry(entry, delivery, titleOf)))} ({nameOf(entry.by)},{" "}
          {formatClock(entry.at)})
        </li>
      ))}
    </ul>
  );
}

/** Closing: with signal it is sealed at once, without it as soon as what is here arrives. */
function Seal({ delivery, sitting, obstacles }: SealProps) {
  const { state, covered, uncovered } = sitting;
  const me = useMe();
  const { hasSignal, unsent, refusal } = useSyncStatus();
  const mayClose = mayEnter("close", me.role, me.allowers);
  const waiting = useWaitingClose(delivery);
  const isClosed = state.closedAt !== null && waiting === null;
  const isAllThere = isClosed && hasSignal && unsent === 0;
  // What is known here to change what was signed for: a close without it would only wait.
  const unseen = listUnseen(delivery, covered, uncovered);
  const isInTheWay = obstacles.length + unseen.length > 0;
  useEffect(() => {
    // The last photo has arrived: the seal may be there now.
    if (isAllThere) void queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery.id).queryKey });
  }, [isAllThere, delivery.id]);
  return (
    <section aria-label="Seal" className="border-t border-ink pt-4">
      {waiting !== null && <WaitingClose delivery={delivery} sitting={sitting} waiting={waiting} mayClose={mayClose} />}
      {isInTheWay && (
        <div className="mb-4" id="obstacles">
          <p className="head font-semibold">Before it can be sealed:</p>
          <ul>
            {obstacles.map(({ code, ids }) => (
              <li key={code} className="text-magenta">
                ▲ {obstacleWords[code](ids.length)}
              </li>
            ))}
            {unseen.length > 0 && (
              <li className="text-magenta">
                ▲ {count(unseen.length, "entry", "entries")} from another device{" "}
                {unseen.length === 1 ? "changes" : "change"} what was signed for: include{" "}
                {unseen.length === 1 ? "it" : "them"} and sign again
              </li>
            )}
          </ul>
        </div>
      )}
      {isClosed ? (
        <div role="status" className="border-l-4 border-helm pl-4">
          <p className="text-lg font-bold">Closed at {formatClock(state.closedAt ?? "")}.</p>
          <p>
            {hasSignal && unsent === 0
              ? "Sealing …"
              : `Signed here and kept on this tablet (${unsent} unsent). It is sealed when it arrives; nothing more is to be done.`}
          </p>
          {refusal !== null && <ErrorNotice error={refusal} />}
        </div>
      ) : (
        <>
          <Button
            look="primary"
            className="min-h-14 px-8 text-lg"
            disabled={isInTheWay || !mayClose}
            aria-describedby={isInTheWay ? "obstacles" : undefined}
            onClick={() => void syncQueue.add(delivery.id, { kind: "close", covers: covered.map(({ id }) => id) })}
          >
            Close and seal
          </Button>
          <p className="mt-2 text-soft">
            {mayClose
              ? "Closed is locked: you can add to it, not change it."
              : "Closing is for sales, delivery and the owner."}
            {mayClose && !hasSignal && " Without signal it is sealed when it arrives."}
          </p>
        </>
      )}
    </section>
  );
}

/** A close of this handover that is not sealed as it is, as far as is known here. */
function useWaitingClose(delivery: Delivery): WeighedClose | null {
  const entries = useEntries(delivery);
  return useMemo(() => findWaitingClose(delivery, entries, (id) => delivery.receipts[id]?.number), [delivery, entries]);
}

interface WaitingProps {
  readonly delivery: Delivery;
  readonly sitting: SittingState;
  readonly waiting: WeighedClose;
  readonly mayClose: boolean;
}

/** Closed, and what was signed for is no longer all there is: everybody signs again, or it is sealed as it was signed. */
function WaitingClose({ delivery, sitting, waiting, mayClose }: WaitingProps) {
  const { close, unseen, obstacles } = waiting;
  const canBeSetAside = obstacles.length === 0 && unseen.every(({ why }) => why !== "stops");
  const sealAsSigned = () => {
    const beside = [...(close.beside ?? []), ...unseen.map(({ entry }) => entry.id)];
    void syncQueue.add(delivery.id, { kind: "close", covers: close.covers ?? [], beside });
  };
  return (
    <section
      aria-label="Closed, not sealed"
      className="mb-4 border-l-4 border-amber bg-caution px-4 py-3 text-oncaution"
    >
      <p className="text-lg font-bold">Closed at {formatClock(close.at)}, not sealed.</p>
      {unseen.length > 0 && (
        <>
          <p>Entered before that, and unknown to whoever signed:</p>
          <UnseenList delivery={delivery} unseen={unseen} />
        </>
      )}
      {obstacles.map(({ code, ids }) => (
        <p key={code}>▲ {obstacleWords[code](ids.length)}.</p>
      ))}
      {mayClose && (
        <div className="mt-2 flex flex-wrap gap-3">
          <Button onClick={() => void sitting.startOver()}>Sign again, with all of it</Button>
          {canBeSetAside && (
            <Button look="quiet" onClick={sealAsSigned}>
              Seal it as it was signed
            </Button>
          )}
        </div>
      )}
      {canBeSetAside && (
        <p className="mt-2 text-sm">Sealed as it was signed, the record prints what the signers did not know.</p>
      )}
    </section>
  );
}
