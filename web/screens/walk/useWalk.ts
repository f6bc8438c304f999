import { useCallback, useMemo, useRef, useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import type { Language } from "../../../core/language/index.ts";
import type { RouteVisit } from "../../../core/route/index.ts";
import { findTopicStation, type Topic } from "../../../core/topic/index.ts";
import { countTopics, type Entry, type Mark, type TopicCount, type WalkState } from "../../../core/walk/index.ts";
import { useMe } from "../../app/useMe.ts";
import type { NewEntry } from "../../offline/syncQueue.ts";
import { syncQueue, useWalkState } from "../../offline/useSync.ts";
import type { RerouteWorker } from "../../workers/reroute.ts";
import { useWorker } from "../../workers/useWorker.ts";

export interface Step {
  readonly topic: Topic;
  /** Index of the visit it is told at; null for a topic that was asked for and is at no stop of this walk. */
  readonly stop: number | null;
  readonly station: string;
  readonly indexAtStop: number;
  readonly countAtStop: number;
}

/** A stop of the walk: it keeps the number it had in the plan, whatever the order becomes. */
export interface WalkVisit extends RouteVisit {
  readonly number: number;
}

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly isHere: boolean;
}

export interface Walk {
  readonly delivery: Delivery;
  readonly state: WalkState;
  /** The stops in the order they are walked now: as planned, or made anew from where one went out of it. */
  readonly visits: readonly WalkVisit[];
  readonly isRerouted: boolean;
  /** The order was made anew, and that was not answered yet. */
  readonly isOrderNews: boolean;
  seeOrder(): void;
  putOrderBack(): void;
  readonly steps: readonly Step[];
  readonly at: number;
  readonly step: Step;
  /** When this topic was opened, in performance.now() milliseconds. */
  readonly openedMs: number;
  readonly people: readonly Person[];
  readonly person: string | null;
  setPerson(person: string | null): void;
  /** The mark is for the next of those here, and after the last for all of them. */
  pickNext(): void;
  /** In which language a topic is told now: the chosen one where somebody translated it. */
  languageOf(topic: string): Language;
  setLanguage(language: Language): void;
  go(index: number): void;
  goToTopic(topic: string): void;
  goToStation(station: string): void;
  mark(mark: Mark, more?: Pick<Extract<NewEntry, { kind: "mark" }>, "note" | "how" | "when">): void;
  add(entry: NewEntry): Promise<Entry>;
  /** How many topics were planned, done, put off: the one count all screens share. */
  readonly count: TopicCount;
  /** The last thing I did that can be taken back; null when there is none. */
  readonly undoable: Entry | null;
  undo(): void;
}

const undoKinds: readonly Entry["kind"][] = ["mark", "snag", "promise", "measure", "photo"];

/** A walk under way: where one is, and the few things that can be done there. Every act is an entry in the syncQueue. */
export function useWalk(delivery: Delivery, language: Language, setLanguage: (language: Language) => void): Walk {
  const state = useWalkState(delivery);
  const me = useMe();
  const [anew, setAnew] = useState<readonly RouteVisit[] | null>(null);
  const [isOrderNews, setOrderNews] = useState(false);
  const visits = useMemo(() => orderVisits(delivery, anew, state), [delivery, anew, state]);
  const steps = useMemo(() => listSteps(delivery.topics, visits), [delivery.topics, visits]);
  // Opened to answer a question, though this walk has no time for it: it becomes a stop once it is marked.
  const [asked, setAsked] = useState<string | null>(null);
  const [topicId, setTopicId] = useState(() => steps[findOpen(steps, state, 0) ?? 0]!.topic.id);
  const [person, setPerson] = useState<string | null>(null);
  const openedMs = useRef(performance.now());
  const at = Math.max(
    0,
    steps.findIndex(({ topic }) => topic.id === topicId),
  );
  const step = findAsked(delivery, steps, asked) ?? steps[at]!;
  const reroute = useReroute(delivery, state);
  // The order made anew may come after the topic that asked for it was left: then it says where to go on.
  const waitsForOrder = useRef(false);

  const open = useCallback((topic: string) => {
    openedMs.current = performance.now();
    setPerson(null);
    setAsked(null);
    setTopicId(topic);
  }, []);
  const go = (index: number) => {
    waitsForOrder.current = false;
    open(steps[Math.max(0, Math.min(steps.length - 1, index))]!.topic.id);
  };

  const undoable = state.counted.findLast((entry) => undoKinds.includes(entry.kind) && entry.by === me.id) ?? null;

  const goOn = () => {
    // The question is answered: on from where it was asked.
    if (step.stop === null) return open(steps[at]!.topic.id);
    const expected = findOpen(steps, state, 0);
    const isOutOfOrder = expected !== null && steps[expected]!.stop! < step.stop && !state.topics.has(step.topic.id);
    const next = findOpen(steps, state, at + 1, step.topic.id);
    const isHere = next !== null && steps[next]!.station === step.station;
    if (isOutOfOrder) {
      waitsForOrder.current = !isHere;
      void reroute(step.topic.id, step.station).then((order) => {
        if (order === null) return;
        setAnew(order);
        setOrderNews(true);
        const first = order[0]?.topics[0];
        if (waitsForOrder.current && first !== undefined) open(first);
        waitsForOrder.current = false;
      });
      if (!isHere) return;
    }
    open(steps[next ?? at]!.topic.id);
  };

  const languageOf = (topic: string): Language => (delivery.told[language]?.[topic] === undefined ? "en" : language);

  return {
    languageOf,
    setLanguage,
    delivery,
    state,
    visits,
    isRerouted: anew !== null,
    isOrderNews,
    seeOrder: () => setOrderNews(false),
    putOrderBack() {
      setAnew(null);
      setOrderNews(false);
    },
    steps,
    at,
    step,
    openedMs: openedMs.current,
    people: listPeople(delivery, state),
    person,
    setPerson,
    pickNext() {
      const here = listPeople(delivery, state).filter(({ isHere }) => isHere);
      if (here.length > 1) setPerson(here[here.findIndex(({ id }) => id === person) + 1]?.id ?? null);
    },
    go,
    goToTopic(topic) {
      const index = steps.findIndex((each) => each.topic.id === topic);
      if (index >= 0) return go(index);
      waitsForOrder.current = false;
      openedMs.current = performance.now();
      setPerson(null);
      setAsked(topic);
    },
    goToStation(station) {
      const here = steps.map((_, i) => i).filter((i) => steps[i]!.station === station);
      const open = here.find((i) => !state.topics.has(steps[i]!.topic.id));
      const target = open ?? here[0];
      if (target !== undefined) go(target);
    },
    mark(mark, more = {}) {
      const spentS = Math.round((performance.now() - openedMs.current) / 100) / 10;
      const { id: topic } = step.topic;
      const spoken = languageOf(topic);
      const toldIn = spoken === "en" ? {} : { language: spoken };
      void syncQueue.add(delivery.id, { kind: "mark", topic, mark, person, spentS, ...toldIn, ...more });
      // Marked for one of several people: stay, the others are still to do it.
      if (person !== null) {
        openedMs.current = performance.now();
        setPerson(null);
        return;
      }
      goOn();
    },
    add: (entry) => syncQueue.add(delivery.id, entry),
    count: countTopics(delivery, state),
    undoable,
    undo() {
      if (undoable === null) return;
      waitsForOrder.current = false;
      void syncQueue.add(delivery.id, { kind: "undo", ref: undoable.id });
      if (undoable.kind !== "mark") return;
      const { topic } = undoable;
      if (delivery.plan.deferred.includes(topic)) setAsked(topic);
      else if (steps.some((each) => each.topic.id === topic)) open(topic);
    },
  };
}

