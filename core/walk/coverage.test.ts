import { describe, expect, it } from "vitest";
import { topics } from "../../content/index.ts";
import type { Entry } from "./entry.ts";
import { foldWalk, listOpenTopics } from "./index.ts";

const must = topics.find((topic) => topic.must && topic.level === "done")!;
const people = [{ id: "b1" }, { id: "b2" }];
const mark = (n: number, person: string | null, how: "told" | "shown" | "did"): Entry => ({
  id: `01HZZZZZZZZZZZZZZZZZZZZZZ${n}`,
  delivery: "d-1",
  at: `2026-06-01T10:00:0${n}.000Z`,
  by: "nessa",
  device: "t1",
  kind: "mark",
  topic: must.id,
  mark: how,
  person,
  spentS: 1,
});
const openFor = (entries: Entry[], attending = people) =>
  listOpenTopics([must], foldWalk(entries), attending).map(({ why, missing }) => [why, missing]);

describe("a must that is to be done by their own hands", () => {
  it.each<[string, Entry[], unknown[]]>([
    ["each did together", [mark(1, null, "did")], []],
    ["one alone did", [mark(1, "b1", "did")], [["not-each", ["b2"]]]],
    ["one was only shown", [mark(1, "b2", "shown"), mark(2, "b1", "did")], [["not-each", ["b2"]]]],
    ["each did, one after the other", [mark(1, "b2", "did"), mark(2, "b1", "did")], []],
    ["was shown to all", [mark(1, null, "shown")], [["short", undefined]]],
  ])("that %s is open for whoever has not", (_, entries, open) => {
    expect(openFor(entries)).toEqual(open);
  });

  it("is open for nobody in particular where nobody is asked about, as in walks that began before", () => {
    expect(openFor([mark(1, "b1", "did")], [])).toEqual([]);
  });
});
