import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics as library, makeReady, rigTemplates } from "../../content/index.ts";
import { toInstant } from "../dates/index.ts";
import { listReadyChecks } from "../ready/index.ts";
import { findStyle, listTopicsFor, planWalk } from "../route/index.ts";
import {
  countTopics,
  createPhotoId,
  type Entry,
  foldWalk,
  hashShown,
  isCovered,
  isExplaining,
  isPhotoOf,
  isSignature,
  judgeTime,
  listCovered,
  listObstacles,
  listOpenTopics,
  listOwed,
  listSince,
  listSittingEntries,
  listStale,
  listWalkers,
  type Mark,
  marks,
} from "./index.ts";

const rig = rigTemplates["wending-23"];
const topics = listTopicsFor(rig, library);
const planned = planWalk(rig, library, findStyle("sweep"), { budgetMin: 60 });
if (!planned.ok) throw new Error(planned.error.code);
const content = {
  topics,
  rig,
  plan: planned.value,
  makeReady: listReadyChecks(rig, makeReady),
  buyers: [{ id: "b1", name: "Dov Anselm" }],
  readings: {},
  date: "2026-06-01",
} as const;
const base = (n: number, device = "tablet-1") => ({
  id: `01HZZZZZZZZZZZZZZZZZZZ${String(n).padStart(4, "0")}`,
  delivery: "d-1",
  at: toInstant(Date.parse("2026-06-01T10:00:00Z") + n * 1000),
  by: "nessa",
  device,
});
const mark = (n: number, topic: string, as: Mark, device?: string): Entry => ({
  ...base(n, device),
  kind: "mark",
  topic,
  mark: as,
  person: null,
  spentS: 1,
});
const sign = (n: number, digest: string, strokes = [[10, 50, 120, 20, 200, 80]]) =>
  ({
    ...base(n),
    kind: "sign",
    role: "buyer",
    person: "b1",
    name: "Dov Anselm",
    digest,
    width: 300,
    height: 100,
    strokes,
  }) as Extract<Entry, { kind: "sign" }>;
const codes = (entries: readonly Entry[], more = {}) =>
  listObstacles({ ...content, ...more }, foldWalk(entries)).map(({ code }) => code);

describe("isSignature", () => {
  it.each<[string, number[][], boolean]>([
    ["a name", [[10, 50, 120, 20, 200, 80]], true],
    [
      "a name in two strokes",
      [
        [10, 50, 40, 20],
        [60, 60, 100, 20],
      ],
      true,
    ],
    ["a dot", [[150, 50, 151, 51]], false],
    ["a single touch", [[150, 50]], false],
    ["a scribble on one spot", [Array.from({ length: 60 }, (_, i) => 150 + (i % 4))], false],
  ])("%s: %j", (_, strokes, is) => {
    expect(isSignature({ strokes, width: 300 })).toBe(is);
  });
});

