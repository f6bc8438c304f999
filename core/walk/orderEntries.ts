import type { Entry } from "./entry.ts";

/**
 * Entries in order of time, then of id; each once, those that were undone left out. Ten thousand of them are put in order
 * for every mark, so times are compared as numbers, in one sort of plain numbers, and only ties by their text.
 */
export function orderEntries(entries: readonly Entry[]): Entry[] {
  const seen = new Set<string>();
  const undone = new Set<string>();
  const once: Entry[] = [];
  for (const entry of entries) {
    if (entry.kind === "undo") undone.add(entry.ref);
    else if (!seen.has(entry.id)) {
      seen.add(entry.id);
      once.push(entry);
    }
  }
  const counted = undone.size === 0 ? once : once.filter(({ id }) => !undone.has(id));
  const count = counted.length;
  const timesMs = new Float64Array(count);
  let leastMs = Number.POSITIVE_INFINITY;
  let mostMs = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < count; i++) {
    const ms = Date.parse(counted[i]!.at);
    timesMs[i] = ms;
    if (ms < leastMs) leastMs = ms;
    if (ms > mostMs) mostMs = ms;
  }
  // Time and place in one number. A clock decades off may take it beyond what is exact: then the plain way.
  if ((mostMs - leastMs + 1) * count > Number.MAX_SAFE_INTEGER)
    return counted.sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : 1));
  const keys = timesMs.map((ms, i) => (ms - leastMs) * count + i).sort();
  const ordered = new Array<Entry>(count);
  for (let k = 0; k < count; k++) ordered[k] = counted[keys[k]! % count]!;
  for (let from = 0; from < count; ) {
    let to = from + 1;
    const time = (k: number) => timesMs[keys[k]! % count];
    while (to < count && time(to) === time(from)) to++;
    if (to - from > 1) {
      const tied = ordered.slice(from, to).sort((a, b) => (a.id < b.id ? -1 : 1));
      for (const [i, entry] of tied.entries()) ordered[from + i] = entry;
    }
    from = to;
  }
  return ordered;
}
