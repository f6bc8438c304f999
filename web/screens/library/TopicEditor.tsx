import { useState } from "react";
import { conditionSchema, type Rig, stationKinds } from "../../../core/rig/index.ts";
import { momentWords } from "../../../core/route/index.ts";
import { levels, moments, type Topic, topicSchema } from "../../../core/topic/index.ts";
import { Button } from "../../ui/Button.tsx";
import { fieldLook, ManyField, NumberField, PickField, TextField, TickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { splitLines } from "../../ui/splitLines.ts";
import { formatConditionProblem } from "./formatConditionProblem.ts";

interface TopicEditorProps {
  readonly topic: Topic;
  readonly titles: ReadonlyMap<string, string>;
  readonly rig: Rig | null;
  readonly error: unknown;
  readonly isBusy: boolean;
  readonly onChange: (topic: Topic) => void;
  readonly onKeep: () => void;
  readonly onLeave: () => void;
}

const levelOptions = levels.map(
  (level) => [level, { told: "told", shown: "shown", done: "done by them" }[level]] as const,
);
const asksOptions = [
  ["any", "anywhere"],
  ["cooling", "with cooling water"],
  ["afloat", "afloat"],
  ["ashore", "out of the water"],
] as const;

/** The words and facts of a topic, in the order in which they are told. */
export function TopicEditor(props: TopicEditorProps) {
  const { topic, titles, error, isBusy, onChange, onKeep, onLeave } = props;
  const [conditionProblem, setConditionProblem] = useState<string | null>(null);
  const set = (change: Partial<Topic>) => onChange({ ...topic, ...change });
  const isWhole = topicSchema.safeParse(topic).success && conditionProblem === null;
  return (
    <section aria-label="Edit the topic" className="space-y-3">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-lg font-bold">Our wording</h2>
        <span className="flex gap-2">
          <Button onClick={onLeave}>Cancel</Button>
          <Button look="primary" disabled={!isWhole || isBusy} onClick={onKeep}>
            Save our wording
          </Button>
        </span>
      </div>
      {error !== null && <ErrorNotice error={error} />}
      <TextField label="Title" most={80} value={topic.title} onChange={(title) => set({ title })} />
      <TextField
        label="Cautions"
        most={1200}
        isOptional
        isLong
        value={topic.cautions.join("\n")}
        onChange={(text) => set({ cautions: splitLines(text, 300, 4) })}
        becomes={(text) => splitLines(text, 300, 4).join("\n")}
        why="One a line, shown before the step."
      />
      <SayFields topic={topic} set={set} />
      <TextField
        label="Show"
        most={400}
        isLong
        value={topic.show}
        onChange={(show) => set({ show })}
        why="{at:extinguisher} says where this boat has it, {each:battery} all of them, {rig:trailer.tyreKpa} a figure of its sheet, {if:vhf?Call on 16.|Call for help.} only what fits it."
      />
      <TextField label="They do" most={400} isLong value={topic.does} onChange={(does) => set({ does })} />
      <TextField label="What goes wrong" most={400} isLong value={topic.wrong} onChange={(wrong) => set({ wrong })} />
      <TextField label="Why it matters" most={300} isLong value={topic.why} onChange={(why) => set({ why })} />
      <FactFields topic={topic} set={set} />
      <ManyField
        label="Told at"
        value={topic.where}
        options={stationKinds.map((kind) => [kind, kind] as const)}
        onChange={(where) => where.length > 0 && set({ where: where as Topic["where"] })}
        why="The first of these places the boat has."
      />
      <ManyField
        label="Comes after"
        value={topic.after}
        options={[...titles].filter(([id]) => id !== topic.id)}
        onChange={(after) => set({ after })}
      />
      <ConditionField
        topic={topic}
        problem={conditionProblem}
        onProblem={setConditionProblem}
        onChange={(when) => set({ when })}
      />
    </section>
  );
}

interface ConditionFieldProps {
  readonly topic: Topic;
  readonly problem: string | null;
  readonly onProblem: (problem: string | null) => void;
  readonly onChange: (when: Topic["when"]) => void;
}

function ConditionField({ topic, problem, onProblem, onChange }: ConditionFieldProps) {
  const [typed, setTyped] = useState(() => JSON.stringify(topic.when));
  return (
    <div>
      <label className="text-soft" htmlFor="condition">
        Applies when
      </label>
      <textarea
        id="condition"
        rows={2}
        spellCheck={false}
        value={typed}
        aria-invalid={problem !== null}
        aria-describedby="condition-why"
        className={`${fieldLook} num py-2`}
        onChange={(event) => {
          setTyped(event.target.value);
          const said = formatConditionProblem(event.target.value);
          onProblem(said);
          if (said === null) onChange(conditionSchema.parse(JSON.parse(event.target.value)));
        }}
      />
      {problem === null ? (
        <p id="condition-why" className="text-sm text-soft">
          {
            '{"has":"windlass"}, {"count":"battery","atLeast":2}, {"equals":"trailer.brakes","value":"surge"}, with any, all, not.'
          }
        </p>
      ) : (
        <p id="condition-why" role="alert" className="text-sm text-magenta">
          ▲ {problem}
        </p>
      )}
    </div>
  );
}

interface PartProps {
  readonly topic: Topic;
  readonly set: (change: Partial<Topic>) => void;
}

function SayFields({ topic, set }: PartProps) {
  const { schools } = topic;
  if (schools === undefined)
    return <TextField label="Say" most={400} isLong value={topic.say} onChange={(say) => set({ say })} />;
  return schools.map((school, i) => (
    <TextField
      key={school.id}
      label={`Say, as “${school.name}”`}
      most={400}
      isLong
      value={school.say}
      onChange={(say) => set({ schools: schools.map((each, j) => (j === i ? { ...each, say } : each)) })}
    />
  ));
}

function FactFields({ topic, set }: PartProps) {
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3">
      <PickField
        label="Taken as far as"
        value={topic.level}
        options={levelOptions}
        onChange={(level) => set({ level })}
      />
      <NumberField
        label="Takes"
        unit="min"
        value={topic.minutes}
        onChange={(minutes) => minutes !== undefined && set({ minutes })}
        least={0.5}
        most={30}
      />
      <NumberField
        label="Worth"
        unit="of 9"
        value={topic.value}
        onChange={(value) => value !== undefined && set({ value })}
        least={1}
        most={9}
        isWhole
        why="When time is short, the higher is told."
      />
      <TickField label="Must: never left out" value={topic.must} onChange={(must) => set({ must })} />
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
    </div>
  );
}
