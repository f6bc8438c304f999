import { createHash, generateKeyPairSync, sign } from "node:crypto";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { writeJson } from "../hash/index.ts";
import { createRandom } from "../random.ts";
import { regions } from "../region/index.ts";
import { defaultPlanOptions, findStyle, listTopicsFor, planWalk } from "../route/index.ts";
import { isSignedWith } from "../signature/index.ts";
import { fillTopic } from "../topic/index.ts";
import type { Entry } from "../walk/index.ts";
import { foldWalk } from "../walk/index.ts";
import {
  compareSnapshots,
  firstLink,
  formatDifference,
  hashSigned,
  mergeSnapshots,
  openSealed,
  type Receipt,
  resolveTopics,
  type SealedAmendment,
  type SealedBundle,
  type SealedHandover,
  type Snapshot,
  saltParts,
  sealedBundleSchema,
  sealSnapshot,
  snapshotSchema,
  verifyBundle,
  writeLink,
} from "./index.ts";

const hash = (text: string) => createHash("sha256").update(text, "utf8").digest("hex");
const rig = rigTemplates["pipit-15"];
const topics = listTopicsFor(rig, library).slice(0, 8);
const planned = planWalk(rig, topics, findStyle("sweep"));
if (!planned.ok) throw new Error(planned.error.code);
const snapshot: Snapshot = snapshotSchema.parse({
  format: "ravik.snapshot/1",
  boatName: "Pipit 15",
  hull: "SLW23118K526",
  language: "en",
  rig,
  topics,
  methods: {},
  planOptions: { ...defaultPlanOptions, style: "sweep" },
  plan: planned.value,
  makeReady: [],
  arrival: [],
  packs: { breakIn: [], service: [] },
});
const named = sealSnapshot(snapshot, hash);
const entry = (n: number, note = `note ${n}`): Entry => ({
  id: `01HZZZZZZZZZZZZZZZZZZZZZ${String(n).padStart(2, "0")}`,
  delivery: "d-1",
  at: `2026-06-01T10:00:${String(n % 60).padStart(2, "0")}.000Z`,
  by: "nessa",
  device: "t",
  kind: "amend",
  note,
});
const receipt = (n: number): Receipt => ({ receivedAt: "2026-06-01T11:00:00.000Z", number: n + 1, via: "staff" });
const random = createRandom(5);
const createSalt = () => Array.from({ length: 32 }, () => Math.floor(random() * 16).toString(16)).join("");
const keys = generateKeyPairSync("ed25519");
const key = keys.publicKey.export({ type: "spki", format: "der" }).subarray(-32).toString("hex");
const photo = { id: "p-1", sha256: hash("picture"), sent: hash("sent"), width: 100, height: 80 };

