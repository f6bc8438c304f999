import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { createRandom } from "../random.ts";
import { type RouteInput, type RouteOutput, route } from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n");

function answer(input: RouteInput): RouteOutput {
  const result = route(input);
  if (!result.ok) throw new Error(`expected a route, got ${result.error.message}`);
  return result.value;
}

/** Checks an answer against the words of the contract, by walking it. */
function walkThrough(input: RouteInput, output: RouteOutput) {
  const told = new Set<string>();
  const byId = new Map(input.topics.map((topic) => [topic.id, topic]));
  output.visits.forEach((visit, i) => {
    if (i > 0) expect(visit.station).not.toBe(output.visits[i - 1]!.station);
    const mayBeEmpty =
      (i === 0 && visit.station === input.start) || (i === output.visits.length - 1 && visit.station === input.end);
    if (!mayBeEmpty) expect(visit.topics).not.toHaveLength(0);
    for (const id of visit.topics) {
      expect(told.has(id)).toBe(false);
      expect(byId.get(id)!.station).toBe(visit.station);
      for (const before of byId.get(id)!.after) expect(told).toContain(before);
      told.add(id);
    }
  });
  expect([...told, ...output.deferred].sort()).toEqual(input.topics.map((topic) => topic.id).sort());
  if (input.start !== undefined) expect(output.visits[0]!.station).toBe(input.start);
  if (input.end !== undefined) expect(output.visits.at(-1)!.station).toBe(input.end);
  const index = (id: string) => input.stations.findIndex((station) => station.id === id);
  const moves = closeSlowly(input.moveMin);
  let moveMin = 0;
  for (let i = 1; i < output.visits.length; i++)
    moveMin += moves[index(output.visits[i - 1]!.station)]![index(output.visits[i]!.station)]!;
  expect(output.moveMin).toBeCloseTo(moveMin, 6);
  const topicMin = [...told].reduce((sum, id) => sum + byId.get(id)!.minutes, 0);
  expect(output.topicMin).toBeCloseTo(topicMin, 6);
  expect(output.totalMin).toBeCloseTo(moveMin + topicMin, 6);
}

function closeSlowly(moveMin: number[][]): number[][] {
  let d = moveMin.map((row, i) => row.map((value, j) => (i === j ? 0 : value)));
  for (let round = 0; round < moveMin.length; round++)
    d = d.map((row, i) => row.map((value, j) => Math.min(value, ...row.map((_, via) => d[i]![via]! + d[via]![j]!))));
  return d;
}

/** Every order of the topics, told one by one; the least move time of all. Slow and obvious. */
function leastMoves(input: RouteInput, kept: RouteInput["topics"]): number {
  const moves = closeSlowly(input.moveMin);
  const index = new Map(input.stations.map((station, i) => [station.id, i]));
  const end = input.end === undefined ? null : index.get(input.end)!;
  let least = Number.POSITIVE_INFINITY;
  const go = (at: number | null, told: Set<string>, cost: number) => {
    if (cost >= least) return;
    if (told.size === kept.length) {
      least = Math.min(least, cost + (end === null || at === null ? 0 : moves[at]![end]!));
      return;
    }
    for (const topic of kept) {
      if (told.has(topic.id) || topic.after.some((id) => !told.has(id))) continue;
      const to = index.get(topic.station)!;
      go(to, new Set([...told, topic.id]), cost + (at === null ? 0 : moves[at]![to]!));
    }
  };
  go(input.start === undefined ? null : index.get(input.start)!, new Set(), 0);
  return least;
}

function bestValue(input: RouteInput): number {
  const { topics } = input;
  let best = -1;
  for (let bits = 0; bits < 1 << topics.length; bits++) {
    const kept = topics.filter((_, i) => (bits & (1 << i)) !== 0);
    const ids = new Set(kept.map((topic) => topic.id));
    if (topics.some((topic) => topic.must && !ids.has(topic.id))) continue;
    if (kept.some((topic) => topic.after.some((id) => !ids.has(id)))) continue;
    const value = kept.reduce((sum, topic) => sum + topic.value, 0);
    const minutes = kept.reduce((sum, topic) => sum + topic.minutes, 0);
    if (value <= best || minutes > input.budgetMin!) continue;
    if (leastMoves(input, kept) + minutes <= input.budgetMin! + 1e-9) best = value;
  }
  return best;
}

function randomInput(seed: number, stations: number, topics: number, crossing: number): RouteInput {
  const random = createRandom(seed);
  const places = Array.from({ length: stations }, (_, i) => ({ id: `s${i}` }));
  const input: RouteInput = {
    stations: places,
    moveMin: places.map(() => places.map(() => Math.round(random() * 40) / 8)),
    topics: Array.from({ length: topics }, (_, i) => ({
      id: `t${i}`,
      station: `s${Math.floor(random() * stations)}`,
      minutes: 1 + Math.floor(random() * 4),
      after: [] as string[],
      must: random() < 0.25,
      value: Math.floor(random() * 10),
    })),
  };
  for (let k = 0; k < crossing && topics > 1; k++) {
    const later = 1 + Math.floor(random() * (topics - 1));
    input.topics[later]!.after.push(`t${Math.floor(random() * later)}`);
  }
  if (random() < 0.4) input.start = `s${Math.floor(random() * stations)}`;
  if (random() < 0.4) input.end = `s${Math.floor(random() * stations)}`;
  return input;
}

