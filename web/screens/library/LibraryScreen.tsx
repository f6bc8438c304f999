import { useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useMemo, useRef, useState } from "react";
import { Link, useMatch, useNavigate, useParams } from "react-router";
import type { LibrarySheet } from "../../../api/index.ts";
import { formatQuarters } from "../../../core/text/index.ts";
import {
  createTopicSearch,
  explainTopic,
  type System,
  systemNames,
  systems,
  type Topic,
} from "../../../core/topic/index.ts";
import { libraryQuery } from "../../app/queries.ts";
import { useSynonyms } from "../../topic/useFind.ts";
import { EmptySheet } from "../../ui/EmptySheet.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook, TickField } from "../../ui/fields.tsx";
import { KeyHelp } from "../../ui/KeyHelp.tsx";
import { LibraryFiles } from "./LibraryFiles.tsx";
import { LibraryFrame } from "./LibraryFrame.tsx";
import { NewTopicPage, TopicPage } from "./TopicPage.tsx";
import { useCanWrite, usePreviewBoat } from "./useLibrary.ts";

/** All that is taught here: found by words, system and boat, read as it is told, edited beside. */
export function LibraryScreen() {
  const library = useQuery(libraryQuery);
  return (
    <LibraryFrame>
      <Fetched query={library} what="the library">
        {(data) => <LibraryOf library={data} />}
      </Fetched>
    </LibraryFrame>
  );
}

const rowPx = 52;

function LibraryOf({ library }: { library: LibrarySheet }) {
  const { topic: id } = useParams();
  const navigate = useNavigate();
  const isNew = useMatch("/library/new") !== null;
  const canWrite = useCanWrite();
  const [words, setWords] = useState("");
  const synonyms = useSynonyms();
  const [system, setSystem] = useState<System | null>(null);
  const [onlyHere, setOnlyHere] = useState(true);
  const [onlyOurs, setOnlyOurs] = useState(false);
  const preview = usePreviewBoat();
  const { rig } = preview;
  const search = useMemo(() => createTopicSearch(library.topics, synonyms), [library.topics, synonyms]);
  const here = useMemo(
    () =>
      rig === null
        ? null
        : new Set(library.topics.filter((topic) => explainTopic(topic, rig).isHere).map((topic) => topic.id)),
    [library.topics, rig],
  );
  const edited = useMemo(() => new Set(library.edits.map(({ topic }) => topic)), [library.edits]);
  const found = useMemo(() => {
    const all = search({ words, system, only: onlyHere ? here : null });
    return onlyOurs ? all.filter((topic) => edited.has(topic.id)) : all;
  }, [search, words, system, onlyHere, here, onlyOurs, edited]);
  const now = library.topics.find((topic) => topic.id === id) ?? found[0];
  const open = (topic: Topic | undefined) => topic !== undefined && void navigate(`/library/topic/${topic.id}`);
  const at = found.findIndex((topic) => topic.id === now?.id);
  return (
    <div className="mt-3 gap-x-8 md:grid md:grid-cols-[340px_1fr]">
      <KeyHelp
        actions={[
          { key: "j", says: "Next topic", act: () => open(found[at + 1]) },
          { key: "k", says: "Topic before", act: () => open(found[at - 1]) },
        ]}
      />
      <section aria-label="Topics" className="flex min-h-0 flex-col md:h-[calc(100dvh-150px)]">
        <input
          type="search"
          aria-label="Find a topic"
          placeholder="Ask or name it: flush, toilet, won't start"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className={fieldLook}
        />
        <div className="mt-2 flex flex-wrap gap-x-1" role="group" aria-label="System">
          {([null, ...systems] as const).map((each) => (
            <button
              key={each ?? "all"}
              type="button"
              aria-pressed={system === each}
              onClick={() => setSystem(each)}
              className={`min-h-11 rounded-md px-2 ${system === each ? "bg-ink font-bold text-sheet" : ""}`}
            >
              {each === null ? "All" : systemNames[each].split(" ")[0]}
            </button>
          ))}
        </div>
        <select
          aria-label="Read on this boat"
          value={preview.now}
          onChange={(event) => preview.pick(event.target.value)}
          className={fieldLook}
        >
          {preview.options.map(([option, says]) => (
            <option key={option} value={option}>
              {says}
            </option>
          ))}
        </select>
        <div className="flex flex-wrap gap-x-4">
          <TickField label="only what it has" value={onlyHere} onChange={setOnlyHere} />
          <TickField label="only our wording" value={onlyOurs} onChange={setOnlyOurs} />
        </div>
        <div className="flex items-center justify-between border-b border-ink">
          <p role="status" className="text-sm text-soft">
            {found.length} of {library.topics.length} topics
          </p>
          {canWrite && (
            <Link to="/library/new" className="inline-flex min-h-11 items-center font-semibold underline">
              New topic
            </Link>
          )}
        </div>
        <Behind library={library} />
        {found.length === 0 ? (
          <EmptySheet>Nothing fits. Try fewer words, all systems, or a topic this boat does not have.</EmptySheet>
        ) : (
          <TopicList topics={found} now={now?.id ?? null} edited={edited} here={here} onOpen={open} />
        )}
        <LibraryFiles library={library} found={found} />
      </section>
      {isNew && canWrite ? (
        <NewTopicPage library={library} rig={rig} system={system ?? "helm"} />
      ) : (
        now !== undefined && <TopicPage key={now.id} topic={now} library={library} rig={rig} />
      )}
    </div>
  );
}

