import { describe, expect, it } from "vitest";
import type { Plan } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import { type Entry, foldWalk } from "../../core/walk/index.ts";
import { signStations } from "./signs.ts";

const topics = ["a", "b", "c", "d"].map((id) => ({ id }) as Topic);
const plan = {
  visits: [
    { station: "helm", topics: ["a"] },
    { station: "bow", topics: ["b"] },
    { station: "helm", topics: ["c", "d"] },
  ],
} as Plan;

const base = (n: number) => ({
  id: `01HZZZZZZZZZZZZZZZZZZZZZZ${n}`,
  delivery: "d",
  at: `2026-06-01T10:00:0${n}.000Z` as const,
  by: "nessa",
  device: "t",
});
const mark = (n: number, topic: string): Entry => ({
  ...base(n),
  kind: "mark",
  topic,
  mark: "did",
  person: null,
  spentS: 1,
});
const signsAfter = (entries: Entry[], stop: number | null = null) =>
  signStations(plan, topics, foldWalk(entries), stop);

describe("signStations", () => {
  it("numbers a station by its first stop while that is ahead", () => {
    const signs = signsAfter([]);
    expect(signs.get("helm")).toMatchObject({ number: 1, look: "ahead" });
    expect(signs.get("bow")).toMatchObject({ number: 2, look: "ahead" });
  });

  it("goes on to the next stop at the same station when the first is done", () => {
    expect(signsAfter([mark(1, "a")]).get("helm")).toMatchObject({ number: 3, look: "ahead" });
  });

  it("keeps the last number when all is done there", () => {
    const signs = signsAfter([mark(1, "a"), mark(2, "c"), mark(3, "d")]);
    expect(signs.get("helm")).toMatchObject({ number: 3, look: "done" });
    expect(signs.get("bow")).toMatchObject({ look: "ahead" });
  });

  it("shows where one stands, whatever else is open there", () => {
    expect(signsAfter([], 2).get("helm")).toMatchObject({ number: 3, look: "current" });
    expect(signsAfter([], 0).get("helm")).toMatchObject({ number: 1, look: "current" });
  });

  it("marks a snag at its station until it is settled", () => {
    const snag: Entry = { ...base(4), kind: "snag", topic: "c", note: "loose", stops: false };
    expect(signsAfter([snag]).get("helm")?.hasSnag).toBe(true);
    expect(signsAfter([snag]).get("bow")?.hasSnag).toBe(false);
    const settle: Entry = { ...base(5), kind: "settle", ref: snag.id, note: "tightened" };
    expect(signsAfter([snag, settle]).get("helm")?.hasSnag).toBe(false);
  });
});