const createRerouteWorker = () => new Worker(new URL("../../workers/reroute.ts", import.meta.url), { type: "module" });

/** Asks, beside the page, for the order of what is left once `marked` is marked, from a station on. */
function useReroute({ rig, topics, plan }: Delivery, state: WalkState) {
  const getWorker = useWorker<RerouteWorker>(createRerouteWorker);
  return async (marked: string, from: string): Promise<RouteVisit[] | null> => {
    const planned = new Set(plan.visits.flatMap((visit) => visit.topics));
    const left = topics.filter(({ id }) => planned.has(id) && id !== marked && !state.topics.has(id));
    return getWorker().reroute(rig, left, plan.style, from);
  };
}

/** A topic that was asked for and stands at no stop, as a step of its own; null when there is none. */
function findAsked({ topics, rig }: Delivery, steps: readonly Step[], asked: string | null): Step | null {
  const topic = topics.find(({ id }) => id === asked);
  if (topic === undefined || steps.some((step) => step.topic.id === asked)) return null;
  const station = findTopicStation(rig, topic);
  return station === null ? null : { topic, stop: null, station: station.id, indexAtStop: 0, countAtStop: 1 };
}

/**
 * The stops as planned; with an order made anew, what was told stays where it was and the rest follows in that order. What
 * was explained beyond the plan has stops of its own at the end.
 */
function orderVisits(
  { plan: { visits, deferred }, topics, rig }: Delivery,
  anew: readonly RouteVisit[] | null,
  state: WalkState,
): readonly WalkVisit[] {
  const numberOf = new Map(visits.flatMap((visit, i) => visit.topics.map((id) => [id, i + 1] as const)));
  // A stop made of several is known by the first of them; one beyond the plan comes after all.
  const keepNumber = (visit: RouteVisit, i: number): WalkVisit => {
    const numbers = visit.topics.flatMap((id) => numberOf.get(id) ?? []);
    return { ...visit, number: numbers.length === 0 ? i + 1 : Math.min(...numbers) };
  };
  const more = deferred.flatMap((id): RouteVisit[] => {
    if (!state.topics.has(id)) return [];
    const topic = topics.find((each) => each.id === id);
    const station = topic === undefined ? null : findTopicStation(rig, topic);
    return station === null ? [] : [{ station: station.id, topics: [id] }];
  });
  if (anew === null) return [...visits, ...more].map(keepNumber);
  const placed = new Set(anew.flatMap(({ topics }) => topics));
  const passed = visits
    .map((visit) => ({ ...visit, topics: visit.topics.filter((id) => !placed.has(id)) }))
    .filter(({ topics }) => topics.length > 0);
  return [...passed, ...anew, ...more].map(keepNumber);
}

function listPeople({ buyers }: Delivery, { present }: WalkState): Person[] {
  const came = [...present.values()].filter(({ person }) => !buyers.some(({ id }) => id === person));
  return [
    ...buyers.map(({ id, name }) => ({ id, name, isHere: present.get(id)?.here ?? true })),
    ...came.map(({ person, name, here }) => ({ id: person, name, isHere: here })),
  ];
}

function listSteps(topics: readonly Topic[], visits: readonly RouteVisit[]): Step[] {
  const topicOf = new Map(topics.map((topic) => [topic.id, topic]));
  return visits.flatMap((visit, stop) =>
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
