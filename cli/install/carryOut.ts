import { z } from "zod";
import type { Machine } from "./machine.ts";
import { type Action, places, type Step } from "./plan.ts";

/** What was done to the machine, the first first: read from the end by whoever undoes it. */
const doneSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("run"), undo: z.array(z.string()) }),
  /** `before`: what stood there, if anything did. */
  z.strictObject({ kind: z.literal("write"), path: z.string(), before: z.string().nullable() }),
  z.strictObject({ kind: z.literal("folder"), path: z.string() }),
  z.strictObject({ kind: z.literal("copy"), to: z.string() }),
]);
export type Done = z.infer<typeof doneSchema>;
const listSchema = z.array(doneSchema);

export const readDone = (machine: Machine): Done[] => {
  const text = machine.read(places.done);
  return text === null ? [] : listSchema.parse(JSON.parse(text));
};

/** Why a step was not done, in words. */
export class StepFailed extends Error {}

/**
 * Does a step, and keeps what it did before it goes on to the next thing: what a kill leaves behind can be undone too. What was
 * done by an earlier installation is done again and stands once.
 *
 * @throws StepFailed where a command fails, with its last words.
 */
export function carryOut(step: Step, machine: Machine): void {
  for (const action of step.actions) {
    const done = doOne(action, machine);
    if (done !== null) note(machine, done);
  }
}

function note(machine: Machine, done: Done): void {
  const list = readDone(machine);
  const sameAs = JSON.stringify(nameOf(done));
  if (list.some((each) => JSON.stringify(nameOf(each)) === sameAs)) return;
  machine.write(places.done, `${JSON.stringify([...list, done], null, 2)}\n`, 0o600);
}

/** What a thing done is known by: a file that is written again was there before as it was the first time. */
const nameOf = (done: Done) => (done.kind === "write" ? { kind: done.kind, path: done.path } : done);

function doOne(action: Action, machine: Machine): Done | null {
  switch (action.kind) {
    case "run": {
      const { command, unless, undo } = action;
      if (unless !== undefined && machine.run(unless).isGood) return null;
      const { isGood, says } = machine.run(command);
      if (!isGood) throw new StepFailed(`\`${command.join(" ")}\` failed: ${says || "it said nothing"}`);
      return undo === undefined ? null : { kind: "run", undo: [...undo] };
    }
    case "write": {
      const before = machine.read(action.path);
      machine.write(action.path, action.text, action.mode);
      return { kind: "write", path: action.path, before: before === action.text ? null : before };
    }
    case "folder": {
      const isNew = !machine.exists(action.path);
      machine.makeFolder(action.path, action.mode);
      if (action.owner !== undefined) {
        const { isGood, says } = machine.run(["chown", "-R", `${action.owner}:`, action.path]);
        if (!isGood) throw new StepFailed(`${action.path} cannot be given to ${action.owner}: ${says}`);
      }
      return isNew ? { kind: "folder", path: action.path } : null;
    }
    case "copy":
      for (const name of action.only) machine.remove(`${action.to}/${name}`);
      for (const name of action.only) machine.copy(`${action.from}/${name}`, `${action.to}/${name}`);
      return { kind: "copy", to: action.to };
    default:
      throw new Error(`doOne: expected a known action, got ${JSON.stringify(action satisfies never)}`);
  }
}

/**
 * Undoes what an installation did, the last first, and says what could not be. Folders in which something is left stay: the
 * store, its backups.
 *
 * @returns what was left, in words.
 */
export function undoAll(machine: Machine): string[] {
  const left: string[] = [];
  machine.remove(places.page);
  for (const done of readDone(machine).reverse()) left.push(...undoOne(done, machine));
  machine.remove(places.done);
  machine.removeEmpty("/etc/ravik");
  return left;
}

function undoOne(done: Done, machine: Machine): string[] {
  switch (done.kind) {
    case "run": {
      const { isGood, says } = machine.run(done.undo);
      return isGood ? [] : [`\`${done.undo.join(" ")}\` failed: ${says}`];
    }
    case "write":
      if (done.before === null) machine.remove(done.path);
      else machine.write(done.path, done.before, 0o644);
      return [];
    case "folder":
      machine.removeEmpty(done.path);
      return machine.exists(done.path) ? [`${done.path} stays: something is in it`] : [];
    case "copy":
      machine.remove(done.to);
      return [];
    default:
      throw new Error(`undoOne: expected something known, got ${JSON.stringify(done satisfies never)}`);
  }
}
