import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics as library, makeReady, rigTemplates } from "../../content/index.ts";
import { toInstant } from "../dates/index.ts";
import { listReadyChecks } from "../ready/index.ts";
import { listTopicsFor } from "../route/index.ts";
import {
  classifyLater,
  compareOwed,
  type Entry,
  entrySchema,
  foldAfterSeal,
  foldWalk,
  formatEntry,
  isCovered,
  isInOrder,
  joinSteps,
  keepWalk,
  listBeforeParting,
  listDisputed,
  listHands,
  listObstacles,
  listOpenTopics,
  listOwed,
  listPutRight,
  listStartObstacles,
  listWaits,
  marks,
  sayJoined,
  scoreForgotten,
} from "./index.ts";
import { orderEntries } from "./orderEntries.ts";

const rig = rigTemplates["wending-23"];
const topics = listTopicsFor(rig, library);
const checks = listReadyChecks(rig, makeReady);
const content = {
  topics,
  rig,
  makeReady: checks,
  buyers: [
    { id: "b1", name: "Dov Anselm" },
    { id: "b2", name: "Ana Anselm" },
  ],
  readings: {},
  date: "2026-06-01",
} as const;
const letters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
const idOf = (n: number) => `01${"0".repeat(20)}${[15, 10, 5, 0].map((bit) => letters[(n >> bit) & 31]).join("")}`;
const base = (n: number) => ({
  id: idOf(n),
  delivery: "d-1",
  at: toInstant(1_700_000_000_000 + n * 1000),
  by: "nessa",
  device: "tablet-1",
});

const mark = (n: number, topic: string, as: (typeof marks)[number], person: string | null = null): Entry => ({
  ...base(n),
  kind: "mark",
  topic,
  mark: as,
  person,
  spentS: 10,
});

const anyEntry = fc.tuple(fc.nat(4000), fc.nat(3), fc.nat(5), fc.nat(4)).map(([n, kind, topic, as]): Entry => {
  const id = topics[topic]!.id;
  if (kind === 0) return mark(n, id, marks[as]!);
  if (kind === 1) return { ...base(n), kind: "snag", topic: id, note: "loose", stops: false };
  if (kind === 2) return { ...base(n), kind: "undo", ref: idOf((n * 7) % 4000) };
  return { ...base(n), kind: "gear", item: rig.gear[topic]!.id, count: as };
});
const startOf = (n: number): Entry => ({ ...base(n), kind: "start", snapshot: String(n % 10).repeat(64) });
const snagOf = (n: number, corrects?: number): Entry => ({
  ...base(n),
  kind: "snag",
  topic: null,
  note: `snag ${n}`,
  stops: n % 2 === 0,
  ...(corrects === undefined ? {} : { corrects: idOf(corrects) }),
});
const signOf = (n: number): Entry => ({
  ...base(n),
  kind: "sign",
  role: "buyer",
  name: "Dov Anselm",
  person: "b1",
  strokes: [[n, 2, 3, 4]],
  width: 300,
  height: 100,
});
/** Of all kinds that change what others mean: what is taken back, put right, signed, begun twice. */
const tellingEntry = fc.tuple(fc.nat(60), fc.nat(8), fc.nat(60)).map(([n, kind, other]): Entry => {
  if (kind === 0) return { ...base(n), kind: "undo", ref: idOf(other) };
  if (kind === 1) return startOf(n);
  if (kind === 2) return snagOf(n);
  if (kind === 3) return snagOf(n, other);
  if (kind === 4) return signOf(n);
  return mark(n, ["horn", "lanyard"][n % 2]!, marks[other % marks.length]!, n % 3 === 0 ? "b1" : null);
});
const distinct = fc.uniqueArray(anyEntry, { selector: ({ id }) => id, maxLength: 40 });

/** Replays entries one by one in time order, dropping the undone ones: the obvious way. */
function replaySlowly(entries: readonly Entry[]) {
  const inOrder = [...entries].sort((a, b) => (a.at + a.id < b.at + b.id ? -1 : 1));
  const undone = inOrder.filter(({ kind }) => kind === "undo").map((entry) => (entry as { ref: string }).ref);
  const last = new Map<string, string>();
  for (const entry of inOrder) {
    if (undone.includes(entry.id)) continue;
    if (entry.kind === "mark") last.set(entry.topic, entry.mark);
  }
  return last;
}

