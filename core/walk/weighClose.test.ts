import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { toInstant } from "../dates/index.ts";
import { findStyle, listTopicsFor, planWalk } from "../route/index.ts";
import {
  countForSigning,
  type Entry,
  findWaitingClose,
  foldWalk,
  hashShown,
  listSetAside,
  listUnseen,
  weighCloses,
  writeSignWords,
} from "./index.ts";

const template = rigTemplates["pipit-15"];
const rig = { ...template, gear: template.gear.slice(0, 2), engines: template.engines.slice(0, 1) };
const fitting = listTopicsFor(rig, library);
const musts = fitting.filter(({ must, level }) => must && level === "done").slice(0, 2);
const topics = [...musts, ...fitting.filter(({ must }) => !must).slice(0, 2)];
const planned = planWalk(rig, topics, findStyle("sweep"), { budgetMin: 60 });
if (!planned.ok) throw new Error(planned.error.code);
const buyers = [
  { id: "b1", name: "Dov Anselm" },
  { id: "b2", name: "Una Anselm" },
];
const content = {
  ...{ topics, rig, buyers, plan: planned.value, makeReady: [], readings: {}, eachDoes: true },
  date: "2026-06-01" as const,
};
const engine = rig.engines[0]!.id;

const idOf = (n: number) => `01HZZZZZZZZZZZZZZZZZZZ${String(n).padStart(4, "0")}`;
/** What happens, one after the other; numbers say on what of what is there already. */
type Step =
  | { readonly do: "mark"; readonly topic: number; readonly as: "told" | "did" | "later"; readonly who: number }
  | { readonly do: "undo" | "settle"; readonly of: number }
  | { readonly do: "gear"; readonly item: number; readonly count: number }
  | { readonly do: "snag"; readonly stops: boolean }
  | { readonly do: "reason"; readonly topic: number }
  | { readonly do: "refuse" | "here" | "away"; readonly who: number }
  /** `lie`: by how much the words say more than there is. */
  | { readonly do: "sign"; readonly who: number; readonly lie: number }
  /** `misses`: of all that is there the how-manieth is left out, from the end; null for an honest one. */
  | { readonly do: "close"; readonly misses: number | null; readonly isBeside: boolean };

const anyClose: fc.Arbitrary<Step> = fc.record({
  do: fc.constant("close" as const),
  misses: fc.option(fc.nat(2), { nil: null }),
  isBeside: fc.boolean(),
});
const anyStep: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant("mark" as const),
      topic: fc.nat(3),
      as: fc.constantFrom("told" as const, "did" as const, "did" as const, "later" as const),
      who: fc.nat(2),
    }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom("undo" as const, "settle" as const), of: fc.nat(30) }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant("gear" as const), item: fc.nat(1), count: fc.nat(2) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("snag" as const), stops: fc.boolean() }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("reason" as const), topic: fc.nat(3) }) },
  {
    weight: 1,
    arbitrary: fc.record({ do: fc.constantFrom("refuse" as const, "here" as const, "away" as const), who: fc.nat(1) }),
  },
  {
    weight: 4,
    arbitrary: fc.record({ do: fc.constant("sign" as const), who: fc.nat(2), lie: fc.constantFrom(0, 0, 0, 1) }),
  },
  {
    weight: 4,
    arbitrary: anyClose,
  },
);
/** What somebody might leave out who closes. */
const anyLate: fc.Arbitrary<Step> = fc.oneof(
  { weight: 3, arbitrary: fc.record({ do: fc.constant("undo" as const), of: fc.integer({ min: 2, max: 10 }) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("snag" as const), stops: fc.constant(true) }) },
  { weight: 2, arbitrary: anyStep },
);
/** A walk that could be closed: all musts done by both, gear and hours, signed by everybody. */
const whole: Step[] = [
  ...[0, 1, 2, 3].map((topic): Step => ({ do: "mark", topic, as: "did", who: 2 })),
  ...[0, 1].map((item): Step => ({ do: "gear", item, count: 1 })),
];
const signed: Step[] = [0, 1, 2].map((who): Step => ({ do: "sign", who, lie: 0 }));

