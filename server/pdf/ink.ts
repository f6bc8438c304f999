import { drawCourse, drawDeck, type ShapeRole } from "../../core/drawing/index.ts";
import { cornersOf, type Rig } from "../../core/rig/index.ts";
import type { EntryOf, Mark } from "../../core/walk/index.ts";

export const ink = "#14222B";
export const soft = "#4B5B66";
export const rule = "#D9D5C8";
export const magenta = "#A3125F";
export const amber = "#8A5A00";

const roleInk: Record<ShapeRole, string> = {
  shadow: `fill="none"`,
  frame: `fill="none" stroke="${soft}" stroke-width="0.02"`,
  wheel: `fill="${soft}"`,
  hull: `fill="#FFFFFF" stroke="${ink}" stroke-width="0.045"`,
  rail: `fill="none" stroke="${ink}" stroke-width="0.012"`,
  sole: `fill="#F6F3EA" stroke="${ink}" stroke-width="0.022"`,
  locker: `fill="#FFFFFF" stroke="${ink}" stroke-width="0.016"`,
  cushion: `fill="#E4E9EA" stroke="${ink}" stroke-width="0.018"`,
  console: `fill="#FFFFFF" stroke="${ink}" stroke-width="0.024"`,
  glass: `fill="#D5E6EC" stroke="${ink}" stroke-width="0.014"`,
  engine: `fill="${ink}"`,
  "engine-line": `fill="none" stroke="#FFFFFF" stroke-width="0.018"`,
  fitting: `fill="#FFFFFF" stroke="${ink}" stroke-width="0.014"`,
  hatch: `fill="#F6F3EA" stroke="${ink}" stroke-width="0.014"`,
  overhead: `fill="none" stroke="${ink}" stroke-width="0.016" stroke-dasharray="0.09 0.06"`,
  grain: `fill="none" stroke="${soft}" stroke-width="0.006" stroke-opacity="0.55"`,
  shade: `fill="none" stroke="${ink}" stroke-width="0.008" stroke-opacity="0.6"`,
  water: `fill="none" stroke="#0F3D4C" stroke-width="0.01" stroke-dasharray="0.5 0.07 0.16 0.07" stroke-opacity="0.5"`,
  hair: `fill="none" stroke="${soft}" stroke-width="0.01"`,
};

interface PlanSign {
  readonly label: string;
  readonly xM: number;
  readonly yM: number;
  /** Where the thing is, where its number had to be drawn beside it. */
  readonly at?: { readonly xM: number; readonly yM: number };
}
/** A number so far from its thing has a line to it. Metres. */
const leadFromM = 0.12;

/** The deck plan as an SVG file with a number at each stop, and the course line where the walk is given. */
export function printDeck(rig: Rig, stops: readonly PlanSign[], walk: readonly { station: string }[] = []): string {
  const { shapes, box } = drawDeck(rig, { trailer: rig.trailer !== null });
  const paths = shapes.map(({ role, d }) => `<path d="${d}" ${roleInk[role]}/>`).join("");
  const course = drawCourse(rig, walk)
    .map((d) => `<path d="${d}" fill="none" stroke="#0F3D4C" stroke-width="0.035" stroke-dasharray="0.03 0.07"/>`)
    .join("");
  const leads = stops
    .flatMap(({ xM, yM, at }) =>
      at === undefined || Math.hypot(xM - at.xM, yM - at.yM) < leadFromM ? [] : [{ xM, yM, at }],
    )
    .map(
      ({ xM, yM, at }) =>
        `<path d="M${yM} ${-xM}L${at.yM} ${-at.xM}" stroke="${ink}" stroke-width="0.025" fill="none"/><circle cx="${at.yM}" cy="${-at.xM}" r="0.06" fill="${ink}"/>`,
    )
    .join("");
  const dots = stops
    .map(({ label, xM, yM }) => {
      const half = 0.24 + Math.max(0, label.length - 2) * 0.062;
      return `<rect x="${yM - half}" y="${-xM - 0.24}" width="${half * 2}" height="0.48" rx="0.24" fill="${ink}"/><text x="${yM}" y="${-xM + 0.095}" font-family="Archivo" font-size="0.27" font-weight="bold" text-anchor="middle" fill="#FFFFFF">${label}</text>`;
    })
    .join("");
  const corners = walk.length === 0 ? [] : cornersOf(rig);
  const places = [...stops.map(({ xM, yM }) => ({ xM, yM })), ...corners];
  const left = Math.min(box.x, ...places.map(({ yM }) => yM - 0.4));
  const right = Math.max(box.x + box.width, ...places.map(({ yM }) => yM + 0.4));
  const top = Math.min(box.y, ...places.map(({ xM }) => -xM - 0.3));
  const bottom = Math.max(box.y + box.height, ...places.map(({ xM }) => -xM + 0.3));
  const view = `${left} ${top} ${right - left} ${bottom - top}`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${view}">${paths}${course}${leads}${dots}</svg>`;
}

/** Ravik's marks: told ◔, shown ◑, did it ●, later ▷, not aboard –, drawn so that no font is needed. */
export function printMark(mark: Mark | "open"): string {
  const ring = `<circle cx="6" cy="6" r="4.6" fill="none" stroke="${ink}" stroke-width="1.1"/>`;
  const inside: Record<Mark | "open", string> = {
    told: `${ring}<path d="M6 6L6 1.4A4.6 4.6 0 0 1 10.6 6Z" fill="${ink}"/>`,
    shown: `${ring}<path d="M6 1.4A4.6 4.6 0 0 1 6 10.6Z" fill="${ink}"/>`,
    did: `<circle cx="6" cy="6" r="5" fill="${ink}"/>`,
    later: `<path d="M2.4 1.6L10.4 6L2.4 10.4Z" fill="none" stroke="${ink}" stroke-width="1.1"/>`,
    "not-aboard": `<path d="M2 6L10 6" stroke="${ink}" stroke-width="1.4"/>`,
    open: ring,
  };
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 12 12">${inside[mark]}</svg>`;
}

/** A signature's strokes as an SVG file. */
export function printSignature({ width, height, strokes }: EntryOf<"sign">): string {
  const paths = strokes
    .map((stroke) => {
      const points: string[] = [];
      for (let i = 0; i + 1 < stroke.length; i += 2) points.push(`${stroke[i]} ${stroke[i + 1]}`);
      const d = points.length === 1 ? `M${points[0]}l0.1 0.1` : `M${points.join("L")}`;
      return `<path d="${d}" fill="none" stroke="${ink}" stroke-width="${width / 160}" stroke-linecap="round" stroke-linejoin="round"/>`;
    })
    .join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">${paths}</svg>`;
}
