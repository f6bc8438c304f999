import { describe, expect, it } from "vitest";
import { closeMoves } from "../../paths/closeMoves.ts";
import { createRandom } from "../../random.ts";
import type { RouteTopic } from "../contract.ts";
import { type Block, createBlocks, dropImpliedBlocks, orderTopics } from "./blocks.ts";
import { createFinishBound } from "./finishBound.ts";
import { createMinHeap } from "./minHeap.ts";
import { searchVisits } from "./searchVisits.ts";
import { createToldStates } from "./toldStates.ts";

function randomTopics(seed: number, stations: number, count: number, edges: number): RouteTopic[] {
  const random = createRandom(seed);
  const topics = Array.from({ length: count }, (_, i) => ({
    id: `t${i}`,
    station: `s${Math.floor(random() * stations)}`,
    minutes: 1,
    after: [] as string[],
    must: false,
    value: 1,
  }));
  for (let k = 0; k < edges; k++) {
    const later = 1 + Math.floor(random() * (count - 1));
    topics[later]!.after.push(`t${Math.floor(random() * later)}`);
  }
  return topics;
}
const randomMoves = (seed: number, n: number) => {
  const random = createRandom(seed * 13);
  return closeMoves(
    Array.from({ length: n }, () => Array.from({ length: n }, () => 0.5 + Math.round(random() * 30) / 10)),
  );
};
const blocksOf = (topics: RouteTopic[]) => {
  const ordered = orderTopics(topics);
  if (!ordered.ok) throw new Error("circle");
  return createBlocks(
    topics,
    ordered.order,
    topics.map(({ station }) => Number(station.slice(1))),
  );
};
/** The cheapest walk over blocks, by trying every next station: slow and obvious. */
function walkSlowly(
  blocks: readonly Block[],
  moves: readonly (readonly number[])[],
  from: number | null,
  told: ReadonlySet<number>,
): number {
  if (told.size === blocks.length) return 0;
  let least = Number.POSITIVE_INFINITY;
  for (let to = 0; to < moves.length; to++) {
    const news = blocks.flatMap((block, b) =>
      block.station === to && !told.has(b) && block.needs.every((a) => told.has(a)) ? [b] : [],
    );
    if (news.length === 0) continue;
    const rest = walkSlowly(blocks, moves, to, new Set([...told, ...news]));
    least = Math.min(least, (from === null ? 0 : moves[from]![to]!) + rest);
  }
  return least;
}
const maskOf = (told: Iterable<number>) => {
  const mask = new Uint32Array(2);
  for (const b of told) mask[b >>> 5]! |= 1 << (b & 31);
  return mask;
};

describe("blocks", () => {
  it("hold every topic once, and only topics of one station that wait for the same", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const topics = randomTopics(seed, 4, 14, 12);
      const blocks = blocksOf(topics);
      expect(blocks.flatMap((block) => block.topics).sort((a, b) => a - b)).toEqual(topics.map((_, i) => i));
      for (const block of blocks) {
        for (const i of block.topics) expect(topics[i]!.station).toBe(`s${block.station}`);
        for (const a of block.needs) expect(blocks[a]!.station).not.toBe(block.station);
      }
    }
  });

  it("can be left out where implied without changing the cheapest walk", () => {
    let dropped = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const blocks = blocksOf(randomTopics(seed, 4, 10, 8));
      const fewer = dropImpliedBlocks(blocks);
      dropped += blocks.length - fewer.length;
      const moves = randomMoves(seed, 4);
      expect(walkSlowly(fewer, moves, null, new Set()), `seed ${seed}`).toBeCloseTo(
        walkSlowly(blocks, moves, null, new Set()),
        9,
      );
    }
    expect(dropped).toBeGreaterThan(0);
  });
});

