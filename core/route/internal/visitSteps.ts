import type { VisitSearch } from "./visitSearch.ts";

/** What a search needs to know of a state: which stations have ready blocks, and what is told on arriving at one. */
export function createVisitSteps({ blocks, moves, start }: VisitSearch) {
  const words = Math.ceil(blocks.length / 32);
  const needs = blocks.map((block) => {
    const mask = new Uint32Array(words);
    for (const b of block.needs) mask[b >>> 5]! |= 1 << (b & 31);
    return mask;
  });
  const blocksAt: number[][] = moves.map(() => []);
  blocks.forEach((block, b) => {
    blocksAt[block.station]!.push(b);
  });
  const isOpenAndReady = (pool: Uint32Array, at: number, b: number) => {
    if ((pool[at + (b >>> 5)]! & (1 << (b & 31))) !== 0) return false;
    const need = needs[b]!;
    for (let w = 0; w < words; w++) if ((need[w]! & ~pool[at + w]!) !== 0) return false;
    return true;
  };
  const arrive = (pool: Uint32Array, at: number, station: number, next: Uint32Array) => {
    for (let w = 0; w < words; w++) next[w] = pool[at + w]!;
    for (const b of blocksAt[station]!) if (isOpenAndReady(pool, at, b)) next[b >>> 5]! |= 1 << (b & 31);
  };
  const none = new Uint32Array(words);
  const all = new Uint32Array(words);
  blocks.forEach((_, b) => {
    all[b >>> 5]! |= 1 << (b & 31);
  });
  return {
    words,
    none,
    isAllTold(pool: Uint32Array, at: number): boolean {
      let w = 0;
      while (w < words && pool[at + w] === all[w]) w++;
      return w === words;
    },
    /** Where a walk may begin. */
    listStarts: () =>
      start === null
        ? blocksAt.flatMap((list, s) => (list.some((b) => isOpenAndReady(none, 0, b)) ? [s] : []))
        : [start],
    /** Fills `ready` with the stations where something can be told now. */
    listReady(pool: Uint32Array, at: number, ready: number[]) {
      ready.length = 0;
      for (let s = 0; s < blocksAt.length; s++) {
        const list = blocksAt[s]!;
        for (let i = 0; i < list.length; i++) {
          if (isOpenAndReady(pool, at, list[i]!)) {
            ready.push(s);
            break;
          }
        }
      }
    },
    /** Writes to `next` what is told once at `station` with `pool[at..]` told before. */
    arrive,
    /** Whether the way from `from` to `to` passes a ready station that may as well be stopped at. */
    passesReady(from: number, to: number, ready: readonly number[]): boolean {
      const row = moves[from]!;
      const direct = row[to]!;
      for (let i = 0; i < ready.length; i++) {
        const via = ready[i]!;
        if (via === to || via === from) continue;
        const there = row[via]!;
        if (there + moves[via]![to]! <= direct + 1e-12 && (there < direct || via < to)) return true;
      }
      return false;
    },
  };
}

export type VisitSteps = ReturnType<typeof createVisitSteps>;
