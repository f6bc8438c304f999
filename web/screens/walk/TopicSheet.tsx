import { ChevronLeft, ChevronRight } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { TopicWords } from "../../topic/TopicWords.tsx";
import { MarkSign, markWords } from "../../ui/MarkSign.tsx";
import { ThingItself } from "./ThingItself.tsx";
import type { Walk } from "./useWalk.ts";

const levelWords = { told: "to be told", shown: "to be shown", done: "to be done by their own hands" } as const;

/** One topic, large: the caution before the step, then what to say, show and have them do. */
export function TopicSheet({ walk }: { walk: Walk }) {
  const { topic, stop, station, indexAtStop, countAtStop } = walk.step;
  const { rig, buyers } = walk.delivery;
  const label = rig.stations.find(({ id }) => id === station)?.label;
  const told = walk.state.topics.get(topic.id);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    heading.current?.scrollIntoView({ block: "nearest" });
  }, []);
  const snags = walk.state.snags.filter((snag) => snag.topic === topic.id);
  return (
    <article
      aria-labelledby="topic"
      className={`m-3 border-l-[7px] pl-3 md:m-4 md:mr-8 md:pl-5 ${topic.must ? "border-ink" : "border-transparent"}`}
    >
      <p className="head flex flex-wrap items-center gap-x-2 text-base font-semibold text-soft">
        <span>
          Stop {stop + 1} · {label} · {indexAtStop + 1} of {countAtStop}
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
          className="min-w-0 flex-1 text-3xl leading-tight font-extrabold tracking-tight md:text-4xl"
        >
          {topic.title}
        </h1>
        <Turn label="Topic before" isOff={walk.at === 0} onTurn={() => walk.go(walk.at - 1)}>
          <ChevronLeft aria-hidden size={28} />
        </Turn>
        <Turn label="Next topic" isOff={walk.at === walk.steps.length - 1} onTurn={() => walk.go(walk.at + 1)}>
          <ChevronRight aria-hidden size={28} />
        </Turn>
      </div>
      {told !== undefined && (
        <p className="mt-1 flex items-center gap-2 text-base text-soft" data-testid="topic-mark">
          <MarkSign mark={told.mark} /> marked {markWords[told.mark]}
          {told.entry.note !== undefined && `: ${told.entry.note}`}
        </p>
      )}
      {snags.map((snag) => (
        <p key={snag.id} className="mt-1 text-base text-magenta">
          ▲ {snag.note}
        </p>
      ))}
      <TopicWords topic={topic} />
      {buyers.length > 1 && (
        <div role="radiogroup" aria-label="Who the mark is for" className="mt-3 flex flex-wrap items-center gap-2">
          <span className="head w-[88px] text-base font-semibold text-soft max-md:w-full">Who</span>
          <Who name="All present" mark={null} isPicked={walk.person === null} onPick={() => walk.setPerson(null)} />
          {buyers.map(({ id, name }) => (
            <Who
              key={id}
              name={name.split(" ")[0]!}
              mark={told?.people.get(id) ?? (told !== undefined && told.people.size === 0 ? told.mark : null)}
              isPicked={walk.person === id}
              onPick={() => walk.setPerson(id)}
            />
          ))}
        </div>
      )}
      <ThingItself walk={walk} />
    </article>
  );
}

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

interface WhoProps {
  readonly name: string;
  readonly mark: Parameters<typeof MarkSign>[0]["mark"];
  readonly isPicked: boolean;
  readonly onPick: () => void;
}

function Who({ name, mark, isPicked, onPick }: WhoProps) {
  return (
    <button
      type="button"
      role="radio"
      aria-checked={isPicked}
      onClick={onPick}
      className={`flex min-h-12 items-center gap-2 rounded-full border border-ink px-5 font-text text-base ${isPicked ? "bg-ink text-sheet" : "bg-panel"}`}
    >
      {mark !== null && <MarkSign mark={mark} size={14} />}
      {name}
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
      {Math.floor(s / 60)}:{String(s % 60).padStart(2, "0")} of {plannedMin} min{isOver ? ", over" : ""}
    </span>
  );
}
