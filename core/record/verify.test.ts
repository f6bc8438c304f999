import { createHash } from "node:crypto";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { writeJson } from "../hash/index.ts";
import { findStyle, listTopicsFor, planWalk } from "../route/index.ts";
import type { Entry } from "../walk/index.ts";
import {
  type Amendment,
  type Bundle,
  bundleSchema,
  firstLink,
  formatDifference,
  handoverSchema,
  verifyBundle,
  writeCanonical,
  writeLink,
} from "./index.ts";

const hash = (text: string) => createHash("sha256").update(text, "utf8").digest("hex");
const rig = rigTemplates["pipit-15"];
const planned = planWalk(rig, library, findStyle("sweep"));
if (!planned.ok) throw new Error(planned.error.message);

const entry = (n: number, note = `note ${n}`): Entry => ({
  id: `01HZZZZZZZZZZZZZZZZZZZZZ${String(n).padStart(2, "0")}`,
  delivery: "d-1",
  at: `2026-06-01T10:00:${String(n).padStart(2, "0")}.000Z`,
  by: "nessa",
  device: "t",
  kind: "amend",
  note,
});
const entries = Array.from({ length: 12 }, (_, n) => entry(n));
const handover = handoverSchema.parse({
  format: "ravik.handover/1",
  delivery: "d-1",
  store: "Pellow & Marr",
  date: "2026-06-01",
  hull: "SLW23118K526",
  rig,
  buyers: [{ id: "b1", name: "Dov Anselm" }],
  staff: [{ id: "nessa", name: "Nessa Quill" }],
  plan: planned.value,
  topics: listTopicsFor(rig, library).slice(0, 6),
  photos: [{ id: "p-1", sha256: hash("picture"), width: 100, height: 80 }],
  entries,
  digests: Object.fromEntries(entries.map((each) => [each.id, hash(writeJson(each))])),
  sealedBy: "nessa",
  sealedAt: "2026-06-01T12:00:00.000Z",
});
const sha256 = hash(writeCanonical(handover));
const amend = (previous: string, n: number) => {
  const amendment: Amendment = {
    format: "ravik.amendment/1",
    delivery: "d-1",
    previous,
    at: "2026-06-02T09:00:00.000Z",
    entries: [entry(n)],
  };
  return { amendment, sha256: hash(writeCanonical(amendment)) };
};
const first = amend(sha256, 50);
const bundle: Bundle = {
  format: "ravik.bundle/1",
  sha256,
  handover,
  amendments: [first, amend(first.sha256, 51)],
  chain: { number: 1, previous: firstLink, link: hash(writeLink(firstLink, sha256)) },
};
/** The bundle as a file would bring it, with one change made to it. */
const changed = (change: (copy: Bundle) => void): Bundle => {
  const copy = structuredClone(bundle);
  change(copy);
  return copy;
};
const codes = async (value: unknown, known = {}) =>
  (await verifyBundle(value, hash, known)).differences.map(({ code }) => code);

