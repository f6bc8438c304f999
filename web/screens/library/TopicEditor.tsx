import { useState } from "react";
import { formatPartKind, partKinds, stationKinds } from "../../../core/rig/index.ts";
import { momentWords, proposeMinutes, speakMinutes } from "../../../core/route/index.ts";
import { formatQuarters } from "../../../core/text/index.ts";
import {
  levels,
  moments,
  type School,
  systemNames,
  systems,
  type Topic,
  topicSchema,
} from "../../../core/topic/index.ts";
import { Button } from "../../ui/Button.tsx";
import { ManyField, NumberField, PickField, TextField, TickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { splitLines } from "../../ui/splitLines.ts";
import { ConditionField } from "./ConditionField.tsx";
import { WordsField } from "./WordsField.tsx";

interface TopicEditorProps {
  readonly topic: Topic;
  readonly heading: string;
  readonly titles: ReadonlyMap<string, string>;
  readonly error: unknown;
  readonly isBusy: boolean;
  readonly onChange: (topic: Topic) => void;
  readonly onKeep: () => void;
  readonly onLeave: () => void;
}

const levelOptions = levels.map(
  (level) => [level, { told: "explained", shown: "shown", done: "done by them" }[level]] as const,
);
const asksOptions = [
  ["any", "anywhere"],
  ["cooling", "with cooling water"],
  ["afloat", "afloat"],
  ["ashore", "out of the water"],
] as const;

/** The words and facts of a topic, in the order in which they are told. Minutes follow the words until somebody sets them. */
export function TopicEditor(props: TopicEditorProps) {
  const { topic, heading, titles, error, isBusy, onChange, onKeep, onLeave } = props;
  const [conditionProblem, setConditionProblem] = useState<string | null>(null);
  const set = (change: Partial<Topic>) => {
    const next = { ...topic, ...change };
    const isReckoned = topic.minutes === proposeMinutes(topic) && change.minutes === undefined;
    onChange(isReckoned ? { ...next, minutes: proposeMinutes(next) } : next);
  };
  const missing = listMissing(topic);
  return (
    <section aria-label="Edit the topic" className="space-y-3">
      <div className="sticky top-0 z-10 flex flex-wrap items-center justify-between gap-2 bg-sheet py-2">
        <h2 className="text-lg font-bold">{heading}</h2>
        <span className="flex gap-2">
          <Button onClick={onLeave}>Cancel</Button>
          <Button look="primary" disabled={missing.length > 0 || conditionProblem !== null || isBusy} onClick={onKeep}>
            Save
          </Button>
        </span>
      </div>
      {missing.length > 0 && (
        <p role="status" className="text-soft">
          Before it can be saved: {missing.join(", ")}.
        </p>
      )}
      {error !== null && <ErrorNotice error={error} />}
      <TextField
        label="Title"
        most={80}
        value={topic.title}
        onChange={(title) => set({ title })}
        why="The thing first, then the point: “Ice box: drain it after the trip”."
      />
      <TextField
        label="Cautions"
        most={1200}
        isOptional
        isLong
        value={topic.cautions.join("\n")}
        onChange={(text) => set({ cautions: splitLines(text, 300, 4) })}
        becomes={(text) => splitLines(text, 300, 4).join("\n")}
        why="One a line. They are shown before the step."
      />
      <SayFields topic={topic} set={set} />
      <WordsField label="Show" most={400} value={topic.show} onChange={(show) => set({ show })} />
      <WordsField
        label="They do"
        most={400}
        value={topic.does}
        onChange={(does) => set({ does })}
        why="Begins with what their hands do: “Turn it off and on”."
      />
      <WordsField label="What goes wrong" most={400} value={topic.wrong} onChange={(wrong) => set({ wrong })} />
      <WordsField label="Why it matters" most={300} value={topic.why} onChange={(why) => set({ why })} />
      <ConditionField condition={topic.when} onChange={(when) => set({ when })} onProblem={setConditionProblem} />
      <PlaceFields topic={topic} set={set} />
      <FactFields topic={topic} set={set} />
      <MinuteFields topic={topic} set={set} />
      <ManyField
        label="Comes after"
        value={topic.after}
        options={[...titles].filter(([id]) => id !== topic.id)}
        onChange={(after) => set({ after })}
      />
    </section>
  );
}

const fieldNames: Partial<Record<keyof Topic, string>> = {
  title: "the title",
  say: "what to say",
  show: "what to show",
  does: "what they do",
  wrong: "what goes wrong",
  why: "why it matters",
  cautions: "a caution that is too long",
};

/** What still keeps a topic from being saved, by the names its fields have on the screen. */
function listMissing(topic: Topic): string[] {
  const parsed = topicSchema.safeParse(topic);
  if (parsed.success) return [];
  const names = parsed.error.issues.map(
    ({ path: [name], message }) => fieldNames[name as keyof Topic] ?? `${String(name)} (${message})`,
  );
  return [...new Set(names)];
}

interface PartProps {
  readonly topic: Topic;
  readonly set: (change: Partial<Topic>) => void;
}

function SayFields({ topic, set }: PartProps) {
  const { schools } = topic;
  const change = (i: number, part: Partial<School>) =>
    set({ schools: schools!.map((each, j) => (j === i ? { ...each, ...part } : each)) });
  if (schools === undefined)
    return (
      <WordsField
        label="Say"
        most={400}
        value={topic.say}
        onChange={(say) => set({ say })}
        why="Full, short sentences, as you would say them beside the boat."
      />
    );
  return (
    <fieldset className="space-y-3 border-l-4 border-rule pl-3">
      <legend className="text-soft">
        Methods: good people teach this in several ways. Under Methods each store picks its own.
      </legend>
      {schools.map((school, i) => (
        <div key={school.id} className="space-y-2">
          <TextField label={`Method ${i + 1}`} most={60} value={school.name} onChange={(name) => change(i, { name })} />
          <WordsField
            label={`Say, as “${school.name}”`}
            most={400}
            value={school.say}
            onChange={(say) => change(i, { say })}
          />
          <TextField
            label={`What “${school.name}” gains and costs`}
            most={300}
            value={school.tradeOff}
            onChange={(tradeOff) => change(i, { tradeOff })}
          />
        </div>
      ))}
    </fieldset>
  );
}

/** Where it is told: at the thing it is about, else at the first of these places that a boat has. */
function PlaceFields({ topic, set }: PartProps) {
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3">
      <PickField
        label="About which thing"
        value={topic.of ?? ""}
        options={[["", "no one thing"], ...partKinds.map((kind) => [kind, formatPartKind(kind)] as const)]}
        onChange={(of) => set({ of: of === "" ? undefined : of } as Partial<Topic>)}
        why="It is explained where this boat has that."
      />
      <ManyField
        label="Else explained at"
        value={topic.where}
        options={stationKinds.map((kind) => [kind, kind] as const)}
        onChange={(where) => where.length > 0 && set({ where: where as Topic["where"] })}
        why="The first of these places the boat has."
      />
    </div>
  );
}

