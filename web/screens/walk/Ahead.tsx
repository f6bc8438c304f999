import { Link } from "react-router";
import { shortenTitles } from "../../../core/topic/index.ts";
import { isCovered } from "../../../core/walk/index.ts";
import { linkLook } from "../../ui/Button.tsx";
import { MarkSign } from "../../ui/MarkSign.tsx";
import type { Walk } from "./useWalk.ts";

interface AheadProps {
  readonly walk: Walk;
  readonly closeAddress: string;
  readonly onGo: () => void;
  /** Opens a snag, to be put right. */
  readonly onSnag: (id: string) => void;
}

/** What is still open here and what lies ahead; a touch goes there. */
export function Ahead({ walk, closeAddress, onGo, onSnag }: AheadProps) {
  const { steps, step, state, delivery } = walk;
  const now = step.stop ?? steps[walk.at]!.stop;
  const here = steps.map((each, i) => ({ ...each, i })).filter(({ stop }) => stop === now);
  const titles = shortenTitles(here.map(({ topic }) => topic.title));
  const stationOf = new Map(delivery.rig.stations.map((station) => [station.id, station.label]));
  const go = (index: number) => {
    onGo();
    walk.go(index);
  };
  const stops = walk.visits
    .map((visit, i) => ({ ...visit, i, open: visit.topics.filter((id) => !state.topics.has(id)).length }))
    .filter(({ i, open }) => i !== now && open > 0);
  const snags = state.snags.filter(({ id }) => !state.settled.has(id));
  return (
    <aside
      aria-label="Still open"
      className="hidden h-full min-h-0 flex-col overflow-y-auto border-l border-rule px-4 py-4 text-base lg:flex"
    >
      <h2 className="font-semibold text-soft">At this stop</h2>
      <ul className="mt-1">
        {here.map(({ topic, i }, n) => (
          <li key={topic.id} className="border-b border-rule">
            <button
              type="button"
              onClick={() => go(i)}
              aria-current={i === walk.at && step.stop !== null ? "step" : undefined}
              className={`flex min-h-11 w-full items-center gap-2 border-l-4 pl-2 text-left font-text ${topic.must ? "border-ink" : "border-transparent"} ${i === walk.at ? "font-bold" : ""}`}
            >
              <MarkSign mark={state.topics.get(topic.id)?.mark ?? null} size={14} />
              <span className={isCovered(topic, state) ? "text-soft" : ""}>{titles[n]}</span>
            </button>
          </li>
        ))}
      </ul>
      {stops.length > 0 && <h2 className="mt-4 font-semibold text-soft">Ahead</h2>}
      {walk.isRerouted && (
        <button type="button" className="min-h-11 self-start font-text text-sm underline" onClick={walk.putOrderBack}>
          Back to the planned order
        </button>
      )}
      <ul>
        {stops.map(({ i, number, station, topics, open }) => (
          <li key={i} className="border-b border-rule">
            <button
              type="button"
              className="flex min-h-11 w-full items-center gap-2 text-left font-text"
              onClick={() => go(steps.findIndex((each) => each.stop === i && !state.topics.has(each.topic.id)))}
            >
              <span className="num w-6 text-right font-bold">{number}</span>
              <span className="min-w-0 flex-1 truncate">{stationOf.get(station)}</span>
              <span className="num text-soft" title={`${open} of ${topics.length} open`}>
                {open}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {snags.length > 0 && (
        <ul className="mt-3 text-magenta">
          {snags.map(({ id, note }) => (
            <li key={id}>
              <button
                type="button"
                className="min-h-11 w-full text-left font-text"
                aria-label={`Change the snag: ${note}`}
                onClick={() => onSnag(id)}
              >
                ▲ {note}
              </button>
            </li>
          ))}
        </ul>
      )}
      <Link to={closeAddress} className={`${linkLook("plain")} mt-4 shrink-0`}>
        Close the handover
      </Link>
    </aside>
  );
}
