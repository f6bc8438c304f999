import { drawFamily, type ShapeRole } from "../../core/drawing/index.ts";
import type { Rig } from "../../core/rig/index.ts";

interface HullSignProps extends Pick<Rig, "loaM" | "beamM"> {
  readonly family: string;
  readonly engines: number;
}

const pxPerM = 19;
const shown: readonly ShapeRole[] = ["hull", "sole", "console", "cushion", "glass", "locker"];

interface Stroke {
  readonly role: ShapeRole;
  readonly d: string;
}
const drawn = new Map<string, readonly Stroke[]>();
const mostDrawn = 100;

/** A list has hundreds of boats of a few shapes: each is drawn once, and what is inked alike is one line. */
function drawOnce(family: Rig["family"], loaM: number, beamM: number): readonly Stroke[] {
  const key = `${family} ${loaM} ${beamM}`;
  const known = drawn.get(key);
  if (known !== undefined) return known;
  const strokes: Stroke[] = [];
  for (const { role, d } of drawFamily({ family, loaM, beamM })) {
    if (!shown.includes(role)) continue;
    const last = strokes.at(-1);
    if (last?.role === role) strokes[strokes.length - 1] = { role, d: `${last.d} ${d}` };
    else strokes.push({ role, d });
  }
  if (drawn.size >= mostDrawn) drawn.clear();
  drawn.set(key, strokes);
  return strokes;
}

/** A boat of its family lying on its side, bow to the right, for one line of a table. All boats at one scale. */
export function HullSign({ family, loaM, beamM, engines }: HullSignProps) {
  const shapes = drawOnce(family as Rig["family"], loaM, beamM);
  const behindM = 0.75;
  return (
    <svg
      aria-hidden
      width={(loaM + behindM + 0.1) * pxPerM}
      height={beamM * pxPerM + 4}
      viewBox={`${-behindM} ${-beamM / 2 - 0.1} ${loaM + behindM + 0.1} ${beamM + 0.2}`}
      className="hull-sign shrink-0 overflow-visible"
    >
      <g transform="rotate(90)">
        {Array.from({ length: engines }, (_, i) => (i - (engines - 1) / 2) * 0.62).map((y) => (
          <rect key={y} x={y - 0.2} y={0.02} width="0.4" height="0.62" rx="0.12" fill="var(--ink)" />
        ))}
        {shapes.map(({ role, d }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the drawing is fixed and has no other name for a line
          <path key={i} d={d} className={`deck-${role}`} />
        ))}
      </g>
    </svg>
  );
}