/** The entries of these steps, in the order in which the store received them. */
function enter(steps: readonly Step[]): Entry[] {
  const log: Entry[] = [
    { ...baseOf(0), kind: "start", snapshot: "a".repeat(64) },
    { ...baseOf(1), kind: "hours", engine, hours: 1 },
  ];
  for (const step of steps) {
    const made = make(step, log);
    if (made !== null) log.push(made);
  }
  return log;
}
const baseOf = (n: number) => ({
  id: idOf(n),
  delivery: "d-1",
  at: toInstant(Date.parse("2026-06-01T10:00:00Z") + n * 1000),
  by: "nessa",
  device: "t",
});

function make(step: Step, log: readonly Entry[]): Entry | null {
  const base = baseOf(log.length);
  const person = (who: number) => buyers[who]?.id ?? null;
  const nameOf = (who: number) => buyers[who]!.name;
  switch (step.do) {
    case "mark":
      return {
        ...base,
        kind: "mark",
        topic: topics[step.topic]!.id,
        mark: step.as,
        person: person(step.who),
        spentS: 1,
      };
    case "undo":
      return { ...base, kind: "undo", ref: log[step.of % log.length]!.id };
    case "settle":
      return { ...base, kind: "settle", ref: log[step.of % log.length]!.id, note: "done" };
    case "gear":
      return { ...base, kind: "gear", item: rig.gear[step.item]!.id, count: step.count };
    case "snag":
      return { ...base, kind: "snag", topic: null, note: "leak", stops: step.stops };
    case "reason":
      return { ...base, kind: "reason", topic: topics[step.topic]!.id, reason: "no time" };
    case "refuse":
      return { ...base, kind: "refuse", name: nameOf(step.who), person: buyers[step.who]!.id, reason: "no" };
    case "here":
    case "away":
      return {
        ...base,
        kind: "present",
        person: buyers[step.who]!.id,
        name: nameOf(step.who),
        here: step.do === "here",
      };
    case "sign": {
      const state = foldWalk(log);
      const role = step.who > 1 ? "staff" : "buyer";
      const counts = countForSigning(content, state, person(step.who));
      const signsFor = writeSignWords(role, {
        ...counts,
        byHand: counts.byHand + step.lie,
        done: counts.done + step.lie,
      });
      const whose = step.who > 1 ? { name: "Nessa" } : { name: nameOf(step.who), person: buyers[step.who]!.id };
      const drawn = { width: 300, height: 100, strokes: [[10, 50, 120, 20, 200, log.length]] };
      return { ...base, kind: "sign", role, ...whose, digest: hashShown(content, state), signsFor, ...drawn };
    }
    case "close": {
      const covers = log.filter((_, i) => step.misses === null || i !== log.length - 1 - step.misses);
      const beside =
        step.misses === null || !step.isBeside ? {} : { beside: [log.at(-1 - step.misses)?.id ?? idOf(0)] };
      return { ...base, kind: "close", covers: covers.map(({ id }) => id), ...beside };
    }
    default:
      throw new Error(`make: expected a known step, got ${JSON.stringify(step satisfies never)}`);
  }
}

/** What one person did by hand and what was counted, read out of accepted entries one by one, as somebody would on paper. */
function readSlowly(covered: readonly Entry[]) {
  const gone = new Set(covered.flatMap((entry) => (entry.kind === "undo" ? [entry.ref] : [])));
  const standing = covered
    .filter(({ id, kind }) => kind !== "undo" && !gone.has(id))
    .toSorted((a, b) => (a.at < b.at ? -1 : 1));
  const handsOf = (topic: string, person: string) =>
    standing.findLast((entry) => entry.kind === "mark" && entry.topic === topic && (entry.person ?? person) === person);
  const isDid = (entry: Entry | undefined) => entry?.kind === "mark" && entry.mark === "did";
  return {
    standing,
    byHand: (person: string) => topics.filter(({ id }) => isDid(handsOf(id, person))).length,
    didNot: (person: string) => musts.filter(({ id }) => !isDid(handsOf(id, person))).map(({ id }) => id),
    isHere: (person: string) =>
      standing.findLast((entry) => entry.kind === "present" && entry.person === person) as
        | Extract<Entry, { kind: "present" }>
        | undefined,
    gearOf: (item: string) => standing.findLast((entry) => entry.kind === "gear" && entry.item === item),
  };
}

