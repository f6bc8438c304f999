import { describe, expect, it } from "vitest";
import { closeMoves } from "../../paths/closeMoves.ts";
import { createRandom } from "../../random.ts";
import type { RouteTopic } from "../contract.ts";
import { type Block, createBlocks, dropImpliedBlocks, orderTopics } from "./blocks.ts";
import { createClosings } from "./closings.ts";
import { createFinishBound } from "./finishBound.ts";
import { createKnownBounds } from "./knownBounds.ts";
import { createMinHeap } from "./minHeap.ts";
import { searchBeam } from "./searchBeam.ts";
import { searchVisits } from "./searchVisits.ts";
import { createShortestRounds } from "./shortestRounds.ts";
import { createToldStates } from "./toldStates.ts";
import { createVisitSteps } from "./visitSteps.ts";

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
const tellAt = (blocks: readonly Block[], station: number, told: Set<number>) => {
  const ready = blocks.flatMap((b, i) => (b.station === station && b.needs.every((a) => told.has(a)) ? [i] : []));
  for (const b of ready) told.add(b);
};
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

describe("closings", () => {
  it("are done in an order their needs allow on any walk, and are at most two a station", () => {
    for (let seed = 1; seed <= 30; seed++) {
      const blocks = blocksOf(randomTopics(seed, 5, 30, 26));
      const closings = createClosings(blocks, [0, 1, 2, 3, 4]);
      expect(closings.length).toBeLessThanOrEqual(10);
      const { stations } = searchVisits({
        blocks,
        moves: randomMoves(seed, 5),
        start: null,
        end: null,
        maxStates: 1e5,
      });
      const told = new Set<number>();
      for (const station of stations) {
        tellAt(blocks, station, told);
        const isDone = (c: number) => closings[c]!.members.every((b) => told.has(b));
        closings.forEach((closing, c) => {
          if (isDone(c)) for (const before of closing.needs) expect(isDone(before), `seed ${seed}`).toBe(true);
        });
      }
      expect(told.size).toBe(blocks.length);
    }
  });
});

describe("shortestRounds", () => {
  it("is the cheapest of all orders, and comes back where asked", () => {
    const moves = randomMoves(4, 5);
    const stations = [4, 0, 2, 3];
    const rounds = createShortestRounds(moves, stations, 1);
    const slow = (from: number, rest: readonly number[]): number =>
      rest.length === 0
        ? moves[from]![1]!
        : Math.min(
            ...rest
              .filter((to) => to !== from || rest.length === 1)
              .map((to) =>
                to === from
                  ? moves[from]![1]!
                  : moves[from]![to]! +
                    slow(
                      to,
                      rest.filter((s) => s !== to),
                    ),
              ),
          );
    for (let set = 0; set < 16; set++) {
      const list = stations.filter((_, i) => (set & (1 << i)) !== 0);
      stations.forEach((from, i) => {
        expect(rounds.from(i, set), `from ${from} through ${list}`).toBeCloseTo(slow(from, list), 9);
      });
    }
  });
});

describe("knownBounds", () => {
  it("answers what was written where it is good enough, through growth, and says when it is full", () => {
    const known = createKnownBounds(9000);
    const random = createRandom(11);
    const truth = new Map<number, { value: number; exact: boolean }>();
    while (truth.size < 8999) {
      const key = Math.floor(random() * 2 ** 32) | 0;
      if (key === -1) continue;
      const entry = { value: Math.floor(random() * 90), exact: random() < 0.5 };
      truth.set(key, entry);
      known.write(key, entry.value, entry.exact);
    }
    for (const [key, { value, exact }] of truth)
      expect(known.read(key, 45), `${key}`).toBe(exact || value >= 45 ? value : -1);
    expect(known.read(-2, 0)).toBe(truth.get(-2)?.value ?? -1);
    expect(known.isFull()).toBe(false);
    known.write(truth.has(7) ? 8 : 7, 1, true);
    expect(known.isFull()).toBe(true);
  });
});

