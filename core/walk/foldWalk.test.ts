import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { listTopicsFor } from "../route/index.ts";
import {
  type Entry,
  entrySchema,
  foldWalk,
  isCovered,
  listObstacles,
  listOpenTopics,
  listOwed,
  marks,
} from "./index.ts";

const rig = rigTemplates["wending-23"];
const topics = listTopicsFor(rig, library);
const letters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
const idOf = (n: number) => `01${"0".repeat(20)}${[15, 10, 5, 0].map((bit) => letters[(n >> bit) & 31]).join("")}`;
const base = (n: number) => ({
  id: idOf(n),
  delivery: "d-1",
  at: new Date(1_700_000_000_000 + n * 1000).toISOString(),
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
    const lanyard = topics.find(({ id }) => id === "lanyard")!;
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
      "later: Plotter and sounder: four pages: by phone",
      "must: Flush through the port: no water here",
      "snag: gauge low",
    ]);
    const settled = owed.map(({ ref }, i): Entry => ({ ...base(100 + i), kind: "settle", ref, note: "done" }));
    expect(listOwed(topics, rig.gear, foldWalk([...entries, ...settled]))).toEqual([]);
  });

  it("names every obstacle of an untouched handover, and none of a finished one", () => {
    expect(listObstacles(topics, rig, foldWalk([])).map(({ code }) => code)).toEqual([
      "must-open",
      "gear-uncounted",
      "hours-unread",
      "unsigned",
    ]);
    let n = 0;
    const sign = (role: "buyer" | "staff"): Entry => ({
      ...base(n++),
      kind: "sign",
      role,
      name: "Dov Anselm",
      width: 300,
      height: 100,
      strokes: [[1, 1, 2, 2]],
    });
    const done: Entry[] = [
      ...topics.map(({ id }) => mark(n++, id, "did")),
      ...rig.gear.map(({ id, count }): Entry => ({ ...base(n++), kind: "gear", item: id, count })),
      ...rig.engines.map(({ id }): Entry => ({ ...base(n++), kind: "hours", engine: id, hours: 1 })),
      sign("buyer"),
      sign("staff"),
    ];
    expect(listObstacles(topics, rig, foldWalk(done))).toEqual([]);
    const stopping: Entry = { ...base(n++), kind: "snag", topic: null, note: "leak", stops: true };
    expect(listObstacles(topics, rig, foldWalk([...done, stopping])).map(({ code }) => code)).toEqual([
      "stopping-snag",
    ]);
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
