import { ChevronLeft, ChevronRight } from "lucide-react";
import { type ReactNode, type RefObject, useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { formatQuarters } from "../../../core/text/index.ts";
import { shortenTitles } from "../../../core/topic/index.ts";
import { findSeverity, laterWords, listDisputed, listWaits, type TopicState } from "../../../core/walk/index.ts";
import { HoursSection } from "../../handover/HoursRead.tsx";
import { useStaffName } from "../../handover/useStaffName.ts";
import { MeasureList } from "../../measure/MeasureList.tsx";
import { severityWords } from "../../owed/owedWords.ts";
import { TopicWords } from "../../topic/TopicWords.tsx";
import { MarkSign, markWords } from "../../ui/MarkSign.tsx";
import { PhotoRow } from "../../ui/Photos.tsx";
import { formatClock, formatDay } from "../../ui/words.ts";
import { People } from "./People.tsx";
import { ThingItself } from "./ThingItself.tsx";
import { ToldIn } from "./ToldIn.tsx";
import type { Walk } from "./useWalk.ts";

const levelWords = { told: "to be explained", shown: "to be shown", done: "to be done by their own hands" } as const;

interface TopicSheetProps {
  readonly walk: Walk;
  /** Whether the topic before was scrolled. */
  readonly hasScrolled: RefObject<boolean>;
  readonly onSwitch: (id: string) => void;
  /** Opens a snag, to be put right. */
  readonly onSnag: (id: string) => void;
}

/** One topic, large: the caution before the step, then what to say, show and have them do. */
export function TopicSheet({ walk, hasScrolled, onSwitch, onSnag }: TopicSheetProps) {
  const { topic, stop, station, indexAtStop, countAtStop } = walk.step;
  const { rig, topics } = walk.delivery;
  const label = rig.stations.find(({ id }) => id === station)?.label;
  const marked = walk.state.topics.get(topic.id);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    // Looking where one is costs a layout of its own: only when something was scrolled at all.
    if (!hasScrolled.current) return;
    heading.current?.scrollIntoView({ block: "nearest" });
    hasScrolled.current = false;
  }, [hasScrolled]);
  const waits = marked === undefined ? listWaits(topic, topics, walk.state) : [];
  return (
    <article
      aria-labelledby="topic"
      className={`m-3 border-l-[7px] pl-3 md:m-4 md:mr-8 md:pl-5 ${topic.must ? "border-ink" : "border-transparent"}`}
    >
      <p className="head flex flex-wrap items-center gap-x-2 text-base font-semibold text-soft">
        <span>
          {stop === null ? (
            <>
              Asked out of order · {label} ·{" "}
              <button type="button" className="min-h-11 underline" onClick={() => walk.go(walk.at)}>
                Back to the walk
              </button>
            </>
          ) : (
            `Stop ${walk.visits[stop]!.number} · ${label} · ${indexAtStop + 1} of ${countAtStop}`
          )}
        </span>
        <span className="ml-auto font-normal">
          {topic.must && <strong className="text-ink">must, </strong>}
          {levelWords[topic.level]} · <Elapsed openedMs={walk.openedMs} plannedMin={topic.minutes} />
        </span>
      </p>
      <div className="mt-1 flex items-start gap-2">
        <h1
          id="topic"
          ref={heading}
          className="min-w-0 flex-1 text-3xl leading-tight font-extrabold tracking-tight md:text-4xl lg:text-3xl xl:text-4xl"
        >
          <span lang={walk.languageOf(topic.id)}>{topic.title}</span>
        </h1>
        <Turn label="Topic before" isOff={walk.at === 0} onTurn={() => walk.go(walk.at - 1)}>
          <ChevronLeft aria-hidden size={28} />
        </Turn>
        <Turn label="Next topic" isOff={walk.at === walk.steps.length - 1} onTurn={() => walk.go(walk.at + 1)}>
          <ChevronRight aria-hidden size={28} />
        </Turn>
      </div>
      <Waits walk={walk} waits={waits} />
      {marked !== undefined && <Marked walk={walk} marked={marked} />}
      <Snags walk={walk} onSnag={onSnag} />
      <ToldIn walk={walk} />
      <TopicWords topic={topic} language={walk.languageOf(topic.id)} />
      <People walk={walk} />
      <Measures walk={walk} />
      <PhotoRow
        photos={walk.state.photos.filter((photo) => photo.topic === topic.id && photo.ref === null)}
        says={topic.title}
      />
      <ThingItself walk={walk} onSwitch={onSwitch} />
      {powerThings.includes(topic.of ?? "") && (
        <Link
          to={`/deliveries/${walk.delivery.id}/power`}
          className="mt-3 inline-flex min-h-12 items-center gap-2 underline"
        >
          Power map: what is live, what drains
        </Link>
      )}
      {stepsOf[topic.id] !== undefined && walk.delivery.rig.trailer !== null && (
        <Link
          to={`/deliveries/${walk.delivery.id}/steps/${stepsOf[topic.id]}`}
          className="mt-3 inline-flex min-h-12 items-center gap-2 underline"
        >
          Do it step by step
        </Link>
      )}
    </article>
  );
}