function FactFields({ topic, set }: PartProps) {
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3">
      <PickField
        label="System"
        value={topic.system}
        options={systems.map((system) => [system, systemNames[system]] as const)}
        onChange={(system) => set({ system })}
      />
      <PickField
        label="Taken as far as"
        value={topic.level}
        options={levelOptions}
        onChange={(level) => set({ level })}
      />
      <NumberField
        label="Worth"
        unit="of 9"
        value={topic.value}
        onChange={(value) => value !== undefined && set({ value })}
        least={1}
        most={9}
        isWhole
        why="When time is short, the higher is kept: 9 where life, engine or boat depend on it."
      />
      <PickField
        label="Can be taught"
        value={topic.asks ?? "any"}
        options={asksOptions}
        onChange={(asks) => set({ asks })}
      />
      <PickField
        label="Moment of the day"
        value={topic.moment}
        options={moments.map((moment) => [moment, momentWords[moment]] as const)}
        onChange={(moment) => set({ moment })}
      />
      <div>
        <TickField label="Must: never left out" value={topic.must} onChange={(must) => set({ must })} />
        <TickField label="In a hatch, seat or locker" value={topic.storage} onChange={(storage) => set({ storage })} />
      </div>
    </div>
  );
}

/** Minutes as they are reckoned from words and hands; a store that knows better sets its own. */
function MinuteFields({ topic, set }: PartProps) {
  const proposed = proposeMinutes(topic);
  const isReckoned = topic.minutes === proposed;
  return (
    <fieldset className="grid grid-cols-3 gap-x-6 gap-y-3">
      <legend className="text-soft">Minutes with one first-time buyer</legend>
      <NumberField
        label="Moving hands"
        unit="min"
        value={topic.hands}
        onChange={(hands) => set({ hands } as Partial<Topic>)}
        isOptional
        least={0}
        most={30}
        why="Empty: as usual for its level."
      />
      <NumberField
        label="Their own doing"
        unit="min"
        value={topic.doing}
        onChange={(doing) => set({ doing } as Partial<Topic>)}
        isOptional
        least={0}
        most={30}
        why="Each person, where they do it."
      />
      <NumberField
        label="Takes"
        unit="min"
        value={topic.minutes}
        onChange={(minutes) => minutes !== undefined && set({ minutes })}
        least={0.25}
        most={30}
      />
      <p className="col-span-3 text-sm text-soft">
        Proposed: {formatQuarters(proposed)} min ({Math.round(speakMinutes(topic) * 60)} s of words, then hands, doing
        and questions).{" "}
        {!isReckoned && (
          <button type="button" className="min-h-11 underline" onClick={() => set({ minutes: proposed })}>
            Use the proposed minutes
          </button>
        )}
      </p>
    </fieldset>
  );
}