/** Edits whose original has changed since: nobody finds them by chance. */
function Behind({ library }: { library: LibrarySheet }) {
  const behind = library.edits.filter(({ isBehind }) => isBehind);
  if (behind.length === 0) return null;
  return (
    <details className="border-b border-rule">
      <summary className="flex min-h-11 items-center text-amber">
        ▲ {behind.length === 1 ? "1 wording of ours is" : `${behind.length} wordings of ours are`} older than the
        original
      </summary>
      <ul className="pb-2">
        {behind.map(({ topic, setAside, shipped }) => (
          <li key={topic}>
            <Link className="inline-flex min-h-11 items-center underline" to={`/library/topic/${shipped?.id ?? topic}`}>
              {setAside?.title ?? shipped?.title ?? topic}
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}

interface TopicListProps {
  readonly topics: readonly Topic[];
  readonly now: string | null;
  readonly edited: ReadonlySet<string>;
  readonly here: ReadonlySet<string> | null;
  readonly onOpen: (topic: Topic) => void;
}

/** Only the rows in sight are drawn, so that typing stays quick over a large library. */
function TopicList({ topics, now, edited, here, onOpen }: TopicListProps) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: topics.length,
    getScrollElement: () => frame.current,
    estimateSize: () => rowPx,
    overscan: 6,
  });
  return (
    <div
      ref={frame}
      className="min-h-64 flex-1 overflow-auto max-md:max-h-80"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolled region must be reachable by keyboard
      tabIndex={0}
      role="region"
      aria-label="Found topics"
    >
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const topic = topics[index]!;
          const isNow = topic.id === now;
          return (
            <button
              key={topic.id}
              type="button"
              aria-current={isNow}
              onClick={() => onOpen(topic)}
              style={{ transform: `translateY(${start}px)`, height: rowPx }}
              className={`absolute inset-x-0 top-0 flex flex-col justify-center border-b border-rule border-l-4 pl-2 text-left ${topic.must ? "border-l-ink" : "border-l-transparent"} ${isNow ? "bg-shoal" : ""}`}
            >
              <span className="truncate font-text leading-tight">{topic.title}</span>
              <span className="truncate font-text text-sm text-soft">
                {systemNames[topic.system]}, {formatQuarters(topic.minutes)} min
                {edited.has(topic.id) && ", our wording"}
                {here !== null && !here.has(topic.id) && ", not on this boat"}
              </span>
            </button>
          );
        })}
      </div>
    </div>
  );
}
