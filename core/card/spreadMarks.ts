/** Two numbers so far apart do not touch: each is a ring of 0.48 m on the plan. */
const apartM = 0.54;
const mostRounds = 400;

interface Place {
  xM: number;
  yM: number;
}

/**
 * Numbers that would lie on each other are pushed apart until none does, each staying near its thing. `xM` and `yM` become
 * where the number is drawn, `at` is where the thing is.
 */
export function spreadMarks<M extends Place>(marks: readonly Readonly<M>[]): (M & { at: Place })[] {
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
