const mostRounds = 400;

interface Place {
  xM: number;
  yM: number;
}

/**
 * Marks that would lie on each other are pushed apart until no two are closer than `apartM`, each staying near its thing.
 * `xM` and `yM` become where the mark is drawn, `at` is where the thing is.
 */
export function spreadMarks<M extends Place>(marks: readonly Readonly<M>[], apartM: number): (M & { at: Place })[] {
  const moved: (M & { at: Place })[] = marks.map((mark) => ({ ...mark, at: { xM: mark.xM, yM: mark.yM } }));
  for (let round = 0; round < mostRounds; round++) {
    let isSettled = true;
    for (const [i, a] of moved.entries())
      for (const b of moved.slice(i + 1)) {
        const dx = b.xM - a.xM;
        const dy = b.yM - a.yM;
        const apart = Math.hypot(dx, dy);
        if (apart >= apartM - 1e-3) continue;
        isSettled = false;
        const [ux, uy] = apart < 1e-6 ? [1, 0] : [dx / apart, dy / apart];
        const push = (apartM - apart) / 2;
        a.xM -= ux * push;
        a.yM -= uy * push;
        b.xM += ux * push;
        b.yM += uy * push;
      }
    if (isSettled) break;
  }
  return moved;
}
