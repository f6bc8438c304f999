import { findWorks, hasBehind, isPumped, type PanelSwitch, type Part, type Rig } from "../../../core/rig/index.ts";
import { lowerFirst } from "../../../core/text/index.ts";
import type { Topic } from "../../../core/topic/index.ts";
import { DeckShapes } from "../../plan/DeckPlan.tsx";
import { PhotoLink } from "../../ui/PhotoField.tsx";
import type { Walk } from "./useWalk.ts";

/** The picture at the foot of a topic: the panel in its own order, or the place seen close, with the things to point at. */
export function ThingItself({ walk, onSwitch }: { walk: Walk; onSwitch: (id: string) => void }) {
  const { topic, station } = walk.step;
  const { rig } = walk.delivery;
  const parts = findParts(topic, rig);
  if (parts.some(({ kind }) => kind === "panel")) return <PanelStrip rig={rig} onSwitch={onSwitch} />;
  const here = parts.length > 0 ? parts : rig.parts.filter((part) => part.station === station);
  if (here.length === 0) return null;
  return <CloseUp rig={rig} parts={here.slice(0, 6)} />;
}

/** The parts a topic is about, or else those its own condition speaks of. */
function findParts(topic: Topic, rig: Rig): Part[] {
  const { of } = topic;
  if (of !== undefined && rig.parts.some(({ kind }) => kind === of)) return rig.parts.filter(({ kind }) => kind === of);
  const kinds = [...JSON.stringify(topic.when).matchAll(/"has":"([a-z-]+)"/g)].map((match) => match[1]);
  return rig.parts.filter((part) => kinds.includes(part.kind));
}

const reachM = 1.1;

function CloseUp({ rig, parts }: { rig: Rig; parts: readonly Part[] }) {
  const xs = parts.map(({ at }) => at.yM);
  const ys = parts.map(({ at }) => -at.xM);
  const x = Math.min(...xs) - reachM;
  const y = Math.min(...ys) - reachM * 0.62;
  const width = Math.max(...xs) - x + reachM;
  const height = Math.max(...ys) - y + reachM * 0.62;
  // The picture is a slice: on its short side more is cut off, nothing beyond the box is added.
  const seen = { x, y, width, height };
  return (
    <figure className="mt-4 flex flex-wrap items-center gap-4 border-t border-rule pt-3">
      <svg
        viewBox={`${x} ${y} ${width} ${height}`}
        className="h-40 w-60 shrink-0 rounded-sm border border-rule bg-buff"
        preserveAspectRatio="xMidYMid slice"
        aria-hidden
      >
        <DeckShapes rig={rig} seen={seen} />
        {parts.map(({ id, at }, i) => (
          <g key={id}>
            <circle cx={at.yM} cy={-at.xM} r={width * 0.05} fill="var(--magenta)" />
            <text
              x={at.yM}
              y={-at.xM + width * 0.02}
              fontSize={width * 0.062}
              fontWeight="700"
              textAnchor="middle"
              fill="var(--panel)"
              fontFamily="var(--font-head)"
            >
              {i + 1}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="min-w-0 flex-1 basis-56 text-[17px]">
        <ol>
          {parts.map((part, i) => {
            const { id, label, reach, holds, photo } = part;
            return (
              <li key={id} className="grid grid-cols-[22px_1fr]">
                <span className="num font-bold text-magenta">{i + 1}</span>
                <span>
                  {label}
                  <span className="text-soft">
                    {reach === undefined ? "" : `: ${reach}`}
                    {holds === undefined ? "" : ` (${holds.join(", ")})`}
                    {sayWorks(rig, part)}
                  </span>
                  {photo !== undefined && <PhotoLink photo={photo} says={label} />}
                </span>
              </li>
            );
          })}
        </ol>
      </figcaption>
    </figure>
  );
}

/** ; pump “Stern well pump”, switch 4, breaker Pumps: of things that a pump works, the others show what they are. */
function sayWorks(rig: Rig, part: Part): string {
  if (!isPumped(part)) return "";
  const { loads, switches, breakers } = findWorks(rig, part);
  const said = [
    ...loads.map(({ label }) => lowerFirst(label)),
    ...switches.map((item) => `switch ${rig.panel.indexOf(item) + 1}`),
    ...breakers.map(({ label }) => `breaker ${label}`),
  ];
  return said.length === 0 ? "" : `; ${said.join(", ")}`;
}

export const kindWords: Record<PanelSwitch["kind"], string> = {
  "two-position": "on / off",
  "three-position": "middle is off",
  momentary: "while pressed",
  "press-and-hold": "press and hold",
  "push-to-cycle": "push to go on",
  lamp: "lamp",
};

/** The panel in its own order; a touch on a switch says what it is. */
function PanelStrip({ rig, onSwitch }: { rig: Rig; onSwitch: (id: string) => void }) {
  return (
    <figure className="mt-4 border-t border-rule pt-3">
      <ol
        aria-label="The panel in its own order"
        className="grid grid-cols-[repeat(auto-fill,minmax(6.5rem,1fr))] gap-1.5"
      >
        {rig.panel.map((item, i) => {
          const isEmpty = !hasBehind(item);
          return (
            <li key={item.id}>
              <button
                type="button"
                aria-label={`What is switch ${i + 1}, ${item.label ?? "no label"}`}
                onClick={() => onSwitch(item.id)}
                className={`flex h-full min-h-20 w-full flex-col hyphens-auto break-words items-start justify-between rounded-sm border p-1.5 text-left text-sm ${isEmpty ? "border-dashed border-soft text-soft" : "border-ink"}`}
              >
                <span className="head font-semibold">{item.label ?? "no label"}</span>
                <span className="font-text leading-tight">
                  {item.positions.map(({ label }) => label).join(" · ")}
                  <br />
                  <span className="text-soft">{isEmpty ? "nothing behind it" : kindWords[item.kind]}</span>
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </figure>
  );
}
