/**
 * The least minutes to visit every station of a set, in any order, standing at one of them or elsewhere: the table of Held
 * and Karp (1962), 2^m·m entries for m stations, so m is to be small (14: 230,000).
 */
export interface ShortestRounds {
  /** From stations[i] through all of `set` (bits as in `stations`); bit i in `set` asks to come back to it. */
  from(i: number, set: number): number;
}

/** `moves` in minutes, closed; after the last of the set to `end`, where given. */
export function createShortestRounds(
  moves: readonly (readonly number[])[],
  stations: readonly number[],
  end: number | null,
): ShortestRounds {
  const m = stations.length;
  const direct = Float64Array.from(stations.flatMap((a) => stations.map((b) => moves[a]![b]!)));
  const least = new Float64Array((1 << m) * m);
  if (end !== null) for (let i = 0; i < m; i++) least[i] = moves[stations[i]!]![end]!;
  for (let set = 1; set < 1 << m; set++) {
    for (let i = 0; i < m; i++) {
      // Coming back to i itself is only asked for with others on the way; alone it is being there.
      let best = set === 1 << i ? least[i]! : Number.POSITIVE_INFINITY;
      for (let rest = set & ~(1 << i); rest !== 0; rest &= rest - 1) {
        const to = 31 - Math.clz32(rest & -rest);
        const minutes = direct[i * m + to]! + least[(set ^ (1 << to)) * m + to]!;
        if (minutes < best) best = minutes;
      }
      least[set * m + i] = best;
    }
  }
  return { from: (i, set) => least[set * m + i]! };
}
