import { describe, expect, it } from "vitest";
import { z } from "zod";
import { compute, contractNames, contracts, formatIssues, isContractName } from "./compute.ts";

describe("the register", () => {
  it("lists only what is built, and nothing inherited", () => {
    expect(contractNames).toEqual([
      "breakin-plan",
      "breakin-trace",
      "diagnose",
      "due",
      "endurance",
      "gear",
      "hours-forecast",
      "live",
      "ramp",
      "route",
      "tow",
      "trip",
      "visits",
    ]);
    expect(isContractName("route")).toBe(true);
    expect(isContractName("toString")).toBe(false);
    expect(isContractName("sail")).toBe(false);
  });

  it.each(contractNames)("%s has an input schema that can be published", (name) => {
    const schema = z.toJSONSchema(contracts[name].input, { io: "input" });
    expect(schema).toMatchObject({ type: "object", additionalProperties: false });
  });

  it.each([null, 1, "text", [], {}, { stations: null }, { items: [{}] }])("refuses %j without throwing", (raw) => {
    for (const name of contractNames) {
      const answer = compute(name, raw);
      expect(answer.ok).toBe(false);
      if (!answer.ok) expect(answer.error.code).toBe("invalid-input");
    }
  });

  it("gives answers that its own output schema takes", () => {
    const answer = compute("due", {
      inService: "2024-01-01",
      today: "2024-06-01",
      hoursNow: 3,
      monthlyHours: Array.from({ length: 12 }, () => 2),
      items: [{ id: "oil", firstH: 20, everyH: 100, everyMonths: 12 }],
      done: [],
    });
    expect(answer.ok && contracts.due.output.safeParse(answer.value).success).toBe(true);
  });
});

describe("route's input", () => {
  const good = {
    stations: [{ id: "a" }, { id: "b" }],
    moveMin: [
      [0, 1],
      [1, 0],
    ],
    topics: [{ id: "x", station: "a", minutes: 1, after: [], must: false, value: 1 }],
  };
  const issuesOf = (change: object) => {
    const answer = compute("route", { ...good, ...change });
    if (answer.ok) return [];
    return (answer.error.issues as { path: string; message: string }[]).map(
      ({ path, message }) => `${path}: ${message}`,
    );
  };
  const topic = (change: object) => ({ topics: [{ ...good.topics[0], ...change }] });
  it.each([
    [{ moveMin: [[0, 1]] }, "moveMin: must have 2 rows"],
    [{ moveMin: [[0, 1], [1]] }, "moveMin[1]: must have 2 columns"],
    [
      {
        moveMin: [
          [0, -1],
          [1, 0],
        ],
      },
      "moveMin[0][1]:",
    ],
    [{ stations: [{ id: "a" }, { id: "a" }] }, 'stations[1].id: "a" is used twice'],
    [{ start: "c" }, 'start: no station "c"'],
    [{ end: "c" }, 'end: no station "c"'],
    [{ budgetMin: -1 }, "budgetMin:"],
    [topic({ station: "z" }), 'topics[0].station: no station "z"'],
    [topic({ after: ["z"] }), 'topics[0].after[0]: no topic "z"'],
    [topic({ minutes: "1" }), "topics[0].minutes:"],
    [topic({ extra: 1 }), "topics[0]: Unrecognized key"],
    [{ topics: [...good.topics, ...good.topics] }, 'topics[1].id: "x" is used twice'],
  ])("%j says where: %s", (change, words) => {
    expect(issuesOf({})).toEqual([]);
    expect(issuesOf(change).some((issue) => issue.startsWith(words))).toBe(true);
  });
});

describe("formatIssues", () => {
  it("writes paths as a.b[2]", () => {
    const schema = z.object({ a: z.object({ b: z.array(z.number()) }) });
    const { error } = schema.safeParse({ a: { b: [1, 2, "x"] } });
    expect(formatIssues(error!)[0]!.path).toBe("a.b[2]");
  });
});
