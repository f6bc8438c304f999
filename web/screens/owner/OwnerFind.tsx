import { useMemo } from "react";
import { Link, useSearchParams } from "react-router";
import type { OwnerPage } from "../../../api/index.ts";
import type { Card } from "../../../core/card/index.ts";
import type { Rig } from "../../../core/rig/index.ts";
import { createSearch } from "../../../core/search/index.ts";
import { findTopicStation, nameTopicPart, type Topic } from "../../../core/topic/index.ts";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { TopicWords } from "../../topic/TopicWords.tsx";
import { createFind } from "../../topic/useFind.ts";
import { fieldLook } from "../../ui/fields.tsx";
import { useTell } from "../../ui/tell.ts";

interface OwnerFindProps {
  readonly page: OwnerPage;
  readonly cards: readonly Card[];
}

const mostOfEach = 5;
const here = { number: null, look: "current" } as const;

/** The owner asks in their own words and finds the card, the topic or the place on their boat. Works without signal. */
export function OwnerFind({ page, cards }: OwnerFindProps) {
  const tell = useTell();
  // In the address, so that going back from what was found finds it again.
  const [search, setSearch] = useSearchParams();
  const words = search.get("q") ?? "";
  const setWords = (q: string) => setSearch(q === "" ? {} : { q }, { replace: true });
  const { topics, rig } = page.delivery;
  const find = useMemo(() => createFind(topics, rig, page.synonyms), [topics, rig, page.synonyms]);
  const findCards = useMemo(
    () => createSearch(cards, ({ title, blocks }) => ({ title, text: listWords(blocks).join(" ") }), page.synonyms),
    [cards, page.synonyms],
  );
  const isAsked = words.trim() !== "";
  const foundCards = isAsked ? findCards(words).slice(0, 3) : [];
  const foundTopics = isAsked ? find.topics(words).slice(0, mostOfEach) : [];
  const foundParts = isAsked ? find.parts(words).slice(0, mostOfEach) : [];
  const isEmpty = foundCards.length + foundTopics.length + foundParts.length === 0;
  const stationOf = new Map(rig.stations.map(({ id, label }) => [id, label]));
  return (
    <section aria-label={tell("Find")} className="mb-5">
      <input
        type="search"
        aria-label={tell("Ask about your boat")}
        placeholder={tell("Ask: how do I flush it? where is …?")}
        value={words}
        onChange={(event) => setWords(event.target.value)}
        className={`${fieldLook} min-h-14`}
      />
      {isAsked && isEmpty && (
        <p className="mt-2" role="status">
          {tell("Nothing found for that. Try another word, or ask the yard below.")}
        </p>
      )}
      <ul className="mt-1">
        {foundCards.map(({ id, title }) => (
          <Row key={id} to={`?view=${id}`} title={title} where={tell("Card")} />
        ))}
        {foundTopics.map((topic) => (
          <Row
            key={topic.id}
            to={`?view=topic&topic=${topic.id}`}
            title={topic.title}
            where={nameTopicPart(rig, topic) ?? ""}
          />
        ))}
        {foundParts.map(({ id, label, reach, station }) => (
          <li key={id} className="border-b border-rule py-2">
            {label} <span className="block text-soft">{reach ?? stationOf.get(station)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Row({ to, title, where }: { to: string; title: string; where: string }) {
  return (
    <li className="border-b border-rule">
      <Link to={to} className="block min-h-12 py-2 no-underline">
        <span className="font-semibold underline decoration-rule underline-offset-4">{title}</span>
        <span className="block text-soft">{where}</span>
      </Link>
    </li>
  );
}

/** All that is written in blocks of a card. */
function listWords(value: unknown): string[] {
  if (typeof value === "string") return [value];
  return typeof value === "object" && value !== null ? Object.values(value).flatMap(listWords) : [];
}

/** One topic of the walk to read again, with its place on the boat. */
export function OwnerTopic({ topic, rig }: { topic: Topic; rig: Rig }) {
  const station = findTopicStation(rig, topic);
  return (
    <article>
      <div className="grid grid-cols-[96px_1fr] gap-4">
        <DeckPlan
          rig={rig}
          {...(station === null ? {} : { picked: station.id, signs: new Map([[station.id, here]]) })}
          className="h-52 bg-buff p-1"
        />
        <div>
          <p className="head font-semibold text-soft">{nameTopicPart(rig, topic)}</p>
          <h2 className="text-2xl font-extrabold">{topic.title}</h2>
        </div>
      </div>
      <TopicWords topic={topic} />
    </article>
  );
}
