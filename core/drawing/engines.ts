import { boxPath, curvePath, linePath, type Shape } from "./shape.ts";

/** Outboards on the transom, side by side, seen from above; trim tabs either side. Metres. */
export function drawOutboards(count: number, beamM: number): Shape[] {
  const shapes: Shape[] = [];
  const pitch = 0.68;
  for (let i = 0; i < count; i++) {
    const y = (i - (count - 1) / 2) * pitch;
    shapes.push(
      { role: "fitting", d: boxPath(-0.2, y - 0.15, 0.03, y + 0.15, 0.03) },
      {
        role: "engine",
        d: curvePath(
          [
            [-0.16, y - 0.17],
            [-0.12, y - 0.08],
            [-0.12, y + 0.08],
            [-0.16, y + 0.17],
            [-0.46, y + 0.215],
            [-0.72, y + 0.19],
            [-0.86, y + 0.1],
            [-0.88, y],
            [-0.86, y - 0.1],
            [-0.72, y - 0.19],
            [-0.46, y - 0.215],
          ],
          true,
        ),
      },
      {
        role: "engine-line",
        d: linePath([
          [-0.24, y],
          [-0.74, y],
        ]),
      },
      {
        role: "engine-line",
        d: linePath([
          [-0.64, y - 0.13],
          [-0.74, y],
          [-0.64, y + 0.13],
        ]),
      },
    );
  }
  const outer = (beamM / 2) * 0.93;
  for (const sign of [-1, 1]) {
    const a = sign * (outer - 0.06);
    const b = sign * (outer - 0.4);
    shapes.push({ role: "fitting", d: boxPath(-0.2, Math.min(a, b), 0, Math.max(a, b), 0.02) });
  }
  return shapes;
}