describe("finishBound", () => {
  it("never says more than the true rest, and exactly that when it keeps every block", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const blocks = blocksOf(randomTopics(seed, 4, 9, 8));
      const moves = randomMoves(seed, 4);
      const bound = createFinishBound(blocks, moves, null);
      for (let from = 0; from < 4; from++) {
        const truth = walkSlowly(blocks, moves, from, new Set());
        expect(bound(from, maskOf([]), 0), `seed ${seed}`).toBeCloseTo(truth, 9);
      }
    }
  });

  it("stays below the truth when blocks are left out, from any state reached", () => {
    for (let seed = 1; seed <= 6; seed++) {
      const blocks = blocksOf(randomTopics(seed, 5, 26, 22));
      if (blocks.length <= 16) continue;
      const moves = randomMoves(seed, 5);
      const found = searchVisits({ blocks, moves, start: 0, end: null, maxStates: 1e6 });
      const bound = createFinishBound(blocks, moves, null);
      const told = new Set<number>();
      let walked = 0;
      found.stations.forEach((station, i) => {
        if (i > 0) walked += moves[found.stations[i - 1]!]![station]!;
        const ready = blocks.flatMap((b, j) => (b.station === station && b.needs.every((a) => told.has(a)) ? [j] : []));
        for (const j of ready) told.add(j);
        expect(walked + bound(station, maskOf(told), 0), `seed ${seed}`).toBeLessThanOrEqual(found.moveMin + 1e-9);
      });
    }
  });
});

describe("searchVisits", () => {
  it("gives the best it found, and says it is not proven, when it may not look far", () => {
    const blocks = blocksOf(randomTopics(5, 8, 60, 60));
    const moves = randomMoves(5, 8);
    const hurried = searchVisits({ blocks, moves, start: null, end: null, maxStates: 3 });
    const thorough = searchVisits({ blocks, moves, start: null, end: null, maxStates: 1e6 });
    expect(hurried.optimal).toBe(false);
    expect(thorough.optimal).toBe(true);
    expect(hurried.moveMin).toBeGreaterThanOrEqual(thorough.moveMin - 1e-9);
  });
});

describe("minHeap", () => {
  it("gives out what a sort gives", () => {
    const random = createRandom(3);
    const heap = createMinHeap();
    const keys = Array.from({ length: 500 }, () => Math.floor(random() * 90));
    keys.forEach((key, i) => {
      heap.push(key, i);
    });
    const out: number[] = [];
    while (heap.size() > 0) out.push(keys[heap.pop()]!);
    expect(out).toEqual([...keys].sort((a, b) => a - b));
    expect(heap.topKey()).toBe(Number.POSITIVE_INFINITY);
  });
});

describe("toldStates", () => {
  it("finds a state again through growth, and takes only cheaper ways to it", () => {
    const states = createToldStates(2);
    const known = new Map<string, number>();
    const random = createRandom(9);
    for (let i = 0; i < 9000; i++) {
      const mask = maskOf(Array.from({ length: 4 }, () => Math.floor(random() * 40)));
      const station = Math.floor(random() * 7);
      const cost = Math.floor(random() * 50);
      const key = `${station}:${mask.join()}`;
      const before = known.get(key);
      const state = states.improve(station, mask, cost, -1);
      expect(state >= 0).toBe(before === undefined || cost < before);
      if (state >= 0) {
        known.set(key, cost);
        expect(states.costOf(state)).toBe(cost);
        expect(states.stationOf(state)).toBe(station);
        expect(states.close(state)).toBe(true);
        expect(states.close(state)).toBe(false);
      }
    }
    expect(states.size()).toBe(known.size);
  });
});

describe("closeMoves", () => {
  it("lets nobody gain by a further stop, and lengthens no way", () => {
    const random = createRandom(21);
    const raw = Array.from({ length: 9 }, () => Array.from({ length: 9 }, () => random() * 10));
    const closed = closeMoves(raw);
    for (let i = 0; i < 9; i++) {
      expect(closed[i]![i]).toBe(0);
      for (let j = 0; j < 9; j++) {
        if (i !== j) expect(closed[i]![j]!).toBeLessThanOrEqual(raw[i]![j]!);
        for (let via = 0; via < 9; via++)
          expect(closed[i]![j]!).toBeLessThanOrEqual(closed[i]![via]! + closed[via]![j]! + 1e-12);
      }
    }
  });
});