const parts = saltParts(
  {
    people: [
      { id: "b1", name: "Dov Anselm", role: "buyer" },
      { id: "nessa", name: "Nessa Quill", role: "staff" },
    ],
    entries: Array.from({ length: 12 }, (_, n) => ({ entry: entry(n), receipt: receipt(n) })),
    photos: [photo],
  },
  hash,
  createSalt,
);
const handover: SealedHandover = {
  format: "ravik.handover/2",
  delivery: "d-1",
  store: "Pellow & Marr",
  storeKey: key,
  date: "2026-06-01",
  hull: snapshot.hull,
  boatName: snapshot.boatName,
  snapshot: named.sha256,
  snapshots: [named.sha256],
  people: parts.people,
  entries: parts.entries,
  photos: parts.photos,
  sealedBy: "nessa",
  sealedAt: "2026-06-01T12:00:00.000Z",
};
const sha256 = hash(writeJson(handover));
type Second<F> = Extract<F, { format: `${string}/2` }>;
function createAmendment(previous: string, n: number, more: Partial<Second<SealedAmendment>> = {}) {
  const added = saltParts(
    { people: [], entries: n < 0 ? [] : [{ entry: entry(n), receipt: receipt(n) }], photos: [] },
    hash,
    createSalt,
  );
  const amendment: Second<SealedAmendment> = {
    format: "ravik.amendment/2",
    delivery: "d-1",
    previous,
    at: "2026-06-02T09:00:00.000Z",
    why: "added",
    entries: added.entries,
    photos: [],
    ...more,
  };
  return { amendment, content: added.content, sha256: hash(writeJson(amendment)) };
}
function signed<B extends SealedBundle>(bundle: B): B {
  const signs = hashSigned(bundle, hash);
  return {
    ...bundle,
    signature: { key, signs, signature: sign(null, Buffer.from(signs), keys.privateKey).toString("hex") },
  };
}
const first = createAmendment(sha256, 50);
const bundle = signed<Second<SealedBundle>>({
  format: "ravik.bundle/2",
  sha256,
  handover,
  content: parts.content,
  snapshots: { [named.sha256]: snapshot },
  amendments: [first, createAmendment(first.sha256, 51)],
  chain: { number: 1, previous: firstLink, link: hash(writeLink(firstLink, sha256)) },
});
const changed = (change: (copy: Second<SealedBundle>) => void): Second<SealedBundle> => {
  const copy = structuredClone(bundle);
  change(copy);
  return copy;
};
const codes = (value: unknown, known = {}) => verifyBundle(value, hash, known).differences.map(({ code }) => code);

