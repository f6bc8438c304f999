/**
 * The states a search has reached: (station, set of told blocks) with cost and parent, found again through a hash table.
 * Sets are `words` 32-bit words in one pool, state i from `pool[i * words]`.
 */
export function createToldStates(words: number) {
  let capacity = 2048;
  let pool = new Uint32Array(capacity * words);
  let station = new Uint8Array(capacity);
  let cost = new Float64Array(capacity);
  let parent = new Int32Array(capacity);
  let closed = new Uint8Array(capacity);
  let table = new Int32Array(8192).fill(-1);
  let count = 0;

  const hash = (at: number, mask: Uint32Array, from: number) => {
    let h = Math.imul(at + 1, 0x9e3779b1);
    for (let w = 0; w < words; w++) {
      h ^= mask[from + w]!;
      h = Math.imul(h ^ (h >>> 16), 0x7feb352d);
      h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
      h ^= h >>> 16;
    }
    return h;
  };
  const slotOf = (at: number, mask: Uint32Array, from: number) => {
    const last = table.length - 1;
    for (let slot = hash(at, mask, from) & last; ; slot = (slot + 1) & last) {
      const state = table[slot]!;
      if (state < 0) return slot;
      if (station[state] !== at) continue;
      let w = 0;
      while (w < words && pool[state * words + w] === mask[from + w]) w++;
      if (w === words) return slot;
    }
  };
  const grow = () => {
    capacity *= 2;
    const widen = <T extends Uint32Array | Uint8Array | Float64Array | Int32Array>(from: T, to: T) => {
      to.set(from);
      return to;
    };
    pool = widen(pool, new Uint32Array(capacity * words));
    station = widen(station, new Uint8Array(capacity));
    cost = widen(cost, new Float64Array(capacity));
    parent = widen(parent, new Int32Array(capacity));
    closed = widen(closed, new Uint8Array(capacity));
    table = new Int32Array(capacity * 4).fill(-1);
    for (let s = 0; s < count; s++) table[slotOf(station[s]!, pool, s * words)] = s;
  };

  return {
    size: () => count,
    pool: () => pool,
    stationOf: (state: number) => station[state]!,
    costOf: (state: number) => cost[state]!,
    parentOf: (state: number) => parent[state]!,
    isClosed: (state: number) => closed[state] === 1,
    close(state: number) {
      closed[state] = 1;
    },
    /** The state (at, mask) if this way there is cheaper than any before, else -1. */
    improve(at: number, mask: Uint32Array, newCost: number, newParent: number): number {
      const slot = slotOf(at, mask, 0);
      let state = table[slot]!;
      if (state >= 0) {
        if (cost[state]! <= newCost + 1e-12) return -1;
      } else {
        state = count++;
        table[slot] = state;
        pool.set(mask, state * words);
        station[state] = at;
      }
      cost[state] = newCost;
      parent[state] = newParent;
      closed[state] = 0;
      if (count === capacity) grow();
      return state;
    },
  };
}