describe("finishBound", () => {
  it("never says more than the true rest; the sharp bound is often above the quick one", () => {
    let sharper = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const blocks = blocksOf(randomTopics(seed, 4, 11, 12));
      const moves = randomMoves(seed, 4);
      const bound = createFinishBound(blocks, moves, null);
      for (let from = 0; from < 4; from++) {
        const told = new Set<number>();
        tellAt(blocks, from, told);
        const truth = walkSlowly(blocks, moves, from, told);
        const quick = bound.quick(from, maskOf(told), 0);
        const sharp = bound.sharp(from, maskOf(told), 0, Number.POSITIVE_INFINITY);
        expect(sharp, `seed ${seed}`).toBeLessThanOrEqual(truth + 1e-9);
        expect(quick, `seed ${seed}`).toBeLessThanOrEqual(truth + 1e-9);
        if (sharp > quick + 1e-9) sharper++;
      }
    }
    expect(sharper).toBeGreaterThan(20);
  });

  it("is the truth where no station has more than what waits for nothing and one thing that waits", () => {
    const block = (station: number, needs: number[]) => ({ station, topics: [], needs });
    const blocks = [block(0, []), block(1, []), block(2, [0]), block(0, [1, 2]), block(1, [3])];
    for (let seed = 1; seed <= 20; seed++) {
      const moves = randomMoves(seed, 3);
      const bound = createFinishBound(blocks, moves, null);
      for (let from = 0; from < 3; from++) {
        const told = new Set<number>();
        tellAt(blocks, from, told);
        const truth = walkSlowly(blocks, moves, from, told);
        expect(bound.sharp(from, maskOf(told), 0, 1e9), `seed ${seed}`).toBeCloseTo(truth, 9);
      }
    }
  });

  it("answers from the limit up when the rest is longer than the limit", () => {
    const blocks = blocksOf(randomTopics(3, 6, 40, 36));
    const moves = randomMoves(3, 6);
    const whole = createFinishBound(blocks, moves, null).sharp(0, maskOf([]), 0, Number.POSITIVE_INFINITY);
    const bound = createFinishBound(blocks, moves, null);
    for (const share of [0.2, 0.5, 0.8, 0.99]) {
      const answer = bound.sharp(0, maskOf([]), 0, whole * share);
      expect(answer).toBeGreaterThanOrEqual(whole * share - 1e-9);
      expect(answer).toBeLessThanOrEqual(whole + 1e-9);
    }
    expect(bound.sharp(0, maskOf([]), 0, whole + 1)).toBeCloseTo(whole, 9);
  });

  it("stays below the truth with more stations than it looks at, from any state reached", () => {
    for (let seed = 1; seed <= 4; seed++) {
      const blocks = blocksOf(randomTopics(seed, 17, 60, 40));
      const moves = randomMoves(seed, 17);
      const found = searchVisits({ blocks, moves, start: 0, end: 3, maxStates: 20_000 });
      const bound = createFinishBound(blocks, moves, 3);
      const told = new Set<number>();
      let walked = 0;
      found.stations.forEach((station, i) => {
        if (i > 0) walked += moves[found.stations[i - 1]!]![station]!;
        tellAt(blocks, station, told);
        const rest = bound.sharp(station, maskOf(told), 0, Number.POSITIVE_INFINITY);
        expect(walked + rest, `seed ${seed}`).toBeLessThanOrEqual(found.moveMin + 1e-9);
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

describe("searchBeam", () => {
  it("tells everything in an order that is allowed, at what it says, and the wider the better", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const blocks = blocksOf(randomTopics(seed, 7, 40, 34));
      const moves = randomMoves(seed, 7);
      const search = { blocks, moves, start: null, end: 2, maxStates: 1e6 };
      const steps = createVisitSteps(search);
      const bound = createFinishBound(blocks, moves, 2);
      const found = searchBeam(search, steps, bound, Number.POSITIVE_INFINITY, 3)!;
      const told = new Set<number>();
      let minutes = 0;
      found.stations.forEach((station, i) => {
        if (i > 0) minutes += moves[found.stations[i - 1]!]![station]!;
        tellAt(blocks, station, told);
      });
      expect(told.size, `seed ${seed}`).toBe(blocks.length);
      expect(found.stations.at(-1)).toBe(2);
      expect(found.moveMin).toBeCloseTo(minutes, 9);
      const best = searchVisits(search);
      expect(best.moveMin, `seed ${seed}`).toBeLessThanOrEqual(found.moveMin + 1e-9);
      expect(searchBeam(search, steps, bound, best.moveMin, 50)).toBeNull();
    }
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
        expect(states.isClosed(state)).toBe(false);
        states.close(state);
        expect(states.isClosed(state)).toBe(true);
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