describe("ravik.bundle/2", () => {
  it("is intact through JSON and back, by whatever hash function, and says whose it is", () => {
    const back = JSON.parse(JSON.stringify(Object.fromEntries(Object.entries(bundle).reverse())));
    expect(sealedBundleSchema.safeParse(back).error?.issues ?? []).toEqual([]);
    expect(verifyBundle(back)).toMatchObject({ isIntact: true, sha256, signedBy: { store: "Pellow & Marr", key } });
    expect(codes(bundle, { photos: new Map([["p-1", photo.sha256]]) })).toEqual([]);
  });

  it.each<[string, (copy: SealedBundle) => void, string[]]>([
    [
      "an entry reworded",
      (b) => Object.assign((b.content.entries[entry(3).id] as { value: object }).value, { note: "x" }),
      ["entry-changed"],
    ],
    ["an entry left out", (b) => delete b.content.entries[entry(3).id], ["entry-missing"]],
    [
      "an entry put in",
      (b) => Object.assign(b.content.entries, { [entry(60).id]: { salt: createSalt(), value: entry(60) } }),
      ["entry-added"],
    ],
    [
      "an entry under another's id",
      (b) => Object.assign(b.content.entries[entry(3).id]!, (b.content.entries as Record<string, object>)[entry(4).id]),
      ["entry-changed"],
    ],
    ["a name changed", (b) => Object.assign(b.content.people.b1!, { value: "Somebody else" }), ["part-changed"]],
    [
      "a time of receipt changed",
      (b) => Object.assign(b.handover.entries[0]!, { receivedAt: "2026-05-01T00:00:00.000Z" }),
      ["part-changed"],
    ],
    [
      "the words of a topic changed",
      (b) => Object.assign(b.snapshots[named.sha256]!.topics[0]!, { say: "Nothing." }),
      ["part-changed"],
    ],
    [
      "an entry of an addition changed",
      (b) =>
        Object.assign((Object.values(b.amendments[0]!.content.entries)[0] as { value: object }).value, { note: "x" }),
      ["entry-changed"],
    ],
    ["the last addition cut off", (b) => b.amendments.pop(), ["signature-wrong"]],
    [
      "something struck that nobody struck",
      (b) => Object.assign(b.content.entries, { [entry(3).id]: { struck: true } }),
      ["entry-missing"],
    ],
    ["a signature of another key", (b) => Object.assign(b.signature!, { key: "a".repeat(64) }), ["signature-wrong"]],
  ])("finds %s", (_, change, found) => {
    const { isIntact, differences } = verifyBundle(changed(change), hash);
    expect(isIntact).toBe(false);
    expect(differences.map(({ code }) => code)).toEqual(found);
    for (const each of differences) expect(formatDifference(each)).not.toMatch(/undefined|\[object/);
  });

  it("finds any single letter changed anywhere in it", () => {
    const text = JSON.stringify(bundle);
    fc.assert(
      fc.property(fc.nat(text.length - 1), (at) => {
        const was = text[at]!;
        if (!/[a-z0-9]/i.test(was)) return;
        const other = /\d/.test(was) ? String((Number(was) + 1) % 10) : was === "a" ? "b" : "a";
        let value: unknown;
        try {
          value = JSON.parse(text.slice(0, at) + other + text.slice(at + 1));
        } catch {
          return;
        }
        expect(verifyBundle(value, hash).isIntact, `at ${at}`).toBe(false);
      }),
      { seed: 11, numRuns: 60 },
    );
  });

  it("still verifies when a person's data was struck by an addition of the store", () => {
    const last = bundle.amendments.at(-1)!;
    const struck = {
      parts: [
        { part: "entry" as const, id: entry(3).id },
        { part: "person" as const, id: "b1" },
        { part: "photo" as const, id: "p-1" },
      ],
      by: "odile",
      reason: "Asked to be forgotten",
    };
    const strike = createAmendment(last.sha256, -1, { why: "struck", struck });
    const { signature: _, ...rest } = changed((copy) => {
      copy.content.entries[entry(3).id] = { struck: true };
      copy.content.people.b1 = { struck: true };
      copy.content.photos["p-1"] = { struck: true };
    });
    const after = signed({ ...rest, amendments: [...rest.amendments, strike] });
    expect(verifyBundle(after, hash, { photos: new Map() })).toMatchObject({ isIntact: true, differences: [] });
    const opened = openSealed(after.handover, after.content, new Map([[named.sha256, snapshot]]));
    expect(opened.entries).toHaveLength(11);
    expect(opened.people.map(({ name }) => name)).toEqual(["(struck)", "Nessa Quill"]);
    expect(JSON.stringify(after)).not.toContain("Dov Anselm");
  });

  it("does not let a name be guessed from its hash", () => {
    expect(JSON.stringify(handover)).not.toContain(hash(writeJson("Dov Anselm")));
  });

  it.each<[string, unknown]>([
    ["nothing", null],
    ["null entries", { ...bundle, handover: { ...handover, entries: [null] } }],
    ["a list", []],
    ["a number", 7],
    ["entries that are none", { format: "ravik.bundle/1", sha256, handover: { entries: [null, 3] } }],
    ["amendments that are none", { format: "ravik.bundle/1", sha256, handover: { entries: [] }, amendments: [null] }],
    ["half a character", { ...bundle, sha256: "\ud800" }],
    ["twenty thousand levels", Array.from({ length: 20_000 }).reduce<unknown>((inner) => [inner], "x")],
  ])("of %s says in words that it cannot be read", (_, value) => {
    const { isIntact, differences } = verifyBundle(value, hash);
    expect(isIntact).toBe(false);
    expect(differences[0]!.code).toBe("not-readable");
    expect(formatDifference(differences[0]!).length).toBeGreaterThan(20);
  });
});

it("a signature of the store is checked in plain JavaScript as by every other program", () => {
  const made = sign(null, Buffer.from("Zoë"), keys.privateKey).toString("hex");
  expect(isSignedWith(key, "Zoë", made)).toBe(true);
  expect(isSignedWith(key, "Zoe", made)).toBe(false);
  expect(isSignedWith("0".repeat(64), "Zoë", made)).toBe(false);
  expect(isSignedWith(key, "Zoë", "00")).toBe(false);
});

describe("snapshots", () => {
  const [one, two, three] = topics as [
    Snapshot["topics"][number],
    Snapshot["topics"][number],
    Snapshot["topics"][number],
  ];
  const reworded = {
    ...snapshot,
    topics: topics.map((topic) =>
      topic.id === one.id || topic.id === two.id ? { ...topic, say: "Otherwise." } : topic,
    ),
  };

  it("have a name that does not depend on the order of keys, and changes with one word", () => {
    const shuffled = Object.fromEntries(Object.entries(snapshot).reverse()) as Snapshot;
    expect(sealSnapshot(shuffled, hash).sha256).toBe(named.sha256);
    expect(sealSnapshot(reworded, hash).sha256).not.toBe(named.sha256);
    expect(snapshotSchema.parse(JSON.parse(named.text))).toEqual(snapshot);
  });

  it("say what has changed, but not of what was explained, and not for minutes learned overnight", () => {
    expect(compareSnapshots(snapshot, reworded, new Set([one.id])).topics).toEqual([
      { topic: two.id, title: two.title, what: "reworded" },
    ]);
    const slower = { ...snapshot, topics: topics.map((topic) => ({ ...topic, minutes: topic.minutes + 1 })) };
    expect(compareSnapshots(snapshot, slower, new Set())).toEqual({ topics: [], isBoatChanged: false });
    const fewer = { ...snapshot, topics: topics.slice(1), rig: { ...rig, model: "Pipit 16" } };
    expect(compareSnapshots(snapshot, fewer, new Set())).toEqual({
      topics: [{ topic: one.id, title: one.title, what: "gone" }],
      isBoatChanged: true,
    });
    expect(compareSnapshots(fewer, snapshot, new Set()).topics).toMatchObject([{ what: "added" }]);
    const must = {
      ...snapshot,
      topics: topics.map((topic) => (topic.id === three.id ? { ...topic, must: !topic.must } : topic)),
    };
    expect(compareSnapshots(snapshot, must, new Set()).topics).toMatchObject([
      { what: three.must ? "no-must" : "now-must" },
    ]);
  });

  it("go on with what was explained as it was said, also where the boat no longer has it", () => {
    const without = { ...reworded, topics: reworded.topics.slice(1) };
    const merged = mergeSnapshots(snapshot, without, new Set([one.id]));
    const words = new Map(merged.topics.map((topic) => [topic.id, topic.say]));
    expect([words.get(one.id), words.get(two.id)]).toEqual([one.say, "Otherwise."]);
    const order = merged.plan.visits.flatMap((visit) => visit.topics);
    expect(order[0]).toBe(one.id);
    expect(new Set(order).size).toBe(order.length);
    expect(snapshotSchema.safeParse(merged).success).toBe(true);
  });

  it("hold the words as a boat fills them, however many batteries it has, and also where they fill with nothing", () => {
    const battery = rig.parts.find(({ kind }) => kind === "battery")!;
    const many = Array.from({ length: 30 }, (_, i) => ({
      ...battery,
      id: `b${i}`,
      label: `House battery number ${i}`,
    }));
    const full = { ...rig, parts: [...rig.parts.filter(({ kind }) => kind !== "battery"), ...many] };
    const told = topics.map((topic) =>
      fillTopic({ ...topic, say: "Here: {each:battery}.", wrong: "{if:windlass?Let go.}" }, full, regions.us),
    );
    expect(told[0]!.say.length).toBeGreaterThan(400);
    expect(snapshotSchema.safeParse({ ...snapshot, topics: told }).error).toBeUndefined();
  });

  it("give each topic the words that were heard, by the snapshot its mark names", () => {
    const marked = (topic: string, sha: string, n: number) =>
      ({
        ...entry(n),
        kind: "mark",
        topic,
        mark: "told",
        person: null,
        spentS: 1,
        snapshot: sha,
        note: undefined,
      }) as never;
    const state = foldWalk([marked(one.id, "o".repeat(64), 1), marked(two.id, named.sha256, 2)]);
    const heard = resolveTopics(reworded.topics, new Map([["o".repeat(64), snapshot.topics]]), state);
    expect(heard.slice(0, 2).map(({ say }) => say)).toEqual([one.say, "Otherwise."]);
    expect(resolveTopics(topics.slice(1), new Map([["o".repeat(64), snapshot.topics]]), state).at(-1)!.id).toBe(one.id);
  });
});
