import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { formatMeasure, judgeMeasure, listMeasures } from "../../../core/measure/index.ts";
import { systemNames, systems } from "../../../core/topic/index.ts";
import {
  countTopics,
  type Entry,
  foldWalk,
  listDisputed,
  listHands,
  listOwed,
  listWalkers,
  ownerId,
  type WalkState,
} from "../../../core/walk/index.ts";
import { addressOf } from "../../app/client.ts";
import { deliveryQuery } from "../../app/queries.ts";
import { OwnerLink } from "../../handover/OwnerLink.tsx";
import { useNews } from "../../offline/useNews.ts";
import { useEntries, useWalkState } from "../../offline/useSync.ts";
import { OwedList } from "../../owed/OwedList.tsx";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeliveryPlan } from "../../plan/DeliveryPlan.tsx";
import { linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { MarkSign, markWords } from "../../ui/MarkSign.tsx";
import { PhotoRow } from "../../ui/Photos.tsx";
import { SignatureImage } from "../../ui/SignatureImage.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";
import { AddedSince } from "./AddedSince.tsx";
import { Downloads } from "./Downloads.tsx";
import { StrikePerson } from "./StrikePerson.tsx";

/** The record: what was explained, given and owed, as sealed, and what was added since. */
export function RecordScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useQuery(deliveryQuery(id));
  return (
    <Fetched query={delivery} what="the record">
      {(data) => <RecordOf delivery={data} />}
    </Fetched>
  );
}

