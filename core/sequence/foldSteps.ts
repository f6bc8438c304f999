import type { EntryOf } from "../walk/index.ts";
import type { BuiltSequence, BuiltStep } from "./buildSequence.ts";
import type { WheelReading } from "./judgeWheels.ts";
import type { StepRole } from "./sequence.ts";

/** A step that stands as done or left out. */
export interface StepMark {
  readonly as: "done" | "skipped";
  /** Null where another phone has said so, and its entry is not here yet. */
  readonly entry: EntryOf<"step"> | null;
}
export interface StepsState {
  readonly marks: ReadonlyMap<string, StepMark>;
  /** By the read's id. */
  readonly readings: ReadonlyMap<string, WheelReading & Pick<EntryOf<"step">, "typed">>;
}

/**
 * Where a run of a sequence stands: the later mark of a step counts, and what another phone has passed (`heard`: ids of steps)
 * counts until somebody here says otherwise. The order entries come in does not matter.
 */
export function foldSteps(entries: readonly EntryOf<"step">[], run: string, heard: readonly string[] = []): StepsState {
  const marks = new Map<string, StepMark>(heard.map((step) => [step, { as: "done", entry: null }]));
  const readings = new Map<string, WheelReading & Pick<EntryOf<"step">, "typed">>();
  const ordered = entries
    .filter((entry) => entry.run === run)
    .sort((a, b) => (a.at === b.at ? compare(a.id, b.id) : compare(a.at, b.at)));
  for (const entry of ordered) {
    if (entry.value !== undefined || entry.feel !== undefined) {
      const { value, feel, typed } = entry;
      readings.set(entry.step, { value, feel, typed });
    } else if (entry.as === "open") marks.delete(entry.step);
    else marks.set(entry.step, { as: entry.as, entry });
  }
  return { marks, readings };
}
const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** A step with what stands before it: steps of the other one that are not done. */
export interface NextStep {
  readonly step: BuiltStep;
  readonly phase: string;
  readonly waitsFor: readonly BuiltStep[];
}

/** The next step of a role, and what the other one has to do first; null when this role is through. Together, nobody waits. */
export function findNextStep(built: BuiltSequence, { marks }: StepsState, role: StepRole): NextStep | null {
  const all = built.phases.flatMap(({ title, isFree, steps }) => steps.map((step) => ({ step, phase: title, isFree })));
  const isMine = (step: BuiltStep) => built.isTogether || step.by === role;
  const at = all.findIndex(({ step }) => isMine(step) && !marks.has(step.id));
  if (at < 0) return null;
  const { step: mine, phase, isFree } = all[at]!;
  const before = all.slice(0, at).filter((each) => !isFree || each.phase !== phase);
  return { step: mine, phase, waitsFor: before.flatMap(({ step }) => (marks.has(step.id) ? [] : [step])) };
}

/** A launch begun before midnight goes on after it: what was touched in the last hours is still under way. */
const underWayMs = 6 * 3_600_000;

/** Runs of a sequence on a day are numbered; the one that is under way is the last that was touched lately, else the day's last. */
export function findRun(entries: readonly EntryOf<"step">[], sequence: string, day: string, nowMs: number): string {
  const last = entries.reduce<EntryOf<"step"> | null>((a, b) => (a === null || b.at > a.at ? b : a), null);
  if (last !== null && nowMs - Date.parse(last.at) < underWayMs) return last.run;
  const first = `${sequence}-${day}`;
  const numbers = entries.flatMap(({ run }) => {
    if (run === first) return [1];
    const number = run.startsWith(`${first}-`) ? Number(run.slice(first.length + 1)) : Number.NaN;
    return Number.isInteger(number) ? [number] : [];
  });
  return nameRun(first, Math.max(1, ...numbers));
}
const nameRun = (first: string, number: number) => (number === 1 ? first : `${first}-${number}`);

/** The run after this one, on the same day: "launch-2026-05-14" → "launch-2026-05-14-2". */
export function nextRun(run: string): string {
  const [, first, number] = /^(.*-\d{4}-\d{2}-\d{2})(?:-(\d+))?$/.exec(run) ?? [];
  return nameRun(first ?? run, Number(number ?? 1) + 1);
}
