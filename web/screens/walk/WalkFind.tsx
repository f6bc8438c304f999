import { useState } from "react";
import { nameTopicPart } from "../../../core/topic/index.ts";
import { useFind } from "../../topic/useFind.ts";
import { Button } from "../../ui/Button.tsx";
import { MarkSign } from "../../ui/MarkSign.tsx";
import type { Walk } from "./useWalk.ts";

interface WalkFindProps {
  readonly walk: Walk;
  readonly onSwitch: (id: string) => void;
  readonly onDone: () => void;
}

const mostOfEach = 8;

/** The buyer asks something out of order: any topic, switch or thing aboard, by a few letters. */
export function WalkFind({ walk, onSwitch, onDone }: WalkFindProps) {
  const [words, setWords] = useState("");
  const { topics, rig } = walk.delivery;
  const isAsked = words.trim() !== "";
  const find = useFind(walk.delivery);
  const found = find.topics(words).slice(0, mostOfEach);
  const switches = isAsked ? find.switches(words).slice(0, mostOfEach) : rig.panel;
  const parts = isAsked ? find.parts(words).slice(0, mostOfEach) : [];
  const stationOf = new Map(rig.stations.map(({ id, label }) => [id, label]));
  const planned = new Set(walk.steps.map(({ topic }) => topic.id));
  return (
    <section
      aria-label="Find in this boat"
      className="m-3 md:m-4 md:mr-8"
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      <div className="flex gap-2">
        <input
          // biome-ignore lint/a11y/noAutofocus: it was just asked for
          autoFocus
          type="search"
          aria-label="Find a topic, a switch or a thing aboard"
          placeholder="A topic, a switch, a thing aboard"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className="min-h-16 min-w-0 flex-1 rounded-lg border border-ink bg-panel px-4 placeholder:text-soft"
        />
        <Button className="min-h-16" onClick={onDone}>
          Back
        </Button>
      </div>
      {isAsked && found.length + switches.length + parts.length === 0 && (
        <p className="mt-4 text-soft">Nothing aboard is called that. Try the first letters of another word.</p>
      )}
      {isAsked && found.length > 0 && (
        <Group name="Topics">
          {found.map((topic) => (
            <Row
              key={topic.id}
              onPick={() => {
                walk.goToTopic(topic.id);
                onDone();
              }}
            >
              <MarkSign mark={walk.state.topics.get(topic.id)?.mark ?? null} size={16} />
              <span className="min-w-0">
                {topic.title}
                <span className="block text-base text-soft">
                  {[nameTopicPart(rig, topic), planned.has(topic.id) ? null : "not in this walk's plan"]
                    .filter((part) => part !== null)
                    .join(", ")}
                </span>
              </span>
            </Row>
          ))}
        </Group>
      )}
      {switches.length > 0 && (
        <Group name="Switches, in the panel's order">
          {switches.map((item) => (
            <Row key={item.id} onPick={() => onSwitch(item.id)}>
              <span className="num w-8 text-right font-bold">{rig.panel.indexOf(item) + 1}</span>
              {item.label ?? "no label"}
              <span className="ml-auto text-base text-soft">
                {item.positions.map(({ label }) => label).join(" · ")}
              </span>
            </Row>
          ))}
        </Group>
      )}
      {parts.length > 0 && (
        <Group name="Things aboard">
          {parts.map((part) => (
            <Row
              key={part.id}
              onPick={() => {
                const about = topics.find(({ of }) => of === part.kind);
                if (about === undefined) walk.goToStation(part.station);
                else walk.goToTopic(about.id);
                onDone();
              }}
            >
              {part.label}
              <span className="ml-auto text-base text-soft">
                {part.reach ?? stationOf.get(part.station)}
                {part.holds === undefined ? "" : ` (${part.holds.join(", ")})`}
              </span>
            </Row>
          ))}
        </Group>
      )}
    </section>
  );
}

function Group({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <h2 className="mt-4 text-base font-semibold text-soft">{name}</h2>
      <ul className="border-t border-ink">{children}</ul>
    </>
  );
}

function Row({ onPick, children }: { onPick: () => void; children: React.ReactNode }) {
  return (
    <li className="border-b border-rule">
      <button
        type="button"
        onClick={onPick}
        className="flex min-h-14 w-full items-center gap-3 py-1 text-left font-text"
      >
        {children}
      </button>
    </li>
  );
}
