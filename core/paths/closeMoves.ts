/**
 * Move times closed under shortest paths (Floyd–Warshall): walking past another station is allowed.
 * Square matrix in minutes; the diagonal comes out 0.
 */
export function closeMoves(moveMin: readonly (readonly number[])[]): number[][] {
  const n = moveMin.length;
  const d = moveMin.map((row, i) => row.map((value, j) => (i === j ? 0 : value)));
  for (let via = 0; via < n; via++) {
    for (let i = 0; i < n; i++) {
      const first = d[i]![via]!;
      for (let j = 0; j < n; j++) {
        const around = first + d[via]![j]!;
        if (around < d[i]![j]!) d[i]![j] = around;
      }
    }
  }
  return d;
}
