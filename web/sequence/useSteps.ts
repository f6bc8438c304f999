import { useMemo, useState } from "react";
import { useLocation } from "react-router";
import type { Rig } from "../../core/rig/index.ts";
import {
  buildSequence,
  findRun,
  foldSteps,
  nextRun,
  readShared,
  type Sequence,
  type StepRole,
  type StepWay,
  writeShared,
} from "../../core/sequence/index.ts";
import type { EntryOf } from "../../core/walk/index.ts";
import type { NewEntry } from "../offline/syncQueue.ts";
import { storeDay, storeRegion } from "../ui/storeTime.ts";
import { useBook } from "../ui/tell.ts";

export interface StepsPort {
  readonly rig: Rig;
  /** All steps of the handover, of this device and of others. */
  readonly entries: readonly EntryOf<"step">[];
  readonly onAdd: (entry: NewEntry) => void;
}

const usualWay: StepWay = { way: "partner", method: "winch" };

/** One going through of a sequence on this phone: who one is, how it is done, and what is done here and elsewhere. */
export function useSteps(sequence: Sequence, { rig, entries, onAdd }: StepsPort) {
  const book = useBook();
  const { hash, pathname, search } = useLocation();
  const passed = readShared(hash);
  const shared = passed?.run.startsWith(`${sequence.id}-`) === true ? passed : null;
  const [chosenRun, setRun] = useState<string | null>(null);
  const mine = useMemo(() => entries.filter((entry) => entry.sequence === sequence.id), [entries, sequence.id]);
  const run = chosenRun ?? shared?.run ?? findRun(mine, sequence.id, storeDay(Date.now()), Date.now());
  const [way, setWay] = useState<StepWay>(shared ?? usualWay);
  const [role, setRole] = useState<StepRole>(
    new URLSearchParams(search).get("role") === "helper" ? "helper" : "skipper",
  );
  const built = useMemo(
    () => buildSequence(sequence, rig, way, { ...storeRegion(), book }),
    [sequence, rig, way, book],
  );
  const state = useMemo(() => foldSteps(mine, run, shared?.run === run ? shared.done : []), [mine, run, shared]);
  const myRole = way.way === "alone" ? "skipper" : role;
  const say = (step: string, as: EntryOf<"step">["as"], by: StepRole = myRole) =>
    onAdd({ kind: "step", sequence: sequence.id, run, step, role: by, as });
  return {
    built,
    state,
    run,
    way,
    setWay,
    role: myRole,
    setRole,
    say,
    read: (step: string, reading: Pick<EntryOf<"step">, "value" | "typed" | "feel">) =>
      onAdd({ kind: "step", sequence: sequence.id, run, step, role: myRole, as: "done", ...reading }),
    beginAgain: () => setRun(nextRun(run)),
    /** The address under which the other phone goes on from here. */
    passTo: () => {
      const done = [...state.marks.keys()];
      const other = myRole === "skipper" ? "helper" : "skipper";
      const query = new URLSearchParams(search);
      query.set("role", other);
      return `${location.origin}${pathname}?${query}#${writeShared({ run, ...way, done })}`;
    },
    /** How many steps came by another phone's code and are not here as entries. */
    heard: shared?.run === run ? shared.done.length : 0,
  };
}
export type Steps = ReturnType<typeof useSteps>;