describe("foldWalk", () => {
  it("kept and added to is what it is when folded anew, however entries came, late, undone or put right", () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(tellingEntry, { selector: ({ id }) => id, maxLength: 30 }),
        fc.array(fc.nat(4), { maxLength: 30 }),
        fc.boolean(),
        (entries, sizes, isInOrder) => {
          const arriving = isInOrder ? entries.toSorted((a, b) => (a.id < b.id ? -1 : 1)) : entries;
          const numbers = new Map(arriving.map(({ id }, i) => [id, i + 1]));
          const sequenceOf = (id: string) => numbers.get(id);
          let kept = keepWalk([], sequenceOf);
          for (let from = 0, i = 0; from < arriving.length; i++) {
            const to = from + (sizes[i] ?? 1);
            kept = kept.add(arriving.slice(from, to), arriving.slice(0, to), sequenceOf);
            expect(kept.state).toEqual(foldWalk(arriving.slice(0, to), sequenceOf));
            from = to;
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it("gives the same whatever the order, duplication or delay of two devices' entries", () => {
    fc.assert(
      fc.property(distinct, fc.func(fc.nat()), (entries, shuffle) => {
        const mixed = [...entries, ...entries.slice(0, 9)].sort((a, b) => shuffle(a.id) - shuffle(b.id));
        expect(foldWalk(mixed)).toEqual(foldWalk(entries));
      }),
      { seed: 11, numRuns: 200 },
    );
  });

  it("ends with the marks a slow replay ends with", () => {
    fc.assert(
      fc.property(distinct, (entries) => {
        const folded = new Map([...foldWalk(entries).topics].map(([id, { mark: as }]) => [id, as]));
        expect(folded).toEqual(replaySlowly(entries));
      }),
      { seed: 12, numRuns: 200 },
    );
  });

  it("adds up the seconds spent on a topic and keeps who got how far", () => {
    const state = foldWalk([
      mark(1, "lanyard", "told"),
      mark(2, "lanyard", "did", "b1"),
      mark(3, "lanyard", "shown", "b2"),
    ]);
    expect(state.topics.get("lanyard")).toMatchObject({ mark: "shown", spentS: 30 });
    expect([...state.topics.get("lanyard")!.people]).toEqual([
      ["b1", "did"],
      ["b2", "shown"],
    ]);
  });
});

describe("what stands open", () => {
  it("covers a topic only when it was taken as far as it wants; not aboard closes it", () => {
    const lanyard = { ...topics.find(({ id }) => id === "lanyard")!, must: false };
    const after = (as: (typeof marks)[number]) => isCovered(lanyard, foldWalk([mark(1, "lanyard", as)]));
    expect(marks.map(after)).toEqual([false, false, true, false, true]);
  });

  it("lists musts first and says why each is open", () => {
    const open = listOpenTopics(topics, foldWalk([mark(1, "lanyard", "told"), mark(2, "plotter", "later")]));
    const firstOther = open.findIndex(({ topic }) => !topic.must);
    expect(open.slice(firstOther).every(({ topic }) => !topic.must)).toBe(true);
    expect(open.find(({ topic }) => topic.id === "lanyard")).toMatchObject({ why: "short", reason: null });
    expect(open.find(({ topic }) => topic.id === "plotter")?.why).toBe("later");
    expect(open.find(({ topic }) => topic.id === "flush")?.why).toBe("untouched");
  });

  it("owes what was put off, snags, musts with a reason and short gear, until each is settled", () => {
    const entries: Entry[] = [
      { ...mark(1, "plotter", "later"), note: "by phone" } as Entry,
      { ...base(2), kind: "snag", topic: null, note: "gauge low", stops: false },
      { ...base(3), kind: "reason", topic: "flush", reason: "no water here" },
      { ...base(4), kind: "gear", item: "keys", count: 1 },
    ];
    const owed = listOwed(topics, rig.gear, foldWalk(entries));
    expect(owed.map(({ what, text }) => `${what}: ${text}`).sort()).toEqual([
      "gear: Ignition keys with float: 1 short",
      "later: Chartplotter: chart, depth, and the way home: by phone",
      "must: Flush the engine with fresh water: no water here",
      "snag: gauge low",
    ]);
    const settled = owed.map(({ ref }, i): Entry => ({ ...base(100 + i), kind: "settle", ref, note: "done" }));
    expect(listOwed(topics, rig.gear, foldWalk([...entries, ...settled]))).toEqual([]);
  });

  it("names every obstacle of an untouched handover, and none of a finished one", () => {
    expect(listObstacles(content, foldWalk([])).map(({ code }) => code)).toEqual([
      "must-open",
      "gear-uncounted",
      "hours-unread",
      "unsigned",
      "not-allowed-to-start",
    ]);
    let n = 0;
    const sign = (role: "buyer" | "staff", name: string, person?: string): Entry => ({
      ...base(n++),
      kind: "sign",
      role,
      name,
      ...(person === undefined ? {} : { person }),
      width: 300,
      height: 100,
      strokes: [[1, 1, 2, 2]],
    });
    const done: Entry[] = [
      ...topics.map(({ id }) => mark(n++, id, "did")),
      ...checks.map(({ id }): Entry => ({ ...base(n++), kind: "ready", check: id, ok: true })),
      ...rig.gear.map(({ id, count }): Entry => ({ ...base(n++), kind: "gear", item: id, count })),
      ...rig.engines.map(({ id }): Entry => ({ ...base(n++), kind: "hours", engine: id, hours: 1 })),
      sign("buyer", "Dov Anselm", "b1"),
      sign("buyer", "Ana Anselm", "b2"),
      sign("staff", "Nessa Quill"),
    ];
    expect(listObstacles(content, foldWalk(done))).toEqual([]);
    const stopping: Entry = { ...base(n++), kind: "snag", topic: null, note: "leak", stops: true };
    expect(listObstacles(content, foldWalk([...done, stopping])).map(({ code }) => code)).toEqual(["stopping-snag"]);
  });
});

describe("entrySchema", () => {
  const refused = (change: object) => !entrySchema.safeParse({ ...mark(1, "lanyard", "did"), ...change }).success;
  it.each([
    ["an unknown field", { extra: 1 }],
    ["an id that is no ULID", { id: "abc" }],
    ["a day that does not exist", { at: "2026-02-30T10:00:00.000Z" }],
    ["a mark that is none", { mark: "maybe" }],
    ["markup in a note", { note: "<b>loud</b>" }],
    ["an endless note", { note: "x".repeat(1_000_001) }],
    ["time running backwards", { spentS: -1 }],
  ])("refuses %s", (_, change) => {
    expect(refused(change)).toBe(true);
    expect(refused({})).toBe(false);
  });
});

describe("who did it", () => {
  const lanyard = topics.find(({ id }) => id === "lanyard")!;
  const two = [{ id: "b1" }, { id: "b2" }];
  const hands = (...entries: Entry[]) => Object.fromEntries(listHands(lanyard, two, foldWalk(entries)));

  it("says of each how far they got; a mark for all stands until one of their own is made", () => {
    expect(hands()).toEqual({ b1: null, b2: null });
    expect(hands(mark(1, "lanyard", "told"))).toEqual({ b1: "told", b2: "told" });
    expect(hands(mark(1, "lanyard", "told"), mark(2, "lanyard", "did", "b1"))).toEqual({ b1: "did", b2: "told" });
    expect(hands(mark(1, "lanyard", "did", "b1"))).toEqual({ b1: "did", b2: null });
  });

  it("keeps both marks where two of the store disagree; the later counts", () => {
    const tobins = { ...mark(5, "lanyard", "told"), by: "tobin" } as Entry;
    const state = foldWalk([mark(2, "lanyard", "did"), tobins]);
    const marked = state.topics.get("lanyard")!;
    expect(marked.mark).toBe("told");
    expect(listDisputed(marked).map(({ by, mark: as }) => [by, as])).toEqual([["nessa", "did"]]);
    expect(
      listDisputed(foldWalk([mark(2, "lanyard", "told"), mark(3, "lanyard", "did")]).topics.get("lanyard")!),
    ).toEqual([]);
  });

  it("counts what an owner did on their own page, but not what they only read, for a topic to be done", () => {
    const remote = (as: "understood" | "did"): Entry => ({
      ...base(1),
      by: "owner",
      kind: "remote",
      topic: "lanyard",
      as,
    });
    expect(isCovered(lanyard, foldWalk([remote("understood")]))).toBe(false);
    expect(isCovered(lanyard, foldWalk([remote("did")]))).toBe(true);
  });

  it("says what a topic waits for until it is marked", () => {
    const waiting = topics.find(({ after }) => after.some((id) => topics.some((topic) => topic.id === id)))!;
    const waits = listWaits(waiting, topics, foldWalk([])).map(({ id }) => id);
    expect(waits.length).toBeGreaterThan(0);
    expect(listWaits(waiting, topics, foldWalk(waits.map((id, i) => mark(i, id, "told"))))).toEqual([]);
  });
});

describe("what is owed first", () => {
  const snag = (n: number, more: object): Entry =>
    ({ ...base(n), kind: "snag", topic: null, note: `snag ${n}`, stops: false, ...more }) as Entry;
  const order = (...entries: Entry[]) =>
    listOwed(topics, rig.gear, foldWalk(entries))
      .sort((a, b) => compareOwed(a, b, "2026-06-10"))
      .map(({ text }) => text);

  it("is what is overdue, then what stops, then how bad, then the promised day, then the oldest", () => {
    expect(
      order(
        snag(1, { how: "cosmetic" }),
        snag(2, { how: "by-date", due: "2026-06-20" }),
        snag(3, { how: "by-date", due: "2026-06-12" }),
        snag(4, {}),
        snag(5, { stops: true }),
        snag(6, { how: "cosmetic", due: "2026-06-01" }),
        snag(7, { how: "note" }),
        { ...base(8), kind: "promise", note: "promise 8", isExtra: true },
      ),
    ).toEqual(["snag 6", "snag 5", "snag 4", "snag 3", "snag 2", "promise 8", "snag 1"]);
  });

  it("is a total order whatever is owed", () => {
    const due = fc.option(fc.constantFrom("2026-06-01", "2026-06-10", "2026-06-30"), { nil: undefined });
    const how = fc.constantFrom("before-leaving", "by-date", "cosmetic");
    const any = fc.uniqueArray(fc.tuple(fc.nat(2000), how, due), { selector: ([n]) => n, maxLength: 12 });
    fc.assert(
      fc.property(any, (list) => {
        const entries = list.map(([n, as, day]) => snag(n, { how: as, ...(day === undefined ? {} : { due: day }) }));
        const owed = listOwed(topics, rig.gear, foldWalk(entries));
        const compare = (a: (typeof owed)[number], b: (typeof owed)[number]) => compareOwed(a, b, "2026-06-10");
        const sorted = [...owed].sort(compare);
        expect([...owed].reverse().sort(compare)).toEqual(sorted);
        const late = sorted.map((each) => each.due !== null && each.due < "2026-06-10");
        expect(late).toEqual([...late].sort((a, b) => Number(b) - Number(a)));
      }),
      { seed: 21, numRuns: 100 },
    );
  });

  it("is a snag as it was put right last, under its first id, with whose it is now; undone it stands as it was", () => {
    const right = snag(3, {
      corrects: idOf(1),
      note: "port mirror loose",
      how: "by-date",
      due: "2026-06-12",
      owner: "Ines",
    });
    const entries = [
      snag(1, { topic: "lanyard", check: "gauges" }),
      { ...base(2), kind: "assign", ref: idOf(1), owner: "Tobin Ashgrove", due: null } as Entry,
      right,
    ];
    const owed = (list: readonly Entry[]) => listOwed(topics, rig.gear, foldWalk(list))[0];
    expect(owed(entries)).toMatchObject({
      ref: idOf(1),
      since: base(1).at,
      text: "port mirror loose",
      severity: "by-date",
      owner: "Ines",
      due: "2026-06-12",
    });
    expect(foldWalk(entries).snags).toHaveLength(1);
    expect(foldWalk(entries).snags[0]).toMatchObject({ topic: "lanyard", check: "gauges", at: base(1).at });
    // In whatever order they come, and when its clock was behind.
    expect(owed([...entries].reverse())).toEqual(owed(entries));
    expect(owed([entries[0]!, { ...right, ...base(0) }])).toMatchObject({ text: "port mirror loose" });
    const later = { ...base(4), kind: "assign", ref: idOf(1), owner: "Nessa", due: null } as Entry;
    expect(owed([...entries, later])).toMatchObject({ text: "port mirror loose", owner: "Nessa" });
    expect(owed([...entries, { ...base(4), kind: "undo", ref: idOf(3) }])).toMatchObject({ text: "snag 1" });
    expect(owed([...entries, { ...base(4), kind: "undo", ref: idOf(1) }])).toBeUndefined();
    expect(owed([...entries, { ...base(4), kind: "settle", ref: idOf(1), note: "tightened" }])).toBeUndefined();
  });

  it("keeps a sealed snag as it was signed: putting it right is a claim beside it", () => {
    const [sealed, found] = [[snag(1, {})], snag(2, {})];
    const right = snag(3, { corrects: idOf(1), note: "other" });
    const later = snag(4, { corrects: idOf(2), note: "found later, put right" });
    expect(foldAfterSeal(sealed, [found, right, later]).snags.map(({ note }) => note)).toEqual([
      "snag 1",
      "found later, put right",
    ]);
    expect(classifyLater(right, false)).toBe("claim");
  });

  it("takes owner and day from the last to assign it, and says when the buyer was informed", () => {
    const state = foldWalk([
      snag(1, {}),
      { ...base(2), kind: "assign", ref: idOf(1), owner: "Tobin Ashgrove", due: "2026-06-20" },
      { ...base(3), kind: "tell", ref: idOf(1), text: "The part is here." },
    ]);
    expect(listOwed(topics, rig.gear, state)[0]).toMatchObject({
      owner: "Tobin Ashgrove",
      due: "2026-06-20",
      message: { id: idOf(3), at: base(3).at },
    });
  });
});

describe("the start of a walk", () => {
  it("waits for make-ready and stopping snags, unless the owner answers for it", () => {
    const ready = checks.map(({ id }, n): Entry => ({ ...base(n), kind: "ready", check: id, ok: true }));
    expect(listStartObstacles(checks, foldWalk(ready)).isFree).toBe(true);
    const open = listStartObstacles(checks, foldWalk(ready.slice(1)));
    expect([open.isFree, open.open.map(({ id }) => id)]).toEqual([false, [checks[0]!.id]]);
    const stopping: Entry = { ...base(900), kind: "snag", topic: null, note: "leak", stops: true };
    const stopped = listStartObstacles(checks, foldWalk([...ready, stopping]));
    expect([stopped.isFree, stopped.stopping.length]).toEqual([false, 1]);
    const allow: Entry = { ...base(901), kind: "allow", reason: "The buyer has come far" };
    expect(listStartObstacles(checks, foldWalk([stopping, allow])).isFree).toBe(true);
  });
});

describe("a fault of make-ready that was put right", () => {
  const [check, other] = checks as [(typeof checks)[number], (typeof checks)[number]];
  const bad: Entry = { ...base(1), kind: "ready", check: check.id, ok: false };
  const fault: Entry = { ...base(2), kind: "snag", topic: null, note: "hose loose", stops: true, check: check.id };
  const settle: Entry = { ...base(3), kind: "settle", ref: idOf(2), note: "New clamp" };
  it("leaves its check in order; one that is still open, or another's, does not", () => {
    expect(isInOrder(foldWalk([bad]), check)).toBe(false);
    expect(isInOrder(foldWalk([bad, fault]), check)).toBe(false);
    const mended = foldWalk([bad, fault, settle]);
    expect([isInOrder(mended, check), isInOrder(mended, other)]).toEqual([true, false]);
    expect(listStartObstacles([check], mended).isFree).toBe(true);
    const second: Entry = { ...base(4), kind: "snag", topic: null, note: "worn", stops: false, check: check.id };
    expect(isInOrder(foldWalk([bad, fault, settle, second]), check)).toBe(false);
  });

  it("is bad again when it was found so after the mending, and no settled fault is an engine that was run", () => {
    const again: Entry = { ...base(8), kind: "ready", check: check.id, ok: false };
    expect(isInOrder(foldWalk([bad, fault, settle, again]), check)).toBe(false);
    const new2: Entry = { ...base(9), kind: "snag", topic: null, note: "loose again", stops: true, check: check.id };
    const done: Entry = { ...base(10), kind: "settle", ref: idOf(9), note: "Two clamps" };
    expect(isInOrder(foldWalk([bad, fault, settle, again, new2, done]), check)).toBe(true);
    expect(isInOrder(foldWalk([bad, fault, settle]), { ...check, asksMinutes: true })).toBe(false);
  });

  it("is told with what was done, the first found first", () => {
    const promise: Entry = { ...base(5), kind: "promise", note: "A second key", isExtra: false };
    const kept: Entry = { ...base(6), kind: "settle", ref: idOf(5), note: "Cut and handed over" };
    const list = listPutRight(foldWalk([promise, bad, fault, settle, kept]));
    expect(list.map(({ what, how }) => [what.note, how.note])).toEqual([
      ["hose loose", "New clamp"],
      ["A second key", "Cut and handed over"],
    ]);
    expect(listPutRight(foldWalk([bad, fault, promise]))).toEqual([]);
  });
});

describe("a buyer who will not sign", () => {
  it("is heard with a reason and a second person of the store; then nothing more is missing from them", () => {
    const refuse: Entry = { ...base(1), kind: "refuse", name: "Dov Anselm", reason: "Wants the gauge mended first" };
    const unsigned = (...entries: Entry[]) =>
      listObstacles(content, foldWalk(entries)).find(({ code }) => code === "unsigned")?.ids;
    expect(unsigned()).toEqual(["b1", "b2", "staff"]);
    expect(unsigned(refuse)).toEqual(["b2", "staff", "countersign"]);
    // Whoever is not here need not be heard.
    const away: Entry = { ...base(2), kind: "present", person: "b2", name: "Ana Anselm", here: false };
    expect(unsigned(refuse, away)).toEqual(["staff", "countersign"]);
  });
});

describe("before parting", () => {
  it("lists open musts, then what this store forgets most, then the rest; marked ones are gone", () => {
    const scores = { plotter: 0.4, "fuel-fill": 0.9, lanyard: 1 };
    const sheet = listBeforeParting(topics, foldWalk([mark(1, "horn", "did")]), scores);
    expect(sheet.musts.every(({ topic }) => topic.must)).toBe(true);
    expect(sheet.forgotten.map(({ topic }) => topic.id)).toEqual(["fuel-fill", "plotter"]);
    const all = [...sheet.musts, ...sheet.forgotten, ...sheet.others];
    expect(new Set(all.map(({ topic }) => topic.id)).size).toBe(topics.length - 1);
    expect(all.some(({ topic }) => topic.id === "horn")).toBe(false);
  });

  it("trusts what is usual at first and the store's own figures in the end", () => {
    const usual = ["a", "b", "c", "d"];
    expect(scoreForgotten("a", usual, undefined, 0)).toBe(1);
    expect(scoreForgotten("x", usual, undefined, 0)).toBe(0);
    const own = { late: 30, calls: 5 };
    expect(scoreForgotten("x", usual, own, 100)).toBeGreaterThan(scoreForgotten("a", usual, undefined, 100));
    expect(scoreForgotten("x", usual, { late: 0, calls: 1 }, 10)).toBeGreaterThan(
      scoreForgotten("x", usual, { late: 1, calls: 0 }, 10),
    );
  });
});

describe("after the seal", () => {
  const sealed = [mark(1, "lanyard", "did"), mark(2, "plotter", "later")];

  it("goes on with what only adds: a topic made up for, a note", () => {
    const later = [mark(10, "plotter", "did"), { ...base(11), kind: "amend", note: "Key sent" } as Entry];
    const state = foldAfterSeal(sealed, later);
    expect(state.topics.get("plotter")!.mark).toBe("did");
    expect(listOwed(topics, rig.gear, state)).toEqual([]);
    expect(state.amendments).toHaveLength(1);
  });

  it("counts nothing that would change what was sealed, whatever day it bears", () => {
    const early = { at: "2019-01-01T00:00:00.000Z" };
    const later = [
      { ...base(20), ...early, kind: "undo", ref: sealed[0]!.id },
      { ...base(21), ...early, kind: "gear", item: "keys", count: 9 },
      { ...base(22), kind: "hours", engine: "port", hours: 900 },
    ] as Entry[];
    const state = foldAfterSeal(sealed, later);
    expect(state.topics.get("lanyard")!.mark).toBe("did");
    expect([state.gear.size, state.hours.size]).toEqual([0, 0]);
  });

  it("takes back what itself came later", () => {
    const note: Entry = { ...base(30), kind: "amend", note: "Wrong boat" };
    const undo: Entry = { ...base(31), kind: "undo", ref: note.id };
    expect(foldAfterSeal(sealed, [note, undo]).amendments).toEqual([]);
  });

  it("is told apart by what the seal chain says, not by any clock", () => {
    const note: Entry = { ...base(32), kind: "amend", note: "Key sent" };
    const undo: Entry = { ...base(33), kind: "undo", ref: note.id };
    expect(classifyLater(note, false)).toBe("addition");
    expect(classifyLater(note, true)).toBe("uncovered");
    expect(classifyLater(undo, false)).toBe("claim");
  });
});

describe("joinSteps", () => {
  it("lists the steps of one launch as one line, and everything else as it is", () => {
    const step = (second: number, run: string): Entry => ({
      ...base(second),
      kind: "step",
      sequence: "launch",
      run,
      step: "chock",
      role: "helper",
      as: "done",
    });
    const note: Entry = { ...base(3), kind: "amend", note: "calm" };
    const listed = joinSteps([
      step(1, "launch-a"),
      step(2, "launch-a"),
      note,
      step(4, "launch-a"),
      step(5, "launch-b"),
    ]);
    expect(listed.map((each) => [each.entry.id, each.steps])).toEqual([
      [idOf(3), 0],
      [idOf(4), 3],
      [idOf(5), 1],
    ]);
    expect(listed.map((listed) => sayJoined(listed))).toEqual([null, "Launch: 3 steps entered", null]);
  });
});

describe("formatEntry", () => {
  it("has a line for every kind there is", () => {
    const samples: Record<Entry["kind"], object> = {
      start: {},
      update: { next: "a".repeat(64) },
      allow: { reason: "far" },
      ready: { check: "fuel", ok: true },
      present: { person: "b1", name: "Dov", here: true },
      mark: { topic: "lanyard", mark: "later", person: null, spentS: 1, how: "by-phone", note: "Tuesday" },
      snag: { topic: null, note: "leak", stops: false },
      promise: { note: "table leg", isExtra: true },
      assign: { ref: idOf(1), owner: null, due: null },
      undo: { ref: idOf(1) },
      gear: { item: "keys", count: 1 },
      hours: { engine: "port", hours: 1.2 },
      measure: { item: "bilge", value: 0 },
      photo: { photo: "p1", topic: null, ref: null },
      reason: { topic: "flush", reason: "no hose" },
      sign: { role: "buyer", name: "Dov", width: 300, height: 100, strokes: [[1, 1, 2, 2]] },
      refuse: { name: "Dov", reason: "no" },
      close: {},
      settle: { ref: idOf(1), note: "done" },
      tell: { ref: idOf(1), text: "here" },
      call: { topic: "lanyard", note: "beeps" },
      amend: { note: "well" },
      remote: { topic: "lanyard", as: "did" },
      ask: { topic: null, note: "which?" },
      step: { sequence: "launch", run: "launch-2026-05-14", step: "strap-off", role: "helper", as: "done" },
      trip: { trip: "t1", plan: null },
      rehearsed: { scenario: "first-start", version: 1, person: "b1", actions: [] },
      watched: { topic: "lanyard", clip: "a".repeat(64), person: null },
      answered: { topic: "lanyard", question: "which-clip", choice: 0, person: "b1" },
      inspect: { check: "gear", ok: false, note: "box missing" },
    };
    const entries = Object.entries(samples).map(([kind, more], n) => entrySchema.parse({ ...base(n), kind, ...more }));
    const lines = entries.map((entry) => formatEntry(entry, { rig, entries }, (id) => id));
    expect(lines.every((line) => line.length > 3 && !line.includes("undefined"))).toBe(true);
    expect(lines).toContain("lanyard: put off, by phone: Tuesday");
    expect(lines).toContain("Launch, strap off: done");
    expect(lines).toContain("Ignition keys with float: 1 counted");
  });
});

describe("orderEntries", () => {
  it("orders as a slow sort by time and id does, clocks decades off and same instants included", () => {
    const at = fc.constantFrom(
      "1970-01-01T00:00:00.000Z",
      "2026-06-01T10:00:00.000Z",
      "2026-06-01T10:00:00.001Z",
      "2026-06-01T10:00:00Z",
      "9999-12-31T23:59:59.999Z",
    );
    const any = fc.uniqueArray(fc.tuple(fc.nat(4000), at), { selector: ([n]) => n, maxLength: 60 });
    fc.assert(
      fc.property(any, (list) => {
        const entries = list.map(([n, when]): Entry => ({ ...base(n), at: when, kind: "amend", note: "x" }));
        const slow = [...entries].sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : 1));
        expect(orderEntries([...entries, ...entries.slice(0, 5)])).toEqual(slow);
      }),
      { seed: 31, numRuns: 300 },
    );
  });
});
