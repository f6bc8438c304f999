import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import type { Topic } from "../../../core/topic/index.ts";
import type { Entry, Mark, WalkState } from "../../../core/walk/index.ts";
import { useMe } from "../../app/useMe.ts";
import { journal, useWalkState } from "../../offline/useJournal.ts";

export interface Step {
  readonly topic: Topic;
  /** Index of the visit it is told at. */
  readonly stop: number;
  readonly station: string;
  readonly indexAtStop: number;
  readonly countAtStop: number;
}

export interface Walk {
  readonly delivery: Delivery;
  readonly state: WalkState;
  readonly steps: readonly Step[];
  readonly at: number;
  readonly step: Step;
  /** When this topic was opened, in performance.now() milliseconds. */
  readonly openedMs: number;
  readonly person: string | null;
  setPerson(person: string | null): void;
  go(index: number): void;
  goToStation(station: string): void;
  mark(mark: Mark, note?: string): void;
  snag(note: string, stops: boolean): void;
  /** The last thing I did that can be taken back; null when there is none. */
  readonly undoable: Entry | null;
  undo(): void;
}

const undoKinds: readonly Entry["kind"][] = ["mark", "snag"];

/** A walk under way: where one is, and the few things that can be done there. Every act is an entry in the journal. */
export function useWalk(delivery: Delivery): Walk {
  const state = useWalkState(delivery);
  const me = useMe();
  const steps = useMemo(() => listSteps(delivery), [delivery]);
  const [at, setAt] = useState(() => findOpen(steps, state, 0) ?? 0);
  const [person, setPerson] = useState<string | null>(null);
  const openedMs = useRef(performance.now());
  const step = steps[Math.min(at, steps.length - 1)]!;

  useEffect(() => {
    if (delivery.seal === null && state.startedAt === null) void journal.add(delivery.id, { kind: "start" });
  }, [delivery.id, delivery.seal, state.startedAt]);

  const go = useCallback(
    (index: number) => {
      openedMs.current = performance.now();
      setPerson(null);
      setAt(Math.max(0, Math.min(steps.length - 1, index)));
    },
    [steps.length],
  );

  const undoable = state.standing.findLast((entry) => undoKinds.includes(entry.kind) && entry.by === me.id) ?? null;

  return {
    delivery,
    state,
    steps,
    at,
    step,
    openedMs: openedMs.current,
    person,
    setPerson,
    go,
    goToStation(station) {
      const here = steps.map((_, i) => i).filter((i) => steps[i]!.station === station);
      const open = here.find((i) => !state.topics.has(steps[i]!.topic.id));
      const target = open ?? here[0];
      if (target !== undefined) go(target);
    },
    mark(mark, note) {
      const spentS = Math.round((performance.now() - openedMs.current) / 100) / 10;
      void journal.add(delivery.id, {
        kind: "mark",
        topic: step.topic.id,
        mark,
        person,
        spentS,
        ...(note === undefined ? {} : { note }),
      });
      // Marked for one of several people: stay, the others are still to do it.
      if (person !== null) {
        openedMs.current = performance.now();
        setPerson(null);
        return;
      }
      go(findOpen(steps, state, at + 1, step.topic.id) ?? at);
    },
    snag(note, stops) {
      void journal.add(delivery.id, { kind: "snag", topic: step.topic.id, note, stops });
    },
    undoable,
    undo() {
      if (undoable === null) return;
      void journal.add(delivery.id, { kind: "undo", ref: undoable.id });
      if (undoable.kind !== "mark") return;
      const index = steps.findIndex(({ topic }) => topic.id === undoable.topic);
      if (index >= 0) go(index);
    },
  };
}

function listSteps(delivery: Delivery): Step[] {
  const topicOf = new Map(delivery.topics.map((topic) => [topic.id, topic]));
  return delivery.plan.visits.flatMap((visit, stop) =>
    visit.topics.flatMap((id, indexAtStop) => {
      const topic = topicOf.get(id);
      if (topic === undefined) return [];
      return [{ topic, stop, station: visit.station, indexAtStop, countAtStop: visit.topics.length }];
    }),
  );
}

/** The next step without a mark, from `from` on and then round again; null when all are marked. */
function findOpen(steps: readonly Step[], state: WalkState, from: number, besides?: string): number | null {
  for (let k = 0; k < steps.length; k++) {
    const i = (from + k) % steps.length;
    const { id } = steps[i]!.topic;
    if (id !== besides && !state.topics.has(id)) return i;
  }
  return null;
}