describe("route", () => {
  it.each(cases.map((line, i) => [i, line] as const))("answers worked example %i", (_, line) => {
    const { input, output } = JSON.parse(line) as { input: RouteInput; output: RouteOutput & { error?: object } };
    const result = route(input);
    if (output.error) {
      expect(result.ok ? null : result.error).toEqual(output.error);
      return;
    }
    const mine = answer(input);
    walkThrough(input, mine);
    expect(mine.moveMin).toBeCloseTo(output.moveMin, 9);
    expect(mine.deferred).toEqual(output.deferred);
    expect(mine.optimal).toBe(output.optimal);
  });

  it("finds the least move time, against every order told one by one", () => {
    for (let seed = 1; seed <= 150; seed++) {
      const input = randomInput(seed, 2 + (seed % 4), 1 + (seed % 7), seed % 9);
      const mine = answer(input);
      walkThrough(input, mine);
      expect(mine.optimal, `seed ${seed}`).toBe(true);
      expect(mine.moveMin, `seed ${seed}: ${JSON.stringify(input)}`).toBeCloseTo(leastMoves(input, input.topics), 9);
    }
  });

  it("keeps the most value within the budget, against every choice (any shape, up to ten topics)", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const input = { ...randomInput(seed * 31, 3, 2 + (seed % 5), seed % 5), budgetMin: 4 + (seed % 11) };
      const mine = answer(input);
      walkThrough(input, mine);
      const best = bestValue(input);
      if (best < 0) {
        expect(mine.overBudgetMin, `seed ${seed}`).toBeCloseTo(mine.totalMin - input.budgetMin, 9);
        continue;
      }
      expect(mine.overBudgetMin).toBeUndefined();
      expect(mine.totalMin).toBeLessThanOrEqual(input.budgetMin + 1e-9);
      const kept = input.topics.filter((topic) => !mine.deferred.includes(topic.id));
      expect(
        kept.reduce((sum, topic) => sum + topic.value, 0),
        `seed ${seed}`,
      ).toBe(best);
      expect(mine.optimal).toBe(true);
    }
  });

  it("keeps the most value on twelve topics whose `after` stay at their station", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const input = { ...randomInput(seed * 77, 3, 12, 0), budgetMin: 8 + seed };
      input.topics.forEach((topic, i) => {
        const before = input.topics.slice(0, i).find((other) => other.station === topic.station);
        if (before && i % 3 === 0) topic.after.push(before.id);
      });
      const mine = answer(input);
      walkThrough(input, mine);
      expect(mine.optimal).toBe(true);
      if (mine.overBudgetMin !== undefined) continue;
      const kept = input.topics.filter((topic) => !mine.deferred.includes(topic.id));
      expect(
        kept.reduce((sum, topic) => sum + topic.value, 0),
        `seed ${seed}`,
      ).toBe(bestValue(input));
    }
  });

  it("never goes over the budget on boat-sized knots, and keeps the musts with all they come after", () => {
    for (let seed = 1; seed <= 4; seed++) {
      const input = { ...randomInput(seed * 5, 9, 60, 20), budgetMin: 110 };
      for (const topic of input.topics) topic.must = topic.must && Number(topic.id.slice(1)) % 5 === 0;
      const mine = answer(input);
      walkThrough(input, mine);
      expect(mine.overBudgetMin).toBeUndefined();
      expect(mine.totalMin).toBeLessThanOrEqual(110 + 1e-9);
      expect(input.topics.filter((topic) => topic.must && mine.deferred.includes(topic.id))).toEqual([]);
    }
  });

  it("walks from start to end when there is nothing to tell, and nowhere without them", () => {
    const empty = {
      stations: [{ id: "a" }, { id: "b" }],
      moveMin: [
        [0, 2],
        [3, 0],
      ],
      topics: [],
    };
    expect(answer(empty).visits).toEqual([]);
    expect(answer({ ...empty, start: "a", end: "b" })).toMatchObject({
      visits: [
        { station: "a", topics: [] },
        { station: "b", topics: [] },
      ],
      moveMin: 2,
    });
    expect(answer({ ...empty, start: "b", end: "b" }).visits).toEqual([{ station: "b", topics: [] }]);
  });

  it("names only the topics of the circle", () => {
    const topic = (id: string, after: string[]) => ({ id, station: "a", minutes: 1, after, must: false, value: 1 });
    const result = route({
      stations: [{ id: "a" }],
      moveMin: [[0]],
      topics: [topic("x", []), topic("y", ["x", "z"]), topic("z", ["y"]), topic("w", ["z"])],
    });
    expect(result).toEqual({
      ok: false,
      error: { code: "cycle", message: "a circle of after: y, z", topics: ["y", "z"] },
    });
  });
});
