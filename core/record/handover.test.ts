import { createHash } from "node:crypto";
import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { writeJson } from "../hash/index.ts";
import { findStyle, listTopicsFor, planWalk } from "../route/index.ts";
import type { Entry } from "../walk/index.ts";
import { type Handover, handoverSchema, writeCanonical } from "./index.ts";

const rig = rigTemplates["wending-23"];
const planned = planWalk(rig, library, findStyle("sweep"));
if (!planned.ok) throw new Error(planned.error.message);

const entry = (n: number): Entry => ({
  id: `01HZZZZZZZZZZZZZZZZZZZZZZ${n}`,
  delivery: "d-1",
  at: `2026-06-01T10:00:0${n}.000Z`,
  by: "nessa",
  device: "t",
  kind: "amend",
  note: `note ${n}`,
});
const handover: Handover = handoverSchema.parse({
  format: "ravik.handover/1",
  delivery: "d-1",
  store: "Pellow & Marr",
  date: "2026-06-01",
  hull: "SLW23118K526",
  rig,
  buyers: [{ id: "b1", name: "Dov Anselm" }],
  staff: [{ id: "nessa", name: "Nessa Quill" }],
  plan: planned.value,
  topics: listTopicsFor(rig, library),
  entries: [entry(2), entry(1), entry(3)],
  sealedBy: "nessa",
  sealedAt: "2026-06-01T12:00:00.000Z",
});
const hash = (text: string) => createHash("sha256").update(text).digest("hex");

describe("writeCanonical", () => {
  it("is the same whatever order keys and entries came in", () => {
    const shuffled = Object.fromEntries(Object.entries(handover).reverse()) as Handover;
    expect(writeCanonical({ ...shuffled, entries: [...handover.entries].reverse() })).toBe(writeCanonical(handover));
  });

  it("is what RFC 8785 makes of the whole, with parts written ahead or not", () => {
    const sorted = { ...handover, entries: [...handover.entries].sort((a, b) => (a.id < b.id ? -1 : 1)) };
    const whole = writeJson(sorted);
    expect(writeCanonical(handover)).toBe(whole);
    const ahead = { rig: writeJson(handover.rig), topics: writeJson(handover.topics) };
    expect(writeCanonical(handover, ahead)).toBe(whole);
    expect(writeCanonical({ ...handover, boatName: undefined } as never)).toBe(whole);
  });

  it("reads back as what was sealed", () => {
    const back = handoverSchema.parse(JSON.parse(writeCanonical(handover)));
    expect(back.entries.map(({ id }) => id)).toEqual([entry(1).id, entry(2).id, entry(3).id]);
    expect(back.topics).toEqual(handover.topics);
  });

  it("changes its hash with one letter of one note", () => {
    const changed = { ...handover, entries: [entry(1), entry(2), { ...entry(3), note: "note 4" }] };
    expect(hash(writeCanonical(changed))).not.toBe(hash(writeCanonical(handover)));
  });

  it("holds the wording that was used", () => {
    for (const topic of handover.topics) expect(writeCanonical(handover)).toContain(JSON.stringify(topic.say));
  });

  it("sorts keys and writes no spaces, as RFC 8785 asks", () => {
    const text = writeCanonical(handover);
    expect(text.startsWith('{"buyers":[{"id":"b1","name":"Dov Anselm"}],"date":')).toBe(true);
    expect(Object.keys(JSON.parse(text))).toEqual(Object.keys(JSON.parse(text)).sort());
  });

  it("refuses a record with an unknown field", () => {
    expect(handoverSchema.safeParse({ ...handover, extra: 1 }).success).toBe(false);
  });
});
