import type { PackSheet } from "../../../api/index.ts";
import { type BreakInPack, createLimits } from "../../../core/breakin/index.ts";
import { LimitsChart } from "../../breakin/LimitsChart.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { type Shelf, usePackEditing } from "./usePackEditing.tsx";

type Phase = BreakInPack["phases"][number];
const field = "num min-h-11 w-20 rounded-md border border-soft bg-panel px-2 text-right";
const exampleRpm = 6000;

interface EditorProps {
  readonly line: PackSheet["breakIn"][number];
  readonly shelf: Shelf;
}

/** A break-in pack: its stages as a table, and the limits they make as one types. */
export function BreakInPackEditor({ line, shelf }: EditorProps) {
  const { pack, setPack, issue, canWrite, addButton, head, bar } = usePackEditing({
    kind: "breakin",
    given: line.pack,
    ...line,
    shelf,
  });
  const unit = pack.per === "tank" ? "tanks" : "h";
  /** A stage begins where the one before ends. */
  const join = (phases: readonly Phase[]) => {
    const joined = phases.map((phase, n) => ({ ...phase, fromH: n === 0 ? 0 : phases[n - 1]!.toH }));
    setPack({ ...pack, phases: joined, totalH: joined.at(-1)!.toH });
  };
  const set = (i: number, change: Partial<Phase>) => {
    const phases = pack.phases.map((phase, n) => (n === i ? { ...phase, ...change } : phase));
    join(phases);
  };
  return (
    <section aria-label={pack.title}>
      {head}
      <p className="text-soft">{pack.basis}</p>
      {issue === undefined ? (
        <LimitsChart limits={createLimits(pack, exampleRpm)} topRpm={exampleRpm} hours={null} />
      ) : (
        <p role="alert" className="mt-2 border-l-4 border-magenta pl-3 text-magenta">
          ▲ These stages contradict each other: {issue.path.join(" ")} {issue.message}.
        </p>
      )}
      <p className="text-sm text-soft">
        Drawn for an engine rated to {exampleRpm.toLocaleString("en-GB")} rpm; each engine's limits come off its own
        rated band.
        {pack.per === "tank" && " Counted in tanks: a boat turns them into hours by its tank and its burn."}
      </p>
      <div className="relative overflow-x-auto">
        <table className="mt-2">
          <thead>
            <tr className="border-b border-ink">
              <th className="py-1 text-right">From</th>
              <th className="pl-3 text-right">To, {unit}</th>
              <th className="pl-3 text-right">At most, %</th>
              <th className="pl-3 text-right">Full throttle, s</th>
              <th className="pl-3 text-right">One speed, min</th>
              <th className="pl-3 text-right">Idle, min</th>
              <th className="pl-3">What it says</th>
              <th className="sr-only">Take out</th>
            </tr>
          </thead>
          <tbody>
            {pack.phases.map((phase, i) => (
              <StageRow
                // biome-ignore lint/suspicious/noArrayIndexKey: stages are known by their place
                key={`${pack.phases.length} ${i}`}
                phase={phase}
                number={i + 1}
                canWrite={canWrite}
                set={(change) => set(i, change)}
                onTakeOut={pack.phases.length === 1 ? null : () => join(pack.phases.filter((_, n) => n !== i))}
              />
            ))}
          </tbody>
        </table>
      </div>
      {addButton("Another stage", () =>
        join([...pack.phases, { ...pack.phases.at(-1)!, toH: pack.totalH + (pack.per === "tank" ? 0.5 : 5) }]),
      )}
      {bar}
    </section>
  );
}

interface StageProps {
  readonly phase: Phase;
  readonly number: number;
  readonly canWrite: boolean;
  readonly set: (change: Partial<Phase>) => void;
}

interface StageRowProps extends StageProps {
  /** Null for the only one. */
  readonly onTakeOut: (() => void) | null;
}

function StageRow({ onTakeOut, ...props }: StageRowProps) {
  const { phase, number, canWrite, set } = props;
  return (
    <tr className="border-b border-rule align-top">
      <td className="num py-3 text-right">{Math.round(phase.fromH * 100) / 100}</td>
      <td className="py-1 pl-3">
        <StageNumber {...props} name="toH" says="Ends at" />
      </td>
      <td className="py-1 pl-3">
        <StageNumber {...props} name="maxShare" says="At most, percent" scale={100} />
      </td>
      <td className="py-1 pl-3">
        <StageNumber {...props} name="wotMaxS" says="Full throttle, seconds" />
      </td>
      <td className="py-1 pl-3">
        <StageNumber {...props} name="steadyMaxMin" says="One speed, minutes" />
      </td>
      <td className="py-1 pl-3">
        <StageNumber {...props} name="idleMaxMin" says="Idle, minutes" />
      </td>
      <td className="py-1 pl-3">
        <textarea
          aria-label={`What it says, stage ${number}`}
          disabled={!canWrite}
          rows={2}
          maxLength={200}
          value={phase.say}
          onChange={(event) => set({ say: readPlain(event) })}
          className="w-64 rounded-md border border-soft bg-panel px-2 py-1"
        />
      </td>
      <td className="py-1 pl-2">
        {canWrite && (
          <button
            type="button"
            className="min-h-11 underline disabled:opacity-40"
            disabled={onTakeOut === null}
            aria-label={`Take stage ${number} out`}
            onClick={onTakeOut ?? undefined}
          >
            Out
          </button>
        )}
      </td>
    </tr>
  );
}

interface StageNumberProps extends StageProps {
  readonly name: keyof Phase;
  readonly says: string;
  readonly scale?: number;
}

function StageNumber({ phase, number, canWrite, set, name, says, scale = 1 }: StageNumberProps) {
  return (
    <input
      aria-label={`${says}, stage ${number}`}
      inputMode="decimal"
      disabled={!canWrite}
      className={field}
      defaultValue={Math.round(((phase[name] as number | undefined) ?? 10) * scale * 100) / 100}
      onChange={(event) => {
        const value = Number(event.target.value.replace(",", "."));
        if (event.target.value.trim() !== "" && Number.isFinite(value)) set({ [name]: value / scale });
      }}
    />
  );
}
