const apartM = 0.5;
const rounds = 40;

/** Numbers that would lie on each other are pushed apart a little, each staying near its thing. */
export function spreadMarks<M extends { xM: number; yM: number }>(marks: readonly M[]): M[] {
  const moved = marks.map((mark) => ({ ...mark }));
  for (let round = 0; round < rounds; round++)
    for (const [i, a] of moved.entries())
      for (const b of moved.slice(i + 1)) {
        const dx = b.xM - a.xM;
        const dy = b.yM - a.yM;
        const apart = Math.hypot(dx, dy);
        if (apart >= apartM) continue;
        const [ux, uy] = apart < 1e-6 ? [1, 0] : [dx / apart, dy / apart];
        const push = (apartM - apart) / 2;
        a.xM -= ux * push;
        a.yM -= uy * push;
        b.xM += ux * push;
        b.yM += uy * push;
      }
  return moved;
}
