import { useState } from "react";
import type { LibrarySheet } from "../../../api/index.ts";
import type { Rig } from "../../../core/rig/index.ts";
import { formatQuarters } from "../../../core/text/index.ts";
import { explainTopic, fillTopic, systemNames, type Topic } from "../../../core/topic/index.ts";
import { TopicWords } from "../../topic/TopicWords.tsx";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatDayAndYear } from "../../ui/words.ts";
import { CompareShipped } from "./CompareShipped.tsx";
import { TopicEditor } from "./TopicEditor.tsx";
import { useCanWrite, useTopicChanges } from "./useLibrary.ts";

const levelWords = { told: "to be told", shown: "to be shown", done: "done by their own hands" } as const;
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
  const [draft, setDraft] = useState<Topic | null>(null);
  const [isComparing, setComparing] = useState(false);
  const canWrite = useCanWrite();
  const { keep, revert } = useTopicChanges();
  const edit = library.edits.find((each) => each.topic === topic.id);
  const titleOf = new Map(library.topics.map(({ id, title }) => [id, title]));
  const shown = draft ?? topic;
  if (draft !== null)
    return (
      <div className="grid gap-x-8 gap-y-6 xl:grid-cols-2">
        <TopicEditor
          topic={draft}
          titles={titleOf}
          rig={rig}
          onChange={setDraft}
          error={keep.error}
          isBusy={keep.isPending}
          onKeep={() => keep.mutate(draft, { onSuccess: () => setDraft(null) })}
          onLeave={() => setDraft(null)}
        />
        <Reading topic={shown} rig={rig} library={library} heading="As it is told" />
      </div>
    );
  return (
    <div className="min-w-0">
      <div className="flex flex-wrap items-center gap-2 pt-1">
        {canWrite && <Button onClick={() => setDraft(structuredClone(topic))}>Edit this topic</Button>}
        {edit !== undefined && (
          <>
            <Button aria-expanded={isComparing} onClick={() => setComparing(!isComparing)}>
              Compare with the original
            </Button>
            {canWrite && (
              <Button look="quiet" disabled={revert.isPending} onClick={() => revert.mutate(topic.id)}>
                {edit.shipped === null ? "Remove this topic" : "Back to the original"}
              </Button>
            )}
          </>
        )}
      </div>
      {edit !== undefined && (
        <p className="mt-2 text-soft">
          Our wording, by {edit.by}, {formatDayAndYear(storeDay(edit.at))}.
          {edit.isBehind && (
            <strong className="text-amber"> ▲ The shipped text has changed since; compare and decide.</strong>
          )}
        </p>
      )}
      {revert.error !== null && <ErrorNotice error={revert.error} />}
      {isComparing && edit !== undefined && <CompareShipped shipped={edit.shipped} ours={topic} />}
      <Reading topic={topic} rig={rig} library={library} heading={null} />
      <Needs topic={topic} titleOf={titleOf} />
    </div>
  );
}

interface ReadingProps {
  readonly topic: Topic;
  readonly rig: Rig | null;
  readonly library: LibrarySheet;
  readonly heading: string | null;
}

function Reading({ topic, rig, library, heading }: ReadingProps) {
  const reason = rig === null ? null : explainTopic(topic, rig);
  const told = rig === null ? topic : fillTopic(topic, rig, library.schools);
  const ours = library.minutesOf[topic.id];
  const forgotten = library.forgotten[topic.id];
  return (
    <section aria-label="The topic as it is told" className="min-w-0">
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
        <p className="mt-4 border-t border-rule pt-2">
          Often left out here: marked only when closing or later <strong className="num">{forgotten.late}</strong>{" "}
          times, rang about <strong className="num">{forgotten.calls}</strong> times.
        </p>
      )}
      {reason !== null && (
        <p className="mt-4 border-t border-rule pt-2" role="status">
          <strong>{reason.isHere ? `Told on the ${rig!.model}` : `Not told on the ${rig!.model}`}</strong>:{" "}
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