describe("a close", () => {
  it("seals nothing but what an independent reading of the accepted entries says of each person", () => {
    let sealed = 0;
    const steps = fc
      .tuple(
        fc.array(anyStep, { maxLength: 4 }),
        fc.array(anyStep, { maxLength: 3 }),
        fc.array(anyLate, { maxLength: 3 }),
        anyClose,
      )
      .map(([before, between, after, last]) => [...before, ...whole, ...between, ...signed, ...after, last]);
    fc.assert(
      fc.property(steps, fc.infiniteStream(fc.nat(1000)), (done, order) => {
        const received = enter(done);
        const numbers = new Map(received.map(({ id }, i) => [id, i + 1]));
        // However they lie in the log: only their numbers say what came first.
        const keys = new Map(received.map(({ id }) => [id, order.next().value as number]));
        const log = received.toSorted((a, b) => keys.get(a.id)! - keys.get(b.id)!);
        const clean = weighCloses(content, log, (id) => numbers.get(id)).find(
          ({ obstacles, unseen }) => obstacles.length + unseen.length === 0,
        );
        if (clean === undefined) return;
        sealed += 1;
        const { close, covered, state } = clean;
        const slow = readSlowly(covered);
        for (const { id } of buyers) {
          if (slow.isHere(id)?.here === false) continue;
          const theirs = slow.standing.filter((entry) => "person" in entry && entry.person === id);
          const sign = theirs.findLast((entry) => entry.kind === "sign");
          const refusal = theirs.findLast((entry) => entry.kind === "refuse");
          expect(sign !== undefined || refusal !== undefined).toBe(true);
          if (sign?.kind === "sign") expect(sign.signsFor![0]).toContain(`; ${slow.byHand(id)} of them I did`);
          // A must that they did not do has its reason.
          for (const topic of slow.didNot(id)) expect(state.reasons.has(topic)).toBe(true);
        }
        // Whatever was here before it and says otherwise is inside, or was set aside by name and prints.
        const before = received.filter(({ id }) => numbers.get(id)! < numbers.get(close.id)!);
        const all = readSlowly(before);
        const named = new Set(listSetAside(state, received).map(({ id }) => id));
        const missed = before.filter(({ id }) => !covered.some((entry) => entry.id === id));
        for (const entry of missed) {
          const stands = all.standing.some(({ id }) => id === entry.id);
          if (entry.kind === "undo" && slow.standing.some(({ id }) => id === entry.ref))
            expect(named).toContain(entry.id);
          if (entry.kind === "refuse" && stands) expect(named).toContain(entry.id);
          if (entry.kind === "snag" && stands && entry.stops)
            expect(all.standing.some((other) => other.kind === "settle" && other.ref === entry.id)).toBe(true);
          if (entry.kind === "gear" && all.gearOf(entry.item)?.id === entry.id) {
            const was = slow.gearOf(entry.item);
            if (was?.kind === "gear" && was.count !== entry.count) expect(named).toContain(entry.id);
          }
        }
      }),
      { seed: 32, numRuns: 600 },
    );
    // Otherwise it would say nothing.
    expect(sealed).toBeGreaterThan(60);
  });

  it("waits for the last word only while none of the closes can be sealed", () => {
    const numberOf = (log: readonly Entry[]) => (id: string) =>
      log.findIndex((entry) => entry.id === id) + 1 || undefined;
    const open = enter([...whole, ...signed]);
    expect(findWaitingClose(content, open, numberOf(open))).toBeNull();
    const missing = enter([...whole, ...signed, { do: "refuse", who: 0 }, { do: "close", misses: 0, isBeside: false }]);
    expect(findWaitingClose(content, missing, numberOf(missing))?.unseen).toMatchObject([{ why: "refused" }]);
    const beside = enter([...whole, ...signed, { do: "refuse", who: 0 }, { do: "close", misses: 0, isBeside: true }]);
    expect(findWaitingClose(content, beside, numberOf(beside))).toBeNull();
  });

  it("knows nothing unseen in what only adds", () => {
    const before = enter([...whole, ...signed]);
    const promise: Entry = { ...baseOf(90), kind: "promise", note: "A cap", isExtra: false };
    const told: Entry = { ...baseOf(91), kind: "mark", topic: topics[0]!.id, mark: "did", person: null, spentS: 2 };
    expect(listUnseen(content, before, [...before, promise, told])).toEqual([]);
  });
});
