/** A binary heap of (key, item) pairs, smallest key first; of equal keys the later pushed comes first (deeper states). */
export function createMinHeap() {
  const keys: number[] = [];
  const items: number[] = [];
  const swap = (a: number, b: number) => {
    const key = keys[a]!;
    const item = items[a]!;
    keys[a] = keys[b]!;
    items[a] = items[b]!;
    keys[b] = key;
    items[b] = item;
  };
  return {
    size: () => keys.length,
    topKey: () => keys[0] ?? Number.POSITIVE_INFINITY,
    push(key: number, item: number) {
      keys.push(key);
      items.push(item);
      let i = keys.length - 1;
      while (i > 0) {
        const up = (i - 1) >> 1;
        if (keys[up]! < keys[i]!) break;
        swap(i, up);
        i = up;
      }
    },
    /** Removes and returns the item of the smallest key. Ask only while size() > 0. */
    pop(): number {
      const top = items[0]!;
      const last = keys.length - 1;
      swap(0, last);
      keys.pop();
      items.pop();
      let i = 0;
      for (;;) {
        const left = 2 * i + 1;
        if (left >= last) break;
        const child = left + 1 < last && keys[left + 1]! < keys[left]! ? left + 1 : left;
        if (keys[child]! >= keys[i]!) break;
        swap(i, child);
        i = child;
      }
      return top;
    },
  };
}