/** Topics that are done, not only told: which steps they begin. */
const stepsOf: Readonly<Record<string, string>> = {
  coupler: "hitch",
  "lights-plug": "hitch",
  "first-stop": "hitch",
  ramp: "launch",
  "ramp-people": "launch",
  loading: "load",
  "after-the-day": "put-away",
  "weeds-and-rinse": "put-away",
};

/** What a topic is about where the power map helps to explain it. */
const powerThings: readonly string[] = [
  "battery",
  "selector",
  "breakers",
  "fuse-block",
  "isolator",
  "charger",
  "panel",
];

interface TurnProps {
  readonly label: string;
  readonly isOff: boolean;
  readonly onTurn: () => void;
  readonly children: ReactNode;
}

function Turn({ label, isOff, onTurn, children }: TurnProps) {
  return (
    <button
      type="button"
      aria-label={label}
      disabled={isOff}
      onClick={onTurn}
      className="grid size-16 shrink-0 place-items-center rounded-lg border border-rule disabled:opacity-40 max-md:size-12"
    >
      {children}
    </button>
  );
}

/** Time on this topic so far, against the minutes planned. */
function Elapsed({ openedMs, plannedMin }: { openedMs: number; plannedMin: number }) {
  const [nowMs, setNowMs] = useState(() => performance.now());
  useEffect(() => {
    const timer = setInterval(() => setNowMs(performance.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const s = Math.max(0, Math.floor((nowMs - openedMs) / 1000));
  const isOver = s > plannedMin * 60;
  return (
    <span className={`num ${isOver ? "text-amber" : ""}`}>
      {Math.floor(s / 60)}:{String(s % 60).padStart(2, "0")} of {formatQuarters(plannedMin)} min{isOver ? ", over" : ""}
    </span>
  );
}

function Marked({ walk, marked }: { walk: Walk; marked: TopicState }) {
  const nameOf = useStaffName(walk.delivery);
  return (
    <>
      <p className="mt-1 flex items-center gap-2 text-base text-soft" data-testid="topic-mark">
        <MarkSign mark={marked.mark} /> marked {markWords[marked.mark]}
        {marked.entry.how !== undefined && `, ${laterWords[marked.entry.how]}`}
        {marked.entry.when !== undefined && `, by ${formatDay(marked.entry.when)}`}
        {marked.entry.note !== undefined && `: ${marked.entry.note}`}
        {marked.mark === "not-aboard" && (
          <Link className="inline-flex min-h-11 items-center underline" to={`/boats/${walk.delivery.boat}/rig`}>
            Correct the boat sheet
          </Link>
        )}
      </p>
      {listDisputed(marked).map((other) => (
        <p key={other.id} className="text-base text-amber">
          ◷ Marked {markWords[other.mark]} as well, by {nameOf(other.by).split(" ")[0]} at {formatClock(other.at)}. The
          later mark counts; the record keeps both.
        </p>
      ))}
    </>
  );
}

function Waits({ walk, waits }: { walk: Walk; waits: ReturnType<typeof listWaits> }) {
  if (waits.length === 0) return null;
  const titles = shortenTitles(waits.map(({ title }) => title));
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-3 text-base text-amber">
      <span>◷ Easier after:</span>
      {waits.map(({ id }, i) => (
        <button key={id} type="button" className="min-h-11 font-text underline" onClick={() => walk.goToTopic(id)}>
          {titles[i]}
        </button>
      ))}
    </p>
  );
}

function Snags({ walk: { state, step }, onSnag }: { walk: Walk; onSnag: (id: string) => void }) {
  return (
    <>
      {state.snags
        .filter((snag) => snag.topic === step.topic.id)
        .map((snag) => (
          <div key={snag.id} className="mt-1 text-base text-magenta">
            <button
              type="button"
              className="min-h-11 text-left font-text"
              aria-label={`Change the snag: ${snag.note}`}
              onClick={() => onSnag(snag.id)}
            >
              ▲ {snag.note}{" "}
              <span className="text-soft underline">
                {state.settled.has(snag.id) ? "settled" : severityWords[findSeverity(snag)]}
              </span>
            </button>
            <PhotoRow photos={state.photos.filter(({ ref }) => ref === snag.id)} says={snag.note} />
          </div>
        ))}
    </>
  );
}

function Measures({ walk }: { walk: Walk }) {
  const { id, measures } = walk.step.topic;
  if (measures === undefined) return null;
  return (
    <div className="mt-4">
      {measures.includes("hours") && <HoursSection delivery={walk.delivery} state={walk.state} />}
      <MeasureList
        rig={walk.delivery.rig}
        state={walk.state}
        kinds={measures.filter((kind) => kind !== "hours")}
        onAdd={(entry) => void walk.add(entry.kind === "photo" ? { ...entry, topic: id } : entry)}
      />
    </div>
  );
}
