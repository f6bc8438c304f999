/**
 * What is known of states with a 32-bit key (any but -1): a number from 0 up, exact or only a lower bound. An open-addressing
 * hash table that grows to `most` entries.
 */
export function createKnownBounds(most: number) {
  let keys = new Int32Array(4096).fill(-1);
  let values = new Float64Array(keys.length);
  let exact = new Uint8Array(keys.length);
  let count = 0;
  const slotOf = (key: number) => {
    let h = Math.imul(key ^ (key >>> 15), 0x2c1b3c6d);
    h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
    h ^= h >>> 15;
    let slot = h & (keys.length - 1);
    while (keys[slot] !== key && keys[slot] !== -1) slot = (slot + 1) & (keys.length - 1);
    return slot;
  };
  const grow = () => {
    const [oldKeys, oldValues, oldExact] = [keys, values, exact];
    keys = new Int32Array(oldKeys.length * 4).fill(-1);
    values = new Float64Array(keys.length);
    exact = new Uint8Array(keys.length);
    for (let old = 0; old < oldKeys.length; old++) {
      if (oldKeys[old] === -1) continue;
      const slot = slotOf(oldKeys[old]!);
      keys[slot] = oldKeys[old]!;
      values[slot] = oldValues[old]!;
      exact[slot] = oldExact[old]!;
    }
  };
  return {
    isFull: () => count >= most,
    /** The value of `key` where it is exact or from `limit` up, else -1. */
    read(key: number, limit: number): number {
      const slot = slotOf(key);
      return keys[slot] === key && (exact[slot] === 1 || values[slot]! >= limit) ? values[slot]! : -1;
    },
    write(key: number, value: number, isExact: boolean) {
      let slot = slotOf(key);
      if (keys[slot] !== key) {
        if (++count * 2 > keys.length) {
          grow();
          slot = slotOf(key);
        }
        keys[slot] = key;
      }
      values[slot] = value;
      exact[slot] = isExact ? 1 : 0;
    },
  };
}
