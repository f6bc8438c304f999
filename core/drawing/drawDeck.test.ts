import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { families } from "../rig/index.ts";
import { halfBeamM, hullRing } from "./hull.ts";
import { drawDeck, drawFamily, isWithinHull, shapeRoles } from "./index.ts";

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

  it.each(families)("keeps the furniture of a %s within its hull line at any length and beam", (family) => {
    for (const [loaM, beamM] of [
      [4.6, 1.9],
      [6, 2.3],
      [7, 2.55],
      [9.5, 3],
    ] as const) {
      const hull = { family, loaM, beamM };
      const inside = drawFamily(hull).filter(({ role }) => ["sole", "cushion", "locker", "console"].includes(role));
      expect(inside.length).toBeGreaterThan(7);
      for (const { d, role } of inside) {
        for (const [x, y] of endsOf(d))
          expect(isWithinHull(hull, { xM: -y, yM: x }), `${role} ${loaM}: ${x} ${y}`).toBe(true);
      }
    }
  });

  it.each(families)("a %s is as long and as wide as it says, the same on both sides", (family) => {
    const hull = { family, loaM: 6.4, beamM: 2.4 };
    const ring = hullRing(hull, 0, hull.loaM);
    const across = ring.map(([, y]) => y);
    expect(Math.max(...across)).toBeGreaterThan(1.19);
    expect(Math.max(...across)).toBeLessThanOrEqual(1.2);
    expect(Math.max(...across)).toBeCloseTo(-Math.min(...across), 9);
    expect(halfBeamM(hull, 6.5)).toBe(0);
    const outline = drawFamily(hull).filter(({ role }) => role === "hull");
    const ends = outline.flatMap(({ d }) => endsOf(d));
    expect(Math.max(...ends.map(([, y]) => -y))).toBeGreaterThan(6.3);
    expect(Math.max(...ends.map(([, y]) => -y))).toBeLessThanOrEqual(6.4);
  });

  it("no two families look alike", () => {
    const drawings = families.map((family) => JSON.stringify(drawFamily({ family, loaM: 6, beamM: 2.4 })));
    expect(new Set(drawings).size).toBe(families.length);
  });

  it("draws three tubes where the pontoon has three", () => {
    const count = (tubes: 2 | 3) =>
      drawFamily({ family: "pontoon", loaM: 7, beamM: 2.6 }, tubes).filter(({ role }) => role === "hull").length;
    expect(count(3)).toBe(count(2) + 1);
  });

  it.each([
    "swim-platform",
    "ladder",
    "portable-tank",
    "windlass",
    "bow-motor",
    "hard-top",
    "bimini",
    "tower",
  ] as const)("draws a %s only where the rig has one, on its paper", (kind) => {
    const parts = rig.parts.filter((part) => part.kind !== kind);
    const at = kind === "swim-platform" ? { xM: -0.3, yM: 0 } : { xM: 3, yM: 0 };
    const without = drawDeck({ ...rig, parts }, { trailer: false });
    const part = { id: "p", kind, label: kind, station: "helm", at };
    const drawn = drawDeck({ ...rig, parts: [...parts, part] }, { trailer: false });
    expect(drawn.shapes.length).toBeGreaterThan(without.shapes.length);
    for (const { d } of drawn.shapes)
      for (const [, y] of endsOf(d)) expect(y).toBeLessThanOrEqual(drawn.box.y + drawn.box.height);
  });

  it("draws what hangs at the stern, and the trailer only when there is one", () => {
    const count = (role: string, of: Parameters<typeof drawDeck>[0]) =>
      drawDeck(of, { trailer: true }).shapes.filter((shape) => shape.role === role).length;
    const one = rig.engines[0]!;
    expect(count("engine", rig)).toBe(2);
    expect(count("engine", { ...rig, engines: [one] })).toBe(1);
    expect(count("engine", { ...rig, engines: [one, { ...one, id: "k", kind: "kicker" }] })).toBe(2);
    expect(count("engine", { ...rig, engines: [{ ...one, kind: "sterndrive" }] })).toBe(1);
    expect(count("engine", { ...rig, engines: [{ ...one, kind: "inboard" }] })).toBe(0);
    expect(count("wheel", rig)).toBe(4);
    expect(count("wheel", { ...rig, trailer: null })).toBe(0);
  });
});