function RecordOf({ delivery }: { delivery: Delivery }) {
  const now = useWalkState(delivery);
  const entries = useEntries(delivery);
  const { sealedEntries, later } = splitAtSeal(delivery, entries);
  // Sealed, the record shows what was sealed; what was added stands below it.
  const state = delivery.seal === null ? now : foldWalk(sealedEntries);
  useNews(delivery.id);
  const nameOf = (id: string) =>
    id === ownerId ? "the owner" : (delivery.staff.find((person) => person.id === id)?.name ?? id);
  const owed = listOwed(delivery.topics, delivery.rig.gear, now);
  const { planned, done, putOff, extra } = countTopics(delivery, state);
  const walkers = listWalkers(state).map(nameOf);
  const pdf = addressOf("recordPdf", { delivery: delivery.id });
  const cautions = delivery.topics.filter((topic) => {
    const mark = state.topics.get(topic.id)?.mark;
    return topic.cautions.length > 0 && mark !== undefined && mark !== "later" && mark !== "not-aboard";
  });
  const onPlan = new Set(
    [...delivery.plan.visits, ...(delivery.plan.second?.visits ?? [])].flatMap((visit) => visit.topics),
  );
  return (
    <BoatPage plan={<DeliveryPlan delivery={delivery} state={state} />}>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0 md:flex-1">
          <h1 className="text-2xl font-bold">Record of handover</h1>
          <p>
            {delivery.boatName} <span className="text-soft">{delivery.hull}</span>, {formatDayAndYear(delivery.date)}
          </p>
          <p className="break-words text-soft">
            {delivery.buyers.map(({ name }) => name).join(" and ")}; walked by {walkers.join(", ") || "nobody yet"}
            {state.startedAt !== null &&
              `, from ${formatClock(state.startedAt)} to ${formatClock(state.lastAt ?? state.startedAt)}`}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <a href={`${pdf}?paper=letter`} target="_blank" rel="noreferrer" className={linkLook("primary")}>
            PDF, Letter
          </a>
          <a href={`${pdf}?paper=a4`} target="_blank" rel="noreferrer" className={linkLook("plain")}>
            PDF, A4
          </a>
        </div>
      </div>
      {delivery.seal === null ? (
        <p className="mt-4 border-l-4 border-amber pl-3 text-amber">
          ◷ Not signed yet: this is a draft.{" "}
          <Link className="underline" to={`/deliveries/${delivery.id}/close`}>
            Close the handover
          </Link>
        </p>
      ) : (
        <p className="mt-4 border-l-4 border-ink pl-3">
          Sealed {formatDayAndYear(storeDay(delivery.seal.sealedAt))}, {formatClock(delivery.seal.sealedAt)}.{" "}
          <span className="text-soft">SHA-256</span>{" "}
          <code className="num text-sm break-all" data-testid="seal">
            {delivery.seal.sha256}
          </code>
          {delivery.seal.key !== null && (
            <>
              <br />
              <span className="text-soft">Signed with this store's key</span>{" "}
              <code className="num text-sm break-all">{delivery.seal.key}</code>
            </>
          )}
        </p>
      )}
      <div className="mt-6 grid gap-x-10 gap-y-7 xl:grid-cols-[minmax(0,1fr)_310px]">
        <section aria-labelledby="explained">
          <h2 id="explained" className="text-lg font-bold">
            What was explained{" "}
            <span className="num font-normal text-soft">
              {done} of {planned} planned topics done{putOff > 0 && `, ${putOff} put off`}
              {extra > 0 && `, ${extra} more not planned`}
            </span>
          </h2>
          {systems.map((system) => {
            const topics = delivery.topics.filter(
              (topic) => topic.system === system && (onPlan.has(topic.id) || topic.must || hasAny(topic.id, state)),
            );
            if (topics.length === 0) return null;
            return (
              <table key={system} className="mb-4 w-full table-fixed">
                <thead>
                  <tr className="border-b border-ink">
                    <th className="py-1">{systemNames[system]}</th>
                    <th className="w-26">Mark</th>
                    <th className="w-16 max-md:hidden">By</th>
                    <th className="w-14 text-right">At</th>
                  </tr>
                </thead>
                <tbody>
                  {topics.map((topic) => {
                    const marked = state.topics.get(topic.id);
                    const reason = state.reasons.get(topic.id);
                    return (
                      <tr key={topic.id} className="border-b border-rule align-top">
                        <td
                          className={`border-l-4 py-1.5 pr-3 pl-2 ${topic.must ? "border-ink font-semibold" : "border-transparent"}`}
                        >
                          {topic.title}
                          {reason !== undefined && (
                            <p className="font-normal text-magenta">Not done: {reason.reason}</p>
                          )}
                          {marked !== undefined && marked.people.size > 0 && (
                            <p className="text-sm font-normal text-soft">
                              {[...listHands(topic, delivery.buyers, state)]
                                .map(
                                  ([id, mark]) =>
                                    `${personName(delivery, id)}: ${mark === null ? "not marked" : markWords[mark]}`,
                                )
                                .join(", ")}
                            </p>
                          )}
                          {marked !== undefined &&
                            listDisputed(marked).map((other) => (
                              <p key={other.id} className="text-sm font-normal text-soft">
                                also marked {markWords[other.mark]} by {nameOf(other.by)}, {formatClock(other.at)}
                              </p>
                            ))}
                          {state.remote.has(topic.id) && (
                            <p className="text-sm font-normal text-soft">
                              remote: {state.remote.get(topic.id)!.as === "did" ? "did it" : "understood"}, on the
                              owner's page
                            </p>
                          )}
                          <PhotoRow
                            photos={state.photos.filter((photo) => photo.topic === topic.id)}
                            says={topic.title}
                          />
                        </td>
                        <td className="py-1.5">
                          <span className={`flex items-center gap-1.5 ${marked === undefined ? "text-soft" : ""}`}>
                            <MarkSign mark={marked?.mark ?? null} size={14} />
                            {marked === undefined ? "not reached" : markWords[marked.mark]}
                          </span>
                        </td>
                        <td className="truncate py-1.5 text-soft max-md:hidden">
                          {marked === undefined ? "" : nameOf(marked.entry.by).split(" ")[0]}
                        </td>
                        <td className="num py-1.5 text-right text-soft">
                          {marked === undefined ? "" : formatClock(marked.entry.at)}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            );
          })}
        </section>
        <div className="space-y-7 max-xl:order-first">
          <section aria-labelledby="owed">
            <h2 id="owed" className="text-lg font-bold">
              Owed to the buyer
            </h2>
            <OwedList delivery={delivery} state={state} owed={owed} />
          </section>
          <section aria-labelledby="read">
            <h2 id="read" className="text-lg font-bold">
              Hours and gear
            </h2>
            <ul className="border-t border-ink">
              {delivery.rig.engines.map(({ id, label }) => (
                <li key={id} className="flex justify-between border-b border-rule py-1.5">
                  {label}
                  <span className="num font-semibold">
                    {state.hours.get(id)?.hours.toFixed(1) ?? "–"} <span className="font-normal text-soft">h</span>
                  </span>
                </li>
              ))}
              {delivery.rig.gear.map(({ id, label, count }) => {
                const counted = state.gear.get(id)?.count;
                return (
                  <li key={id} className="flex justify-between gap-3 border-b border-rule py-1">
                    {label}
                    <span
                      className={`num whitespace-nowrap ${counted !== undefined && counted < count ? "font-semibold text-magenta" : ""}`}
                    >
                      {counted !== undefined && counted < count && "▲ "}
                      {counted ?? "–"} <span className="text-soft">of {count}</span>
                    </span>
                  </li>
                );
              })}
            </ul>
          </section>
          {state.measures.size > 0 && (
            <section aria-labelledby="measured">
              <h2 id="measured" className="text-lg font-bold">
                Measured
              </h2>
              <ul className="border-t border-ink">
                {listMeasures(delivery.rig).map((measure) => {
                  const taken = state.measures.get(measure.id);
                  if (taken === undefined) return null;
                  const { verdict, says } = judgeMeasure(measure, taken.value, taken.isJustCharged);
                  return (
                    <li key={measure.id} className="border-b border-rule py-1">
                      <span className="flex justify-between gap-3">
                        {measure.label}
                        <span className="num font-semibold whitespace-nowrap">
                          {formatMeasure(measure, taken.value)}
                        </span>
                      </span>
                      {verdict !== "fits" && <span className="text-sm text-amber">◷ {says}</span>}
                    </li>
                  );
                })}
              </ul>
            </section>
          )}
          {state.photos.length > 0 && (
            <section aria-labelledby="photos">
              <h2 id="photos" className="text-lg font-bold">
                Photos <span className="num font-normal text-soft">{state.photos.length}</span>
              </h2>
              <div className="border-t border-ink">
                <PhotoRow photos={state.photos} says="Of this handover" />
              </div>
            </section>
          )}
          {state.inspected.size > 0 && (
            <section aria-labelledby="arrived">
              <h2 id="arrived" className="text-lg font-bold">
                Looked at on arrival
              </h2>
              <ul className="border-t border-ink">
                {delivery.arrival.map(({ id, title }) => {
                  const entry = state.inspected.get(id);
                  return (
                    <li key={id} className={`border-b border-rule py-1 ${entry?.ok === false ? "text-magenta" : ""}`}>
                      {title}:{" "}
                      {entry === undefined
                        ? "not looked at"
                        : entry.ok
                          ? "in order"
                          : `▲ damaged${entry.note === undefined ? "" : `, ${entry.note}`}`}
                    </li>
                  );
                })}
              </ul>
            </section>
          )}
          <section aria-labelledby="signed">
            <h2 id="signed" className="text-lg font-bold">
              Signed
            </h2>
            <div className="border-t border-ink pt-2">
              {state.signatures.length === 0 && <p className="py-2 text-soft">Nobody has signed yet.</p>}
              {state.refusals.map(({ id, name, reason }) => (
                <p key={id} className="mb-2 text-magenta">
                  ▲ {name} did not sign: {reason}
                </p>
              ))}
              {state.takenBack.map(({ sign, by }) => (
                <p key={sign.id} className="mb-2 text-soft">
                  {sign.name} signed at {formatClock(sign.at)} and took it back at {formatClock(by.at)}.
                </p>
              ))}
              {state.signatures.map((sign) => (
                <div key={sign.id} className="mb-3">
                  <SignatureImage sign={sign} className="h-20 w-full border-b border-ink" />
                  <p className="break-words">
                    <strong>{sign.name}</strong>{" "}
                    <span className="text-soft">
                      {roleWords[sign.role]}, {formatClock(sign.at)}
                    </span>
                  </p>
                  {(sign.signsFor ?? []).map((line) => (
                    <p key={line} className="text-sm text-soft">
                      {line}
                    </p>
                  ))}
                </div>
              ))}
            </div>
          </section>
          <AddedSince delivery={delivery} later={later} nameOf={nameOf} />
          <OwnerLink delivery={delivery} state={state} />
          <Downloads delivery={delivery} />
          <StrikePerson delivery={delivery} />
          {cautions.length > 0 && (
            <details>
              <summary className="head min-h-11 font-semibold">
                Cautions given <span className="num font-normal text-soft">with {cautions.length} topics</span>
              </summary>
              <ul className="space-y-2 border-t border-ink pt-2 text-sm">
                {cautions.map(({ id, title, cautions: texts }) => (
                  <li key={id}>
                    <strong className="text-amber">{title}.</strong> {texts.join(" ")}
                  </li>
                ))}
              </ul>
            </details>
          )}
        </div>
      </div>
    </BoatPage>
  );
}

const roleWords = { buyer: "buyer", staff: "walked it", countersign: "witness" } as const;

const personName = ({ buyers }: Delivery, id: string) => buyers.find((buyer) => buyer.id === id)?.name ?? id;

/** The sealed entries and, in the order of their coming, those that came after or were not covered. */
function splitAtSeal({ seal, added, receipts, strikes, entries: known }: Delivery, entries: readonly Entry[]) {
  if (seal === null) return { sealedEntries: entries, later: [] };
  const later = new Set(added);
  const struck = new Set(strikes.flatMap((strike) => strike.entries));
  const inside = new Set(known.map(({ id }) => id).filter((id) => !later.has(id)));
  const orderOf = ({ id }: Entry) => receipts[id]?.number ?? Number.POSITIVE_INFINITY;
  return {
    sealedEntries: entries.filter(({ id }) => inside.has(id)),
    later: entries
      .filter(({ id, kind }) => !inside.has(id) && !struck.has(id) && kind !== "close")
      .sort((a, b) => orderOf(a) - orderOf(b)),
  };
}

const hasAny = (topic: string, state: WalkState) =>
  state.topics.has(topic) || state.reasons.has(topic) || state.remote.has(topic);
