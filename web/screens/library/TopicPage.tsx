import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { LibrarySheet } from "../../../api/index.ts";
import type { Rig } from "../../../core/rig/index.ts";
import { formatQuarters } from "../../../core/text/index.ts";
import {
  blankTopic,
  createTopicId,
  explainTopic,
  fillTopic,
  type System,
  systemNames,
  type Topic,
} from "../../../core/topic/index.ts";
import { TopicWords } from "../../topic/TopicWords.tsx";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay, storeRegion } from "../../ui/storeTime.ts";
import { count, formatDayAndYear } from "../../ui/words.ts";
import { CompareShipped } from "./CompareShipped.tsx";
import { TopicEditor } from "./TopicEditor.tsx";
import { useCanWrite, useTopicChanges } from "./useLibrary.ts";
import { newTopicKey, useTopicDraft } from "./useTopicDraft.ts";

const levelWords = { told: "to be explained", shown: "to be shown", done: "done by their own hands" } as const;
const asksWords = {
  any: null,
  cooling: "needs cooling water",
  afloat: "only afloat",
  ashore: "only out of the water",
} as const;

interface TopicPageProps {
  readonly topic: Topic;
  readonly library: LibrarySheet;
  readonly rig: Rig | null;
}

/** One topic as the specialist will see it on the chosen boat; its editor beside the preview. */
export function TopicPage({ topic, library, rig }: TopicPageProps) {
  const { draft, write, drop } = useTopicDraft(topic.id);
  const [isComparing, setComparing] = useState(false);
  const [undone, setUndone] = useState<Topic | null>(null);
  const canWrite = useCanWrite();
  const { keep, revert } = useTopicChanges();
  const edit = library.edits.find((each) => each.topic === topic.id);
  const titleOf = new Map(library.topics.map(({ id, title }) => [id, title]));
  if (draft !== null && canWrite)
    return (
      <div className="grid gap-x-8 gap-y-6 xl:grid-cols-2">
        <TopicEditor
          topic={draft}
          heading="Our wording"
          titles={titleOf}
          onChange={write}
          error={keep.error}
          isBusy={keep.isPending}
          onKeep={() => keep.mutate(draft, { onSuccess: drop })}
          onLeave={drop}
        />
        <Reading topic={draft} rig={rig} library={library} heading="As it is explained" />
      </div>
    );
  return (
    <div className="min-w-0">
      <div className="flex flex-wrap items-center gap-2 pt-1">
        {canWrite && <Button onClick={() => write(structuredClone(topic))}>Edit this topic</Button>}
        <Link to={`/library/languages?topic=${topic.id}`} className="inline-flex min-h-11 items-center underline">
          In other languages
        </Link>
        {edit !== undefined && (
          <>
            <Button aria-expanded={isComparing} onClick={() => setComparing(!isComparing)}>
              Compare with the original
            </Button>
            {canWrite && edit.shipped !== null && (
              <Button
                look="quiet"
                disabled={revert.isPending}
                onClick={() => revert.mutate(topic.id, { onSuccess: () => setUndone(topic) })}
              >
                Back to the original
              </Button>
            )}
            {canWrite && edit.shipped === null && <RemoveTopic topic={topic} />}
          </>
        )}
      </div>
      {undone !== null && edit === undefined && (
        <p role="status" className="mt-2 border-l-4 border-helm pl-3">
          This is the original again.{" "}
          <button
            type="button"
            className="min-h-11 underline"
            disabled={keep.isPending}
            onClick={() => keep.mutate(undone, { onSuccess: () => setUndone(null) })}
          >
            Undo: back to our wording
          </button>
        </p>
      )}
      {edit !== undefined && (
        <p className="mt-2 text-soft">
          Our wording, by {edit.by}, {formatDayAndYear(storeDay(edit.at))}.
          {edit.isBehind && (
            <strong className="text-amber">
              {" "}
              ▲ The original has changed since: compare, and take over what is missing.
            </strong>
          )}
        </p>
      )}
      {revert.error !== null && <ErrorNotice error={revert.error} />}
      {keep.error !== null && <ErrorNotice error={keep.error} />}
      {isComparing && edit !== undefined && (
        <CompareShipped shipped={edit.shipped} basis={edit.basis} ours={topic} titles={titleOf} />
      )}
      <SetAside topic={topic} library={library} titleOf={titleOf} />
      <Reading topic={topic} rig={rig} library={library} heading={null} />
      <Needs topic={topic} titleOf={titleOf} />
    </div>
  );
}

/** A topic of the store's own goes only when that was said twice. */
function RemoveTopic({ topic }: { topic: Topic }) {
  const [isAsked, setAsked] = useState(false);
  const navigate = useNavigate();
  const { revert } = useTopicChanges();
  if (!isAsked)
    return (
      <Button look="quiet" onClick={() => setAsked(true)}>
        Remove this topic
      </Button>
    );
  return (
    <span className="flex flex-wrap items-center gap-2" role="group" aria-label="Remove this topic">
      It is nowhere else. Export it first if you may want it again.
      <Button
        disabled={revert.isPending}
        onClick={() => revert.mutate(topic.id, { onSuccess: () => void navigate("/library") })}
      >
        Remove it
      </Button>
      <Button look="quiet" onClick={() => setAsked(false)}>
        Keep it
      </Button>
      {revert.error !== null && <ErrorNotice error={revert.error} />}
    </span>
  );
}

