import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { halfBeamM } from "./hull.ts";
import { drawDeck, isWithinHull, shapeRoles } from "./index.ts";

const rig = rigTemplates["wending-23"];

/** The end points of a path's pieces; arcs keep only where they end. */
function endsOf(d: string): [x: number, y: number][] {
  const ends: [number, number][] = [];
  for (const [, letter, rest] of d.matchAll(/([MLCA])([^MLCAZ]*)/g)) {
    const numbers = rest!.trim().split(/[ ,]+/).map(Number);
    const step = letter === "C" ? 6 : letter === "A" ? 7 : 2;
    for (let i = step; i <= numbers.length; i += step) ends.push([numbers[i - 2]!, numbers[i - 1]!]);
  }
  return ends;
}

describe("drawDeck", () => {
  it.each([true, false])("draws inside its paper, trailer %s", (trailer) => {
    const { shapes, box } = drawDeck(rig, { trailer });
    for (const { d, role } of shapes) {
      expect(shapeRoles).toContain(role);
      for (const [x, y] of endsOf(d)) {
        expect(x, d).toBeGreaterThanOrEqual(box.x);
        expect(x, d).toBeLessThanOrEqual(box.x + box.width);
        expect(y, d).toBeGreaterThanOrEqual(box.y);
        expect(y, d).toBeLessThanOrEqual(box.y + box.height);
      }
    }
  });

  it("keeps seats, lockers and console within the hull line at any length and beam", () => {
    for (const [loaM, beamM] of [
      [6, 2.3],
      [7, 2.55],
      [9.5, 3],
    ] as const) {
      const { shapes } = drawDeck({ ...rig, loaM, beamM }, { trailer: false });
      const inside = shapes.filter(({ role }) => ["sole", "cushion", "locker", "console", "overhead"].includes(role));
      expect(inside.length).toBeGreaterThan(8);
      for (const { d, role } of inside) {
        for (const [x, y] of endsOf(d))
          expect(isWithinHull({ loaM, beamM }, { xM: -y, yM: x }), `${role} ${loaM}: ${x} ${y}`).toBe(true);
      }
    }
  });

  it("is as long and as wide as the boat", () => {
    expect(halfBeamM(7, 2.55, 7 * 0.42)).toBeCloseTo(2.55 / 2, 1);
    expect(halfBeamM(7, 2.55, 7)).toBeLessThan(0.12);
    expect(halfBeamM(7, 2.55, 7.1)).toBe(0);
  });

  it("draws an engine for each outboard, and the trailer only when there is one", () => {
    const count = (role: string, of: Parameters<typeof drawDeck>[0]) =>
      drawDeck(of, { trailer: true }).shapes.filter((shape) => shape.role === role).length;
    expect(count("engine", rig)).toBe(2);
    expect(count("engine", { ...rig, engines: rig.engines.slice(0, 1) })).toBe(1);
    expect(count("wheel", rig)).toBe(4);
    expect(count("wheel", { ...rig, trailer: null })).toBe(0);
  });
});
