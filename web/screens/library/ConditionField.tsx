import { Plus, X } from "lucide-react";
import { useState } from "react";
import {
  type Ask,
  type Condition,
  type ConditionRows,
  conditionSchema,
  describeCondition,
  describeFact,
  findFact,
  offeredFacts,
  readRows,
  writeRows,
} from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { formatConditionProblem } from "./formatConditionProblem.ts";

interface ConditionFieldProps {
  readonly condition: Condition;
  readonly onChange: (condition: Condition) => void;
  /** What is typed cannot be used yet. */
  readonly onProblem: (problem: string | null) => void;
}

/** Which boats a topic is for, by choosing: each line must hold, and a line may offer several ways to hold. */
export function ConditionField({ condition, onChange, onProblem }: ConditionFieldProps) {
  const [isTyped, setTyped] = useState(() => readRows(condition) === null);
  const kept = readRows(condition);
  const rows = kept ?? [];
  const keep = (next: ConditionRows) => onChange(writeRows(next));
  return (
    <fieldset>
      <legend className="text-soft">Which boats</legend>
      <p className="font-semibold" role="status" aria-label="Which boats, in words">
        {describeCondition(condition)}.
      </p>
      {isTyped ? (
        <TypedCondition condition={condition} onChange={onChange} onProblem={onProblem} />
      ) : (
        <>
          <ol className="mt-1 space-y-2">
            {rows.map((row, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other name, and none keeps a state of its own
              <li key={i}>
                <Row
                  row={row}
                  number={i + 1}
                  onChange={(next) =>
                    keep(rows.flatMap((each, j) => (j !== i ? [each] : next.length === 0 ? [] : [next])))
                  }
                />
              </li>
            ))}
          </ol>
          <Button className="mt-2" look="quiet" onClick={() => keep([...rows, [firstAsk]])}>
            <Plus size={16} aria-hidden /> {rows.length === 0 ? "Only some boats" : "And also"}
          </Button>
        </>
      )}
      {kept !== null && (
        <button
          type="button"
          className="ml-3 min-h-11 text-sm underline"
          onClick={() => {
            onProblem(null);
            setTyped(!isTyped);
          }}
        >
          {isTyped ? "Choose instead" : "Type it as text"}
        </button>
      )}
    </fieldset>
  );
}

const toAsk = ({ fact, isDenied }: (typeof offeredFacts)[number], isNot = false): Ask => ({
  fact,
  isNot: isDenied !== isNot,
});
const firstAsk = toAsk(offeredFacts[0]!);
const groups = [...new Set(offeredFacts.map(({ group }) => group))];

interface RowProps {
  readonly row: readonly Ask[];
  readonly number: number;
  readonly onChange: (row: readonly Ask[]) => void;
}

function Row({ row, number, onChange }: RowProps) {
  return (
    <div className="border-l-4 border-rule pl-3">
      {row.map((ask, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: as the lines
        <div key={i} className="flex flex-wrap items-center gap-2">
          <span className="w-14 text-soft">{i > 0 ? "or" : number > 1 ? "and they" : "they"}</span>
          <AskField
            ask={ask}
            label={`Line ${number}${i === 0 ? "" : `, way ${i + 1}`}`}
            onChange={(next) => onChange(row.map((each, j) => (j === i ? next : each)))}
          />
          <button
            type="button"
            aria-label={`Remove: ${describeFact(ask.fact, ask.isNot)}`}
            className="grid size-11 place-items-center"
            onClick={() => onChange(row.filter((_, j) => j !== i))}
          >
            <X size={18} aria-hidden />
          </button>
        </div>
      ))}
      <button
        type="button"
        className="min-h-11 text-sm underline"
        onClick={() => onChange([...row, firstAsk])}
        aria-label={`Line ${number}: or`}
      >
        or …
      </button>
    </div>
  );
}

/** One fact, asked for or asked not to be. */
function AskField({ ask, label, onChange }: { ask: Ask; label: string; onChange: (ask: Ask) => void }) {
  const offered = findFact(ask.fact);
  const isNot = offered === null ? ask.isNot : offered.isDenied !== ask.isNot;
  const at = offered === null ? -1 : offeredFacts.indexOf(offered);
  const value = `${at} ${isNot ? "not" : ""}`;
  return (
    <select
      aria-label={label}
      value={value}
      className={`${fieldLook} w-auto max-w-full min-w-0 flex-1`}
      onChange={(event) => {
        const [index, not] = event.target.value.split(" ");
        const fact = offeredFacts[Number(index)];
        if (fact !== undefined) onChange(toAsk(fact, not === "not"));
      }}
    >
      {at < 0 && <option value={value}>{describeFact(ask.fact, ask.isNot)}</option>}
      {factOptions}
    </select>
  );
}

/** Drawn once, as they stand under a page that is drawn anew for every letter. */
const factOptions = groups.map((group) => (
  <optgroup key={group} label={group}>
    {offeredFacts.map((each, index) =>
      each.group !== group ? null : (
        <FactOptions key={each.says} index={index} says={each.says} saysNot={each.saysNot} />
      ),
    )}
  </optgroup>
));

function FactOptions({ index, says, saysNot }: { index: number; says: string; saysNot: string }) {
  return (
    <>
      <option value={`${index} `}>{says}</option>
      <option value={`${index} not`}>{saysNot}</option>
    </>
  );
}

function TypedCondition({ condition, onChange, onProblem }: ConditionFieldProps) {
  const [typed, setTyped] = useState(() => JSON.stringify(condition));
  const problem = formatConditionProblem(typed);
  return (
    <div>
      <textarea
        aria-label="Which boats, as text"
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
          As it stands in a file of topics: has, count, equals, atLeast, with any, all, not.
        </p>
      ) : (
        <p id="condition-why" role="alert" className="text-sm text-magenta">
          ▲ {problem}
        </p>
      )}
    </div>
  );
}
