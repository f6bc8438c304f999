import { type Hull, halfBeamM } from "./hull.ts";
import { cleatPaths, createPen, wheelPaths } from "./pen.ts";
import { boxPath, circlePath, curvePath, linePath, type Point, type Shape } from "./shape.ts";

/** What every part is drawn with: the pen, metres per seventh of the length, half the beam at a place. */
interface Draft {
  readonly add: ReturnType<typeof createPen>["add"];
  readonly f: number;
  sideAt(forward: number, inset?: number): number;
}

/** The centre console: open cockpit all round, bow seats, stern locker. Metres throughout. */
export function drawCentreConsole(hull: Hull): Shape[] {
  const pen = createPen(hull);
  pen.shell(0.5 / 7, 6 / 7, 0.25);
  const sideAt = (forward: number, inset = 0) => halfBeamM(hull, forward, inset);
  const draft: Draft = { add: pen.add, f: hull.loaM / 7, sideAt };
  drawBow(draft);
  drawConsole(draft);
  drawStern(draft);
  drawGunwale(draft);
  return pen.shapes;
}

/** Deck, anchor hatch and roller, cushions along the coaming, fish box between them. */
function drawBow({ add, f, sideAt }: Draft) {
  add(
    "locker",
    linePath(
      [
        [6.02 * f, -sideAt(6.02 * f, 0.3) * 0.82],
        [6.5 * f, -sideAt(6.5 * f, 0.3) * 0.72],
        [6.5 * f, sideAt(6.5 * f, 0.3) * 0.72],
        [6.02 * f, sideAt(6.02 * f, 0.3) * 0.82],
      ],
      true,
    ),
  );
  add(
    "hair",
    linePath([
      [6.08 * f, 0],
      [6.44 * f, 0],
    ]),
  );
  add("fitting", boxPath(6.62 * f, -0.05, 7.05 * f, 0.05, 0.03), circlePath(6.3 * f, 0.1, 0.075));
  for (const sign of [-1, 1]) {
    const outer: Point[] = [];
    const inner: Point[] = [];
    for (let i = 0; i <= 10; i++) {
      const forward = (4.35 + (1.5 * i) / 10) * f;
      outer.push([forward, sign * sideAt(forward, 0.31)]);
      inner.push([forward, sign * Math.max(0.1, sideAt(forward, 0.31) - 0.5 + i * 0.012)]);
    }
    add("cushion", linePath([...outer, ...inner.reverse()], true));
    const seam = 5.1 * f;
    add(
      "hair",
      linePath([
        [seam, sign * sideAt(seam, 0.31)],
        [seam, sign * (sideAt(seam, 0.31) - 0.45)],
      ]),
    );
  }
  add("locker", boxPath(4.42 * f, -0.3, 5.0 * f, 0.3, 0.05));
  add(
    "hair",
    linePath([
      [4.5 * f, -0.08],
      [4.5 * f, 0.08],
    ]),
    circlePath(5.3 * f, 0, 0.07),
  );
}

/** Seat in front, screen, dash, wheel, throttles; its door to port; the helm seat for two behind it. */
function drawConsole({ add, f }: Draft) {
  add("cushion", boxPath(3.95 * f, -0.42, 4.24 * f, 0.42, 0.1));
  add(
    "console",
    linePath(
      [
        [2.95 * f, -0.52],
        [3.72 * f, -0.52],
        [3.97 * f, -0.4],
        [3.97 * f, 0.4],
        [3.72 * f, 0.52],
        [2.95 * f, 0.52],
      ],
      true,
    ),
  );
  add(
    "glass",
    curvePath(
      [
        [3.2 * f, -0.52],
        [3.6 * f, -0.42],
        [3.74 * f, 0],
        [3.6 * f, 0.42],
        [3.2 * f, 0.52],
        [3.32 * f, 0.4],
        [3.44 * f, 0],
        [3.32 * f, -0.4],
      ],
      true,
    ),
  );
  add("fitting", boxPath(3.08 * f, -0.1, 3.24 * f, 0.18, 0.02), boxPath(3.06 * f, 0.24, 3.16 * f, 0.44, 0.02));
  add("hair", ...wheelPaths(2.93 * f, -0.16));
  add("fitting", boxPath(2.9 * f, 0.36, 3.02 * f, 0.41, 0.02), boxPath(2.9 * f, 0.45, 3.02 * f, 0.5, 0.02));
  add(
    "hair",
    linePath([
      [3.3 * f, -0.52],
      [3.8 * f, -0.52],
    ]),
    linePath([
      [3.3 * f, -0.52],
      [3.36 * f, -0.85],
    ]),
  );

  // Helm seat for two, aft of the console.
  add("cushion", boxPath(2.06 * f, -0.5, 2.46 * f, -0.01, 0.08), boxPath(2.06 * f, 0.01, 2.46 * f, 0.5, 0.08));
  add("console", boxPath(1.95 * f, -0.52, 2.04 * f, 0.52, 0.04));
}

/** Locker lid, live well in the port quarter, splash well with its drains. */
function drawStern({ add, f, sideAt }: Draft) {
  add(
    "locker",
    boxPath(0.52 * f, -0.6, 1.02 * f, 0.72, 0.05),
    boxPath(0.52 * f, -sideAt(0.7 * f, 0.3), 0.98 * f, -0.66, 0.09),
  );
  add(
    "hair",
    linePath([
      [0.52 * f, 0.06],
      [1.02 * f, 0.06],
    ]),
    circlePath(0.75 * f, -sideAt(0.7 * f, 0.3) + 0.16, 0.045),
    linePath([
      [0.94 * f, -0.12],
      [0.94 * f, 0.24],
    ]),
  );
  add("hatch", boxPath(0.03, -0.86, 0.4 * f, 0.86, 0.06));
  for (let i = 0; i < 15; i++)
    add(
      "hair",
      linePath([
        [0.06, -0.8 + i * 0.112],
        [0.37 * f, -0.74 + i * 0.112],
      ]),
    );
}

/** Cleats, rod holders, fills. */
function drawGunwale({ add, f, sideAt }: Draft) {
  for (const forward of [0.42, 3.0, 5.55]) {
    for (const sign of [-1, 1]) {
      const y = sign * sideAt(forward * f, 0.15);
      add("fitting", ...cleatPaths(forward * f, y));
    }
  }
  for (const forward of [1.15, 1.6, 2.4]) {
    for (const sign of [-1, 1]) add("hair", circlePath(forward * f, sign * sideAt(forward * f, 0.15), 0.032));
  }
  for (const sign of [-1, 1]) add("fitting", circlePath(1.87 * f, sign * sideAt(1.87 * f, 0.15), 0.05));
}