/** Our words for topics that have been merged into this one since: told no more, kept until somebody has looked. */
function SetAside({ topic, library, titleOf }: Omit<TopicPageProps, "rig"> & { titleOf: ReadonlyMap<string, string> }) {
  const canWrite = useCanWrite();
  const { revert } = useTopicChanges();
  const aside = library.edits.filter(({ setAside, shipped }) => setAside !== null && shipped?.id === topic.id);
  return aside.map(({ topic: id, by, at, setAside, shipped, basis }) => (
    <section key={id} aria-label={`Our wording of ${setAside!.title}`} className="mt-3 border-l-4 border-amber pl-3">
      <p>
        <strong className="text-amber">▲ “{setAside!.title}” is part of this topic now.</strong> Our wording of it, by{" "}
        {by}, {formatDayAndYear(storeDay(at))}, is not used any more. Take over what is missing, then put it away.
      </p>
      <CompareShipped shipped={shipped} basis={basis} ours={setAside!} titles={titleOf} />
      {canWrite && (
        <Button className="mt-2" look="quiet" disabled={revert.isPending} onClick={() => revert.mutate(id)}>
          Put our old wording away
        </Button>
      )}
      {revert.error !== null && <ErrorNotice error={revert.error} />}
    </section>
  ));
}

/** A topic of the store's own, from nothing to saved, read as it will be told beside it. */
export function NewTopicPage({ library, rig, system }: { library: LibrarySheet; rig: Rig | null; system: System }) {
  const { draft, write, drop } = useTopicDraft(newTopicKey);
  const navigate = useNavigate();
  const { keep } = useTopicChanges();
  const topic = draft ?? blankTopic(system);
  const titleOf = new Map(library.topics.map(({ id, title }) => [id, title]));
  const save = () => {
    const taken = new Set(library.topics.flatMap(({ id, was = [] }) => [id, ...was]));
    const own = { ...topic, id: createTopicId(topic.title, taken) };
    keep.mutate(own, {
      onSuccess: () => {
        drop();
        void navigate(`/library/topic/${own.id}`);
      },
    });
  };
  return (
    <div className="grid gap-x-8 gap-y-6 xl:grid-cols-2">
      <TopicEditor
        topic={topic}
        heading="A new topic"
        titles={titleOf}
        onChange={write}
        error={keep.error}
        isBusy={keep.isPending}
        onKeep={save}
        onLeave={() => {
          drop();
          void navigate("/library");
        }}
      />
      <Reading topic={topic} rig={rig} library={library} heading="As it will be explained" />
    </div>
  );
}

interface ReadingProps {
  readonly topic: Topic;
  readonly rig: Rig | null;
  readonly library: LibrarySheet;
  readonly heading: string | null;
}

const furtherWords = { told: "explained", shown: "shown", done: "done by the buyer's own hands" } as const;

function Reading({ topic, rig, library, heading }: ReadingProps) {
  const reason = rig === null ? null : explainTopic(topic, rig);
  const told = rig === null ? topic : fillTopic(topic, rig, storeRegion(), library.schools);
  const ours = library.minutesOf[topic.id];
  const forgotten = library.forgotten[topic.id];
  const raise = library.raised[topic.id];
  return (
    <section
      aria-label="The topic as it is explained"
      className={`min-w-0 ${heading === null ? "" : "xl:sticky xl:top-2 xl:self-start"}`}
    >
      {heading !== null && <h2 className="text-lg font-bold">{heading}</h2>}
      <article className={`mt-2 border-l-[7px] pl-4 text-[19px] ${topic.must ? "border-ink" : "border-transparent"}`}>
        <p className="head text-base text-soft">
          {[
            systemNames[topic.system],
            topic.must ? "must" : null,
            levelWords[topic.level],
            `${formatQuarters(topic.minutes)} min`,
            ours === undefined ? null : `${ours.toFixed(1)} min as we take it`,
            asksWords[topic.asks ?? "any"],
          ]
            .filter((part) => part !== null)
            .join(" · ")}
        </p>
        <h2 className="text-3xl leading-tight font-extrabold tracking-tight">{topic.title}</h2>
        <TopicWords topic={told} />
      </article>
      {forgotten !== undefined && (
        <p className="mt-4 border-t border-rule pt-2">Often left out here: {sayLeftOut(forgotten)}.</p>
      )}
      {raise !== undefined && (
        <p className="mt-4 border-t border-rule pt-2">
          <strong>Taken further here</strong>, because buyers called about it{" "}
          <span className="num">{count(raise.calls, "time", "times")}</span> over the last{" "}
          <span className="num">{count(raise.handovers, "handover", "handovers")}</span>:{" "}
          {raise.level === topic.level
            ? "it goes before others where time is short"
            : `it is ${furtherWords[raise.level]} instead of ${furtherWords[topic.level]}, and goes before others where time is short`}
          . It goes back by itself once they call less.
        </p>
      )}
      {reason !== null && (
        <p className="mt-4 border-t border-rule pt-2" role="status">
          <strong>{reason.isHere ? `Part of the walk on the ${rig!.model}` : `Not on the ${rig!.model}`}</strong>:{" "}
          {reason.because.join("; ")}.
        </p>
      )}
    </section>
  );
}

function Needs({ topic, titleOf }: { topic: Topic; titleOf: ReadonlyMap<string, string> }) {
  if (topic.after.length === 0) return null;
  return <p className="text-soft">Comes after: {topic.after.map((id) => titleOf.get(id) ?? id).join("; ")}.</p>;
}

/** What was counted of it, without what was never seen. */
function sayLeftOut({ late, calls }: { late: number; calls: number }): string {
  return [
    ...(late > 0 ? [`marked only when closing or later ${count(late, "time", "times")}`] : []),
    ...(calls > 0 ? [`called about ${count(calls, "time", "times")}`] : []),
  ].join(", ");
}
