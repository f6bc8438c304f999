import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import type { Entry, EntryKind } from "./entry.ts";
import { type EntryQuestion, findEntryFault, mayEnter, roles, usualAllowers, whoMayEnter } from "./index.ts";

const rig = rigTemplates["wending-23"];
const base = {
  id: "01HZZZZZZZZZZZZZZZZZZZZZZZ",
  delivery: "d-1",
  at: "2026-06-01T10:00:00.000Z",
  by: "nessa",
  device: "t1",
} as const;
const enter = (kind: EntryKind, more: object): Entry => ({ ...base, kind, ...more }) as unknown as Entry;
const sign = enter("sign", { role: "buyer", person: "b1", name: "Dov", width: 1, height: 1, strokes: [] });
const question = (change: Partial<EntryQuestion> = {}): EntryQuestion => ({
  delivery: "d-1",
  author: { id: "nessa", role: "delivery" },
  allowers: ["owner"],
  isRemote: false,
  isSealed: false,
  buyers: [{ id: "b1" }],
  rig,
  makeReady: [{ id: "fuel" }],
  arrival: [{ id: "hull" }],
  isTopic: (id) => library.some((topic) => topic.id === id),
  all: new Map<string, Entry>([[base.id, sign]]),
  present: new Set(["guest-1"]),
  isSnapshot: (sha256) => sha256 === "known",
  isForeign: (sha256) => sha256 === "another boat's",
  ...change,
});
const fault = (entry: Entry, change?: Partial<EntryQuestion>) => {
  const found = findEntryFault(entry, question(change));
  return found === null ? null : [found.code, found.field];
};
const mark = (more: object) => enter("mark", { topic: "lanyard", mark: "did", person: null, spentS: 1, ...more });

describe("an entry", () => {
  it.each<[string, Entry, [string, string] | null]>([
    ["of this walk", mark({}), null],
    ["whose words are another boat's", mark({ snapshot: "another boat's" }), ["unknown-snapshot", "snapshot"]],
    ["a start with another boat's", enter("start", { snapshot: "another boat's" }), ["unknown-snapshot", "snapshot"]],
    ["a change to another boat's", enter("update", { next: "another boat's" }), ["unknown-snapshot", "next"]],
    ["for a buyer", mark({ person: "b1" }), null],
    ["for somebody who came along", mark({ person: "guest-1" }), null],
    ["for nobody who is there", mark({ person: "b9" }), ["invalid-input", "person"]],
    ["of another delivery", mark({ delivery: "d-2" }), ["wrong-delivery", "delivery"]],
    ["made by another", mark({ by: "tobin" }), ["not-your-entry", "by"]],
    ["about a topic nobody knows", mark({ topic: "rudder-song" }), ["unknown-topic", "topic"]],
    ["a call about none", enter("call", { topic: null, note: "?" }), null],
    ["a photo of what is not there", enter("photo", { photo: "p", topic: null, ref: "no" }), ["unknown-ref", "ref"]],
    ["settling what is not there", enter("settle", { ref: "no", note: "" }), ["unknown-ref", "ref"]],
    ["an unknown snapshot", enter("update", { next: "other" }), ["unknown-snapshot", "next"]],
    ["a known snapshot", enter("update", { next: "known" }), null],
    ["an empty signature", sign, ["no-signature", "strokes"]],
    ["a check that is not on this boat", enter("ready", { check: "sails", ok: true }), ["invalid-input", "check"]],
    ["a look at what arrived", enter("inspect", { check: "hull", ok: true }), null],
    ["gear that was not sold with it", enter("gear", { item: "sextant", count: 1 }), ["invalid-input", "item"]],
    ["hours of an engine it has not", enter("hours", { engine: "third", hours: 1 }), ["invalid-input", "engine"]],
    ["a measure of nothing", enter("measure", { item: "mast", value: 1 }), ["invalid-input", "item"]],
    [
      "a snag with a day to come",
      enter("snag", { topic: null, note: "x", stops: false, how: "by-date" }),
      ["needs-date", "due"],
    ],
    [
      "a snag that puts right what is no snag",
      enter("snag", { topic: null, note: "x", stops: false, corrects: base.id }),
      ["unknown-ref", "corrects"],
    ],
    ["a remote mark from the yard", enter("remote", { topic: "lanyard", as: "done" }), ["not-allowed", "kind"]],
  ])("%s", (_, entry, expected) => {
    expect(fault(entry)).toEqual(expected);
  });

  it("takes a signature back only where it was given, until it is sealed", () => {
    const undo = (more: object) => enter("undo", { ref: base.id, ...more });
    expect(fault(undo({}))).toBeNull();
    expect(fault(undo({ device: "t2" }))).toEqual(["not-yours-to-undo", "ref"]);
    expect(fault(undo({ device: "t2" }), { isSealed: true })).toBeNull();
  });

  it("that not everybody may make is refused with who may", () => {
    const allow = enter("allow", { reason: "owner waits" });
    expect(findEntryFault(allow, question())).toMatchObject({ code: "not-allowed", facts: { admits: ["owner"] } });
    expect(fault(allow, { author: { id: "nessa", role: "owner" } })).toBeNull();
    const ask = enter("ask", { topic: null, note: "how do I flush it?" });
    expect(fault(ask, { author: { id: "nessa", role: "owner-page" } })).toBeNull();
    expect(fault(mark({}), { author: { id: "nessa", role: "owner-page" } })).toEqual(["not-allowed", "kind"]);
  });
});

describe("who may enter what", () => {
  it("is everybody, but for closing and letting an unready boat go", () => {
    expect(whoMayEnter("mark", usualAllowers)).toEqual(roles);
    expect(whoMayEnter("close", usualAllowers)).toEqual(["owner", "sales", "delivery"]);
    expect(mayEnter("close", "technician", usualAllowers)).toBe(false);
    expect(mayEnter("remote", "owner-page", usualAllowers)).toBe(true);
    expect(mayEnter("close", "owner-page", usualAllowers)).toBe(false);
    expect(mayEnter("allow", "service", usualAllowers)).toBe(false);
    expect(mayEnter("allow", "service", ["owner", "service"])).toBe(true);
    expect(mayEnter("allow", "owner-page", ["owner"])).toBe(false);
  });
});
