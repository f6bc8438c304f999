import type { Delivery } from "../../../api/index.ts";
import { systemNames, systems, type Topic } from "../../../core/topic/index.ts";
import { countTopics, listDisputed, listHands, type WalkState } from "../../../core/walk/index.ts";
import { MarkSign, markWords } from "../../ui/MarkSign.tsx";
import { PhotoRow } from "../../ui/Photos.tsx";
import { formatClock } from "../../ui/words.ts";
import { sayReceipt } from "./receiptWords.ts";

interface ExplainedProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
  readonly nameOf: (id: string) => string;
}

/** Topic by topic what was explained, by whom and when; of those that must be or were touched; what was planned and not reached is folded. */
export function Explained({ delivery, state, nameOf }: ExplainedProps) {
  const { planned, done, putOff, extra } = countTopics(delivery, state);
  const { visits, second } = delivery.plan;
  const onPlan = new Set([...visits, ...(second?.visits ?? [])].flatMap((visit) => visit.topics));
  // Nobody must and nobody touched them: they are named when somebody asks.
  const notReached = delivery.topics.filter(({ id, must }) => onPlan.has(id) && !must && !hasAny(id, state));
  return (
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
          (topic) => topic.system === system && (topic.must || hasAny(topic.id, state)),
        );
        if (topics.length === 0) return null;
        return (
          <table key={system} className="mb-4 w-full table-fixed">
            <thead>
              <tr className="border-b border-ink">
                <th className="py-1">{systemNames[system]}</th>
                <th className="w-26">Mark</th>
                <th className="w-16 max-md:hidden">By</th>
                <th className="w-20 text-right">At</th>
              </tr>
            </thead>
            <tbody>
              {topics.map((topic) => (
                <TopicRow key={topic.id} topic={topic} delivery={delivery} state={state} nameOf={nameOf} />
              ))}
            </tbody>
          </table>
        );
      })}
      {notReached.length > 0 && (
        <details className="border-t border-ink">
          <summary className="head flex min-h-11 items-center font-semibold">
            {notReached.length} planned, not reached
          </summary>
          <ul className="pb-2">
            {notReached.map(({ id, title }) => (
              <li key={id} className="border-b border-rule py-1 pl-3 text-soft">
                {title}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function TopicRow({ topic, delivery, state, nameOf }: ExplainedProps & { topic: Topic }) {
  const marked = state.topics.get(topic.id);
  const reason = state.reasons.get(topic.id);
  return (
    <tr className="border-b border-rule align-top">
      <td className={`border-l-4 py-1.5 pr-3 pl-2 ${topic.must ? "border-ink font-semibold" : "border-transparent"}`}>
        {topic.title}
        {reason !== undefined && <p className="font-normal text-magenta">Not done: {reason.reason}</p>}
        {marked !== undefined && marked.people.size > 0 && (
          <p className="text-sm font-normal text-soft">
            {[...listHands(topic, delivery.buyers, state)]
              .map(([id, mark]) => `${personName(delivery, id)}: ${mark === null ? "not marked" : markWords[mark]}`)
              .join(", ")}
          </p>
        )}
        {marked !== undefined &&
          listDisputed(marked).map((other) => (
            <p key={other.id} className="text-sm font-normal text-soft">
              also marked {markWords[other.mark]} by {nameOf(other.by)}, {formatClock(other.at)}
            </p>
          ))}
        {marked !== undefined && sayReceipt(delivery, marked.entry) !== null && (
          <p className="text-sm font-normal text-soft">{sayReceipt(delivery, marked.entry)}</p>
        )}
        {state.remote.has(topic.id) && (
          <p className="text-sm font-normal text-soft">
            remote: {state.remote.get(topic.id)!.as === "did" ? "did it" : "understood"}, on the owner's page
          </p>
        )}
        <PhotoRow photos={state.photos.filter((photo) => photo.topic === topic.id)} says={topic.title} />
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
      <td className="num py-1.5 text-right text-soft">{marked === undefined ? "" : formatClock(marked.entry.at)}</td>
    </tr>
  );
}

const personName = ({ buyers }: Delivery, id: string) => buyers.find((buyer) => buyer.id === id)?.name ?? id;

const hasAny = (topic: string, state: WalkState) =>
  state.topics.has(topic) || state.reasons.has(topic) || state.remote.has(topic);