describe("what a signature is for", () => {
  const before = [mark(1, "lanyard", "did"), mark(2, "plotter", "shown")];
  const signed = (entries: readonly Entry[]) => sign(90, hashShown(content, foldWalk(entries)));

  it("is the same whatever order entries come in, and does not change with signatures or who is here", () => {
    const digest = hashShown(content, foldWalk(before));
    expect(hashShown(content, foldWalk([...before].reverse()))).toBe(digest);
    const present: Entry = { ...base(3), kind: "present", person: "p1", name: "Uncle Benno", here: true };
    expect(hashShown(content, foldWalk([...before, present, signed(before)]))).toBe(digest);
  });

  it.each<[string, Entry]>([
    ["a mark", mark(95, "horn", "told")],
    ["gear", { ...base(95), kind: "gear", item: rig.gear[0]!.id, count: 0 }],
    ["hours", { ...base(95), kind: "hours", engine: "port", hours: 2 }],
    ["a reading", { ...base(95), kind: "measure", item: "battery-start", value: 11.2 }],
    ["a promise", { ...base(95), kind: "promise", note: "Table leg", isExtra: true }],
    ["a reason", { ...base(95), kind: "reason", topic: "horn", reason: "No time" }],
    ["a mark taken back", { ...base(95), kind: "undo", ref: before[0]!.id }],
  ])("makes it stale: %s, and says what changed", (_, change) => {
    const first = signed(before);
    expect(listStale(content, foldWalk([...before, first]))).toEqual([]);
    const all = [...before, first, change];
    expect(listStale(content, foldWalk(all))).toEqual([first]);
    expect(codes(all)).toContain("signature-stale");
    expect(listSince(first, all)).toEqual([change]);
  });

  it("never stands for marks it was not given for (any marks before and after)", () => {
    const anyMark = fc.tuple(fc.nat(89), fc.nat(20), fc.constantFrom(...marks));
    fc.assert(
      fc.property(fc.uniqueArray(anyMark, { selector: ([n]) => n, maxLength: 12 }), anyMark, (list, [, topic, as]) => {
        const entries = list.map(([n, t, m]) => mark(n, topics[t]!.id, m));
        const first = signed(entries);
        const after = mark(91, topics[topic]!.id, as);
        const state = foldWalk([...entries, first, after]);
        const isSame = foldWalk(entries).topics.get(topics[topic]!.id)?.mark === as;
        expect(listStale(content, state).length).toBe(isSame ? 0 : 1);
      }),
      { seed: 4 },
    );
  });

  it("is not that of another tablet which comes later: that stands outside of what is closed", () => {
    const foreign = mark(3, "horn", "did", "tablet-2");
    const late = mark(4, "anchor-drop", "did", "tablet-2");
    const seen = new Set([...before, foreign].map(({ id }) => id));
    const mine = mark(5, "flush", "told");
    const all = [...before, foreign, mine, late];
    expect(listSittingEntries(all, "tablet-1", seen)).toEqual([...before, foreign, mine]);
    expect(listSittingEntries(all, "tablet-1", null)).toEqual(all);
  });

  it("is closed by a list: nothing is sealed before all of it is here, and nothing besides", () => {
    const close = { ...base(99), kind: "close", covers: before.map(({ id }) => id) } as Extract<
      Entry,
      { kind: "close" }
    >;
    expect(listCovered(close, [before[0]!, close])).toBeNull();
    const early = { ...mark(3, "horn", "did", "tablet-2"), at: "2020-01-01T00:00:00.000Z" } as Entry;
    expect(listCovered(close, [early, ...before, close])).toEqual([...before, close]);
    const { covers: _, ...old } = close;
    expect(listCovered(old, [early, ...before, old])).toHaveLength(4);
  });
});

describe("two starts", () => {
  const start = (n: number, snapshot: string) => ({ ...base(n), kind: "start", snapshot }) as Entry;
  const [early, late] = [start(1, "a".repeat(64)), start(2, "b".repeat(64))];
  it("go by the one received first, else by the one made first", () => {
    const received = new Map([
      [late.id, 7],
      [early.id, 9],
    ]);
    expect(foldWalk([early, late], (id) => received.get(id)).snapshot).toBe(late.snapshot);
    expect(foldWalk([early, late], (id) => (id === early.id ? 9 : undefined)).snapshot).toBe(early.snapshot);
    expect(foldWalk([late, early]).snapshot).toBe(early.snapshot);
    const update: Entry = { ...base(5), kind: "update", next: "c".repeat(64) };
    expect(foldWalk([early, late, update]).snapshot).toBe("c".repeat(64));
    expect(foldWalk([]).snapshot).toBeNull();
  });
});

describe("a must that is not aboard", () => {
  const must = topics.find((topic) => topic.must)!;
  it("is not lost in one tap: it stays open until somebody says why, and stays in the list after", () => {
    const bare = [mark(1, must.id, "not-aboard")];
    expect(isCovered(must, foldWalk(bare))).toBe(false);
    expect(codes(bare)).toContain("must-open");
    const said = [{ ...bare[0]!, note: "Sold without" } as Entry];
    expect(listOpenTopics(topics, foldWalk(said)).find(({ topic }) => topic.id === must.id)).toMatchObject({
      why: "not-aboard",
      reason: "Sold without",
    });
    const open = (entries: Entry[]) =>
      listObstacles(content, foldWalk(entries)).find(({ code }) => code === "must-open")!.ids;
    expect(open(bare)).toContain(must.id);
    expect(open(said)).not.toContain(must.id);
    expect(listOwed(topics, [], foldWalk(said))).toEqual([]);
    const other = topics.find((topic) => !topic.must)!;
    expect(isCovered(other, foldWalk([mark(1, other.id, "not-aboard")]))).toBe(true);
  });
});

