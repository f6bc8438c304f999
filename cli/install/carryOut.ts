import { z } from "zod";
import type { Machine } from "./machine.ts";
import { type Action, places, type Step } from "./plan.ts";

/** What was done to the machine, or was about to be, the first first: read from the end by whoever undoes it. */
const doneSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("run"), undo: z.array(z.string()) }),
  /** `before`: what stood there, if anything did, and who could read it. */
  z.strictObject({
    kind: z.literal("write"),
    path: z.string(),
    before: z.strictObject({ text: z.string(), mode: z.int() }).nullable(),
  }),
  z.strictObject({ kind: z.literal("folder"), path: z.string() }),
  z.strictObject({ kind: z.literal("copy"), to: z.string() }),
]);
export type Done = z.infer<typeof doneSchema>;
const listSchema = z.array(doneSchema);

export const readDone = (machine: Machine): Done[] => {
  const file = machine.read(places.done);
  return file === null ? [] : listSchema.parse(JSON.parse(file.text));
};

/** Why a step was not done, in words. */
export class StepFailed extends Error {}

/**
 * Does a step, and keeps of each thing how it is undone before it is done: what a kill leaves behind can be undone too. What was
 * done by an earlier installation is done again and stands once.
 *
 * @throws StepFailed where a command fails, with its last words.
 */
export function carryOut(step: Step, machine: Machine): void {
  for (const action of step.actions) {
    if (action.kind === "run" && action.unless !== undefined && machine.run(action.unless).isGood) continue;
    const done = howUndone(action, machine);
    if (done !== null) note(machine, done);
    doOne(action, machine);
  }
}

function note(machine: Machine, done: Done): void {
  const list = readDone(machine);
  const name = JSON.stringify(nameOf(done));
  if (!list.some((each) => JSON.stringify(nameOf(each)) === name)) keep(machine, [...list, done]);
}

const keep = (machine: Machine, list: readonly Done[]) =>
  machine.write(places.done, `${JSON.stringify(list, null, 2)}\n`, 0o600);

/** What a thing done is known by: a file that is written again was there before as it was the first time. */
const nameOf = (done: Done) => (done.kind === "write" ? { kind: done.kind, path: done.path } : done);

/** Null where there is nothing to undo. */
function howUndone(action: Action, machine: Machine): Done | null {
  switch (action.kind) {
    case "run":
      return action.undo === undefined ? null : { kind: "run", undo: [...action.undo] };
    case "write":
      return { kind: "write", path: action.path, before: machine.read(action.path) };
    case "folder":
      return machine.exists(action.path) ? null : { kind: "folder", path: action.path };
    case "copy":
      return { kind: "copy", to: action.to };
    default:
      throw new Error(`howUndone: expected a known action, got ${JSON.stringify(action satisfies never)}`);
  }
}

function doOne(action: Action, machine: Machine): void {
  const run = (command: readonly string[]) => {
    const { isGood, says } = machine.run(command);
    if (!isGood) throw new StepFailed(`\`${command.join(" ")}\` failed: ${says || "it said nothing"}`);
  };
  switch (action.kind) {
    case "run":
      run(action.command);
      break;
    case "write":
      machine.write(action.path, action.text, action.mode);
      break;
    case "folder":
      machine.makeFolder(action.path, action.mode);
      if (action.owner !== undefined) run(["chown", "-R", `${action.owner}:`, action.path]);
      break;
    case "copy":
      for (const name of action.only) machine.remove(`${action.to}/${name}`);
      for (const name of action.only) machine.copy(`${action.from}/${name}`, `${action.to}/${name}`);
      break;
    default:
      throw new Error(`doOne: expected a known action, got ${JSON.stringify(action satisfies never)}`);
  }
}

/**
 * Undoes what an installation did, the last first. Folders in which something is left stay: the store, its backups. What could
 * not be undone stays noted for the next try.
 *
 * @returns what was left, in words.
 */
export function undoAll(machine: Machine): string[] {
  const left: string[] = [];
  const failed: Done[] = [];
  machine.remove(places.page);
  for (const done of readDone(machine).reverse()) {
    const said = undoOne(done, machine);
    left.push(...said);
    if (said.length > 0 && done.kind === "run") failed.unshift(done);
  }
  if (failed.length > 0) keep(machine, failed);
  else machine.remove(places.done);
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
      else machine.write(done.path, done.before.text, done.before.mode);
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
