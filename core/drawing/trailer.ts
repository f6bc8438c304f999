import type { Rig } from "../rig/index.ts";
import { boxPath, circlePath, linePath, type Shape } from "./shape.ts";

/** The trailer under and ahead of a boat, from its own numbers: tongue, winch post, jack, wheels, lights. Metres. */
export function drawTrailer(trailer: NonNullable<Rig["trailer"]>, loaM: number, beamM: number): Shape[] {
  const coupler = trailer.hitchToTransomM;
  const post = loaM + 0.12;
  const half = beamM / 2;
  const shapes: Shape[] = [];
  const add = (role: Shape["role"], d: string) => shapes.push({ role, d });
  const reach = loaM * 0.72;
  for (const sign of [-1, 1]) {
    add(
      "frame",
      linePath(
        [
          [-0.12, sign * half * 0.62],
          [reach, sign * half * 0.62],
          [coupler - 0.55, sign * 0.06],
          [coupler - 0.55, 0],
          [reach - 0.08, sign * half * 0.5],
        ],
        false,
      ),
    );
    const wheelR = 0.34;
    const fender = loaM * 0.31;
    const span = trailer.axles * (wheelR + 0.05) + 0.16;
    const a = sign * (half + 0.03);
    const b = sign * (half + 0.33);
    add("frame", boxPath(fender - span, Math.min(a, b), fender + span, Math.max(a, b), 0.1));
    for (let axle = 0; axle < trailer.axles; axle++) {
      const at = loaM * 0.31 + (axle - (trailer.axles - 1) / 2) * (wheelR * 2 + 0.1);
      const near = sign * (half + 0.06);
      const far = sign * (half + 0.29);
      add("wheel", boxPath(at - wheelR, Math.min(near, far), at + wheelR, Math.max(near, far), 0.07));
      add("engine-line", drawTread(at, wheelR, Math.min(near, far), Math.max(near, far)));
    }
    const light = sign * half * 0.9;
    add("frame", boxPath(-0.3, Math.min(light, light - sign * 0.32), -0.2, Math.max(light, light - sign * 0.32), 0.02));
  }
  add("frame", boxPath(-0.2, -half * 0.9, -0.12, half * 0.9, 0.02));
  add("frame", boxPath(coupler - 0.6, -0.07, coupler - 0.08, 0.07, 0.02));
  add("frame", boxPath(coupler - 0.14, -0.12, coupler + 0.1, 0.12, 0.1));
  add("hair", circlePath(coupler - 0.02, 0, 0.05));
  add("frame", boxPath(post - 0.1, -0.12, post + 0.14, 0.12, 0.03));
  add("frame", boxPath(post + 0.02, 0.12, post + 0.08, 0.26, 0.02));
  add(
    "hair",
    linePath([
      [post - 0.06, 0],
      [loaM - 0.02, 0],
    ]),
  );
  add("frame", circlePath(coupler - 0.46, -0.24, 0.09));
  add(
    "hair",
    linePath([
      [coupler - 0.46, -0.15],
      [coupler - 0.46, -0.07],
    ]),
  );
  for (const sign of [-1, 1])
    add(
      "hair",
      linePath([
        [coupler - 0.3, sign * 0.07],
        [coupler - 0.05, sign * 0.26],
        [coupler + 0.16, sign * 0.1],
      ]),
    );
  return shapes;
}

/** The tread of a tire from above: two grooves round it, and short ones out to its shoulders. */
function drawTread(at: number, radius: number, port: number, starboard: number): string {
  const width = starboard - port;
  const grooves = [0.36, 0.64].map((share) => {
    const side = port + width * share;
    return linePath([
      [at - radius * 0.86, side],
      [at + radius * 0.86, side],
    ]);
  });
  const shoulders = Array.from({ length: 6 }, (_, i) => at + radius * (-0.75 + i * 0.3)).flatMap((along) =>
    [
      [port + width * 0.06, port + width * 0.26],
      [starboard - width * 0.26, starboard - width * 0.06],
    ].map(([from, to]) =>
      linePath([
        [along, from!],
        [along, to!],
      ]),
    ),
  );
  return [...grooves, ...shoulders].join("");
}