describe("hours at closing", () => {
  const read = (hours: number, more = {}): Entry => ({ ...base(1), kind: "hours", engine: "port", hours, ...more });
  it("are asked about where they do not follow, until somebody answers", () => {
    expect(codes([read(0.9)])).not.toContain("hours-asked");
    expect(codes([read(99_999)])).toContain("hours-asked");
    expect(codes([read(99_999, { answer: "as-read" })])).not.toContain("hours-asked");
    const readings = { port: [{ date: "2026-05-30", hours: 12, answer: null }] };
    expect(codes([read(3)], { readings })).toContain("hours-asked");
    expect(codes([read(13)], { readings })).not.toContain("hours-asked");
  });
});

describe("countTopics", () => {
  const onPlan = planned.value.visits.flatMap((visit) => visit.topics);
  const slowly = (entries: readonly Entry[]) => {
    const state = foldWalk(entries);
    const markOf = (id: string) => state.topics.get(id)?.mark;
    const count = (list: readonly string[], is: (id: string) => boolean) => list.filter(is).length;
    const beyond = topics.map(({ id }) => id).filter((id) => !onPlan.includes(id));
    return {
      planned: onPlan.length,
      done: count(onPlan, (id) => isCovered(topics.find((topic) => topic.id === id)!, state)),
      putOff: count(onPlan, (id) => markOf(id) === "later"),
      extra: count(beyond, (id) => isExplaining(markOf(id))),
      explained: count([...onPlan, ...beyond], (id) => isExplaining(markOf(id))),
      byHand: count([...onPlan, ...beyond], (id) => markOf(id) === "did"),
      notPlanned: count(beyond, (id) => !isExplaining(markOf(id))),
    };
  };
  it("agrees with counting one by one, for any marks", () => {
    const anyMark = fc.tuple(fc.nat(topics.length - 1), fc.constantFrom(...marks));
    fc.assert(
      fc.property(fc.array(anyMark, { maxLength: 60 }), (list) => {
        const entries = list.map(([topic, as], n) => mark(n, topics[topic]!.id, as));
        expect(countTopics(content, foldWalk(entries))).toEqual(slowly(entries));
      }),
      { seed: 9 },
    );
    expect(onPlan.length).toBeLessThan(topics.length);
  });

  it("says who walked it by the marks, not by who made it ready", () => {
    const ready: Entry = { ...base(1), by: "tobin", kind: "ready", check: "fuel", ok: true };
    const theirs = { ...mark(3, "horn", "told"), by: "corwin" } as Entry;
    expect(listWalkers(foldWalk([ready, mark(2, "lanyard", "did"), theirs]))).toEqual(["nessa", "corwin"]);
  });
});

const noon = "2026-06-01T12:00:00.000Z";
it.each([
  ["as it was received", "2026-06-01T11:58:00.000Z", {}, {}, "fits"],
  ["hours before, kept without signal", "2026-06-01T08:00:00.000Z", {}, {}, "offline"],
  ["years before", "2024-01-01T00:00:00.000Z", {}, {}, "off"],
  ["years after", "2099-01-01T00:00:00.000Z", {}, {}, "off"],
  [
    "by a clock a day behind that was put right",
    "2026-06-01T11:59:00.000Z",
    { clockMs: 864e5 },
    { offsetMs: 864e5 },
    "fits",
  ],
  ["by a clock a day behind, not put right", "2026-05-31T11:59:00.000Z", {}, { offsetMs: 864e5 }, "off"],
  ["put right by what no clock was off", "2026-06-01T08:00:00.000Z", { clockMs: -144e5 }, { offsetMs: 0 }, "off"],
] as const)("a time %s is judged by what was measured", (_, at, entry, receipt, judged) => {
  expect(judgeTime({ at, ...entry }, { receivedAt: noon, ...receipt })).toBe(judged);
});
it("of an entry whose receipt was not noted is not doubted", () => {
  expect(judgeTime({ at: "2099-01-01T00:00:00.000Z" }, { receivedAt: null })).toBe("fits");
});

describe("a photo's id", () => {
  it("holds the hash of its bytes, so that no others may stand under it; old ones say nothing", () => {
    const sha = "ab".repeat(32);
    for (const of of ["staff", "owner"] as const) {
      const id = createPhotoId(sha, of);
      expect([isPhotoOf(id, sha), isPhotoOf(id, "cd".repeat(32))]).toEqual([true, false]);
    }
    expect(createPhotoId(sha, "staff")).not.toBe(createPhotoId(sha, "owner"));
    expect(isPhotoOf("01hzzzzzzzzzzzzzzzzzzzzzzz", sha)).toBe(true);
  });
});