describe("verifyBundle", () => {
  it("finds what was sealed intact, through JSON and back, keys in any order", async () => {
    const back = JSON.parse(JSON.stringify(Object.fromEntries(Object.entries(bundle).reverse())));
    expect(await verifyBundle(back, hash)).toMatchObject({ isIntact: true, sha256, entries: 12, amendments: 2 });
    expect(bundleSchema.safeParse(back).success).toBe(true);
  });

  it("finds a record intact that was sealed before some parts had names, as defaults fill them in now", async () => {
    const old = structuredClone(handover) as Record<string, unknown>;
    const { broken: _, firstMust: __, ...plan } = handover.plan;
    old.plan = plan;
    const seal = hash(writeCanonical(old as never));
    const value = { format: "ravik.bundle/1", sha256: seal, handover: old, amendments: [] };
    expect(bundleSchema.safeParse(value).success).toBe(true);
    expect((await verifyBundle(value, hash)).differences).toEqual([]);
  });

  it("names exactly the entry that was changed, whichever it is", async () => {
    await fc.assert(
      fc.asyncProperty(fc.nat(11), fc.constantFrom("note", "at", "by"), async (n, field) => {
        const value = { note: "another", at: "2026-06-01T10:59:00.000Z", by: "tobin" }[field]!;
        const bad = changed(({ handover: { entries: list } }) => Object.assign(list[n]!, { [field]: value }));
        const { isIntact, differences } = await verifyBundle(bad, hash);
        expect(isIntact).toBe(false);
        expect(differences).toEqual([
          { code: "entry-changed", entry: entries[n]!.id, kind: "amend", in: "the sealed record" },
        ]);
      }),
      { seed: 3, numRuns: 30 },
    );
  });

  it("names an entry left out and one put in", async () => {
    expect(await codes(changed(({ handover: { entries: list } }) => list.splice(4, 1)))).toEqual(["entry-missing"]);
    expect(await codes(changed(({ handover: { entries: list } }) => list.push(entry(40))))).toEqual(["entry-added"]);
  });

  it("sees a change elsewhere, and names the part when the store's own copy is at hand", async () => {
    const bad = changed((copy) => Object.assign(copy.handover, { hull: "SLW23999K526" }));
    expect((await verifyBundle(bad, hash)).differences).toEqual([
      { code: "part-changed", part: null, in: "the sealed record" },
    ]);
    expect((await verifyBundle(bad, hash, { original: handover })).differences).toEqual([
      { code: "part-changed", part: "hull", in: "the sealed record" },
    ]);
  });

  it("is not deceived by digests and seal changed along with the entry, when it has the original", async () => {
    const bad = changed((copy) => {
      copy.handover.entries[2]!.at = "2026-06-01T11:00:00.000Z";
      copy.handover.digests![entries[2]!.id] = hash(writeJson(copy.handover.entries[2]));
      copy.sha256 = hash(writeCanonical(copy.handover));
      copy.amendments = [];
      delete copy.chain;
    });
    expect((await verifyBundle(bad, hash)).isIntact).toBe(true);
    expect(await codes(bad, { original: handover })).toEqual(["entry-changed", "part-changed"]);
  });

  it("holds a photo that was added later to its hash", async () => {
    const later: Amendment = {
      format: "ravik.amendment/1",
      delivery: "d-1",
      previous: bundle.amendments[1]!.sha256,
      at: "2026-06-03T09:00:00.000Z",
      entries: [],
      photos: [{ id: "p-2", sha256: hash("later"), width: 10, height: 8 }],
    };
    const grown = changed((copy) => copy.amendments.push({ amendment: later, sha256: hash(writeCanonical(later)) }));
    expect(bundleSchema.safeParse(grown).success).toBe(true);
    const hashes = (second: string) => ({
      photos: new Map([
        ["p-1", hash("picture")],
        ["p-2", hash(second)],
      ]),
    });
    expect(await codes(grown, hashes("later"))).toEqual([]);
    expect(await codes(grown, hashes("another"))).toEqual(["photo-changed"]);
    expect(await codes(grown, { photos: new Map([["p-1", hash("picture")]]) })).toEqual(["photo-missing"]);
  });

  it("sees an addition that was changed, left out or put in another's place", async () => {
    const note = changed(({ amendments }) => Object.assign(amendments[1]!.amendment.entries[0]!, { note: "other" }));
    expect(await codes(note)).toEqual(["entry-changed"]);
    expect(await codes(changed(({ amendments }) => amendments.shift()))).toEqual(["chain-broken"]);
    expect(await codes(changed(({ chain }) => Object.assign(chain!, { previous: sha256 })))).toEqual(["chain-broken"]);
  });

  it("checks photos against the record", async () => {
    const photos = (content: string | null) => ({
      photos: new Map(content === null ? [] : [["p-1", hash(content)]]),
    });
    expect(await codes(bundle, photos("picture"))).toEqual([]);
    expect(await codes(bundle, photos("another"))).toEqual(["photo-changed"]);
    expect(await codes(bundle, photos(null))).toEqual(["photo-missing"]);
  });

  it("says so of what is no handover at all", async () => {
    for (const value of [null, 7, "x", {}, { format: "ravik.bundle/1" }, { handover: null }])
      expect(await codes(value)).toEqual(["not-readable"]);
    const unreadable = changed((copy) => Object.assign(copy.handover.entries[3]!, { kind: "wish" }));
    expect(await codes(unreadable)).toEqual(["not-readable", "entry-changed"]);
  });

  it("has words for every difference", async () => {
    const bad = changed((copy) => {
      copy.handover.entries[1]!.by = "tobin";
      copy.handover.entries.splice(5, 1);
    });
    const said = (await verifyBundle(bad, hash)).differences.map(formatDifference);
    expect(said).toEqual([
      `entry ${entries[1]!.id} (amend) in the sealed record is not the one that was sealed`,
      `entry ${entries[5]!.id} is missing from the sealed record`,
    ]);
  });
});
